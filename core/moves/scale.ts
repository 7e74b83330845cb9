import type { Num } from '../values'
import { moveKind } from './define'
import { times } from './fields'
import type { MoveBase } from './kind'
import { outlineOf } from './outline'
import { scaled } from './taper'

export interface ScaleMove extends MoveBase {
  move: 'scale'
  by: Num
}

/** Draws the outline so many times as large, about the middle of its area; heights stay. Sides keep their names. */
export const scale = moveKind<ScaleMove>({
  move: 'scale',
  called: 'a scale',
  group: 'plan',
  takes: 'plan',
  gives: 'plan',
  fields: { by: times('plan times', { from: 0.01, to: 100, hint: 'About the middle of its area; heights stay.' }) },
  starts: () => ({ by: 1.1 }),
  build: (form, m, { numbers }) => ({ ...form, outline: scaled(outlineOf(form), numbers.value(m.by, 'number')) }),
})
