import type { Check } from '../types'
import { finding } from '../finding'

/** What a repeat has to say of itself: what it cannot make, a ring that does not close, a mass that is gone. */
export const repeatNote: Check = {
  kind: 'worth knowing of a repeat',
  run: ({ growth }) =>
    growth.remarks.map(({ repeat, say, remedy }, i) =>
      finding('worth knowing of a repeat', `${repeat}:${i}`, say, remedy, {
        masses: [...growth.from].flatMap(([id, f]) => (f.repeat === repeat ? [id] : [])).slice(0, 1),
      }),
    ),
}
