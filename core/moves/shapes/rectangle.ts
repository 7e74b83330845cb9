import * as v from 'valibot'
import { NumSchema, type Num } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { ShapeKind } from './kind'

export interface Rectangle {
  kind: 'rectangle'
  width: Num
  depth: Num
}

/** From the mass's origin, width along its x axis and depth along its y axis. */
export const rectangle: ShapeKind<Rectangle> = {
  kind: 'rectangle',
  schema: v.strictObject({ kind: v.literal('rectangle'), width: NumSchema, depth: NumSchema }),
  numbers: (s) => [
    [s.width, 'length'],
    [s.depth, 'length'],
  ],
  corners: (s, numbers) => {
    const [w, d] = [numbers.length(s.width), numbers.length(s.depth)]
    return [
      { id: 'south', at: [0, 0], bulge: 0 },
      { id: 'east', at: [w, 0], bulge: 0 },
      { id: 'north', at: [w, d], bulge: 0 },
      { id: 'west', at: [0, d], bulge: 0 },
    ]
  },
  check: (s, name, numbers) => {
    atLeastAMillimetre(numbers.length(s.width), `The width of ${name}`)
    atLeastAMillimetre(numbers.length(s.depth), `The depth of ${name}`)
  },
}
