import * as v from 'valibot'
import { IdSchema, NumSchema, refuse, type Num } from '../values'
import type { MoveBase, MoveKind } from './kind'
import { outlineOf } from './outline'
import { scaled } from './taper'

export interface ScaleMove extends MoveBase {
  move: 'scale'
  by: Num
}

/** Draws the outline so many times as large, about the middle of its area; heights stay. Sides keep their names. */
export const scale: MoveKind<ScaleMove> = {
  move: 'scale',
  called: 'a scale',
  takes: 'plan',
  gives: 'plan',
  schema: () => v.strictObject({ id: IdSchema, on: v.boolean(), move: v.literal('scale'), by: NumSchema }),
  numbers: (m) => [[m.by, 'number']],
  inner: () => null,
  check: (m, { name, numbers }) => {
    const by = numbers.value(m.by, 'number')
    if (!(by >= 0.01 && by <= 100))
      refuse(
        'size',
        `The plan of "${name}" is scaled by ${by}.`,
        'Type a number from 0.01 to 100; 1 leaves it as it is.',
      )
  },
  build: (form, m, { numbers }) => ({ ...form, outline: scaled(outlineOf(form), numbers.value(m.by, 'number')) }),
}
