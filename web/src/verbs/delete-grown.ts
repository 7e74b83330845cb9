import { leaveOut, leaveOutOfRule } from '@geotome/core/form'
import { makeEdit } from '../app/session'
import { picked } from '../app/view-slice'
import type { Now } from './kind'

/** Leaves out the picked one of a repeat or a rule; where all of it is picked, removes that. */
export function deleteGrown({ scheme, view, dispatch }: Now): void {
  const now = view.picked
  if (now.kind !== 'rule' && now.kind !== 'repeat') return
  const [id = ''] = now.ids
  const thing = now.kind === 'rule' ? scheme.rules[id] : scheme.repeats[id]
  if (!thing) return
  const { one, kind } = now
  const done =
    one === null
      ? makeEdit(`remove ${thing.name}`, { edit: `${kind}.remove`, scheme: scheme.id, id })
      : makeEdit(`leave one out of ${thing.name}`, () =>
          (kind === 'rule' ? leaveOutOfRule : leaveOut)(scheme, id, one, true),
        )
  if (done) dispatch(picked(one === null ? { kind: 'nothing' } : { kind, ids: [id], one: null }))
}
