import * as v from 'valibot'
import { IdSchema, NumSchema, refuse, type Num } from '../values'
import type { Form, MoveBase, MoveKind } from './kind'
import { leaned } from './lean'
import { outlineOf } from './outline'

export interface InsetMove extends MoveBase {
  move: 'inset'
  /** m inwards; below zero outwards */ by: Num
}

/** Sets every side of the outline in by a distance at right angles to itself, holes as well: they grow. Sides keep their names. */
export const inset: MoveKind<InsetMove> = {
  move: 'inset',
  called: 'an inset',
  takes: 'plan',
  gives: 'plan',
  schema: () => v.strictObject({ id: IdSchema, on: v.boolean(), move: v.literal('inset'), by: NumSchema }),
  numbers: (m) => [[m.by, 'length']],
  inner: () => null,
  check: (m, { form, numbers, name }) => void setIn(form(), numbers.length(m.by), name),
  build: (form, m, { numbers, name }) => setIn(form, numbers.length(m.by), name),
}

function setIn(form: Form, by: number, name: string): Form {
  const vanished = () =>
    refuse(
      'geometry',
      `Set in by ${by} m, a side of "${name}" is gone.`,
      'Set it in by less, or draw the outline anew.',
    )
  return by === 0 ? form : { ...form, outline: leaned(outlineOf(form), by, vanished) }
}
