import { sayInUnits } from '../../project'
import type { Check } from '../types'
import { finding } from '../finding'

const noteOf = (by: 'repeat' | 'rule', kind: string): Check => ({
  kind,
  why: 'What grows by itself is not quite what was asked for.',
  run: ({ project, growth }) =>
    growth.remarks
      .filter((r) => r.by === by)
      .map(({ id, say, remedy }, i) =>
        finding(kind, `${id}:${i}`, sayInUnits(say, project), sayInUnits(remedy, project), {
          masses: [...growth.from].flatMap(([mass, f]) => (f.by === by && f.id === id ? [mass] : [])).slice(0, 1),
        }),
      ),
})

/** What a repeat has to say of itself: what it cannot make, a ring that does not close, a mass that is gone. */
export const repeatNote = noteOf('repeat', 'worth knowing of a repeat')

/** What a rule has to say of itself: a step that finds another number than before, a list of another length, what is not raised. */
export const ruleNote = noteOf('rule', 'worth knowing of a rule')
