import * as v from 'valibot'
import { NumSchema, refuse, tidy, type Num, type Numbers } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { ShapeKind } from './kind'

export interface Regular {
  kind: 'regular'
  sides: Num
  /** what the size is: from the middle to a corner, from the middle to a side and on to the far one, or one side */
  by: 'corners' | 'flats' | 'side'
  size: Num
}

/** So many equal sides about the mass's origin, one of them to the south. Sides are named e1, e2 ... from there, counter-clockwise. */
export const regular: ShapeKind<Regular> = {
  kind: 'regular',
  schema: v.strictObject({
    kind: v.literal('regular'),
    sides: NumSchema,
    by: v.picklist(['corners', 'flats', 'side']),
    size: NumSchema,
  }),
  numbers: (s) => [
    [s.sides, 'number'],
    [s.size, 'length'],
  ],
  corners: (s, numbers) => {
    const count = sidesOf(s, numbers)
    const r = cornerRadius(s, numbers)
    return Array.from({ length: count }, (_, i) => {
      const a = -Math.PI / 2 + (Math.PI * (2 * i - 1)) / count
      return { id: `e${i + 1}`, at: [tidy(r * Math.cos(a)), tidy(r * Math.sin(a))], bulge: 0 }
    })
  },
  check: (s, name, numbers) => {
    sidesOf(s, numbers, name)
    atLeastAMillimetre(numbers.length(s.size), `The size of ${name}`)
  },
}

/** How many sides there are. Errors: 'size' unless it is a whole number from 3 to 200. */
function sidesOf(s: Regular, numbers: Numbers, name = 'the outline'): number {
  const count = numbers.value(s.sides, 'number')
  return Number.isInteger(count) && count >= 3 && count <= 200
    ? count
    : refuse('size', `The outline of ${name} has ${count} sides.`, 'Type a whole number from 3 to 200.')
}

/** m from the middle to a corner. */
export function cornerRadius(s: Regular, numbers: Numbers): number {
  const [size, half] = [numbers.length(s.size), Math.PI / sidesOf(s, numbers)]
  return s.by === 'corners' ? size : s.by === 'flats' ? size / 2 / Math.cos(half) : size / 2 / Math.sin(half)
}

/** The same sides, their size given in another way. */
export function sizedBy(s: Regular, by: Regular['by'], numbers: Numbers): Regular {
  const [r, half] = [cornerRadius(s, numbers), Math.PI / sidesOf(s, numbers)]
  const size = by === 'corners' ? r : by === 'flats' ? 2 * r * Math.cos(half) : 2 * r * Math.sin(half)
  return by === s.by ? s : { ...s, by, size: tidy(size) }
}
