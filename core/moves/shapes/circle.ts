import * as v from 'valibot'
import { NumSchema, type Num } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { ShapeKind } from './kind'

export interface Circle {
  kind: 'circle'
  radius: Num
}

/** About the mass's origin. */
export const circle: ShapeKind<Circle> = {
  kind: 'circle',
  schema: v.strictObject({ kind: v.literal('circle'), radius: NumSchema }),
  numbers: (s) => [[s.radius, 'length']],
  corners: () => [],
  circle: (s, numbers) => ({ x: 0, y: 0, r: numbers.length(s.radius) }),
  check: (s, name, numbers) => void atLeastAMillimetre(numbers.length(s.radius), `The radius of ${name}`),
}
