import type { Num } from '../values'
import { refuse } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { Form, MoveBase } from './kind'
import { leaned } from './set-off'
import { outlineOf } from './outline'

export interface InsetMove extends MoveBase {
  move: 'inset'
  /** m inwards; below zero outwards */ by: Num
}

/** Sets every side of the outline in by a distance at right angles to itself, holes as well: they grow. Sides keep their names. */
export const inset = moveKind<InsetMove>({
  move: 'inset',
  called: 'an inset',
  group: 'plan',
  takes: 'plan',
  gives: 'plan',
  fields: { by: length('every side in by', { hint: 'Square to each side; below zero out.' }) },
  starts: () => ({ by: 1 }),
  check: (m, { form, numbers, name }) => void setIn(form(), numbers.length(m.by), name),
  build: (form, m, { numbers, name }) => setIn(form, numbers.length(m.by), name),
})

function setIn(form: Form, by: number, name: string): Form {
  const vanished = () =>
    refuse(
      'geometry',
      `Set in by ${by} m, a side of "${name}" is gone.`,
      'Set it in by less, or draw the outline anew.',
    )
  return by === 0 ? form : { ...form, outline: leaned(outlineOf(form), by, vanished) }
}
