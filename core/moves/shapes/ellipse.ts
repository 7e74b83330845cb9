import * as v from 'valibot'
import { arcBetween, bulgeThrough, loopArea, TOLERANCE, type Vec2 } from '../../solid'
import { NumSchema, tidy, type Num } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { ShapeKind } from './kind'

export interface Ellipse {
  kind: 'ellipse'
  width: Num
  depth: Num
}

/**
 * An ellipse from the mass's origin within a width and a depth, as arcs through its points that lie within a millimetre of it and enclose
 * exactly its area (pi/4 x width x depth). Sides are named e1, e2 ... from its easternmost point, counter-clockwise.
 */
export const ellipse: ShapeKind<Ellipse> = {
  kind: 'ellipse',
  schema: v.strictObject({ kind: v.literal('ellipse'), width: NumSchema, depth: NumSchema }),
  numbers: (s) => [
    [s.width, 'length'],
    [s.depth, 'length'],
  ],
  corners: (s, numbers) => {
    const [a, b] = [numbers.length(s.width) / 2, numbers.length(s.depth) / 2]
    for (let n = 16; ; n *= 2) {
      const at = (t: number): Vec2 => [a + a * Math.cos(t), b + b * Math.sin(t)]
      const step = (2 * Math.PI) / n
      const points = Array.from({ length: n }, (_, i) => at(i * step))
      const bulges = points.map((p, i) => bulgeThrough(p, at((i + 0.5) * step), points[(i + 1) % n] as Vec2))
      const off = points.map((p, i) => {
        const arc = arcBetween(p, points[(i + 1) % n] as Vec2, bulges[i] as number)
        const q = at((i + 0.25) * step)
        return arc ? Math.abs(Math.hypot(q[0] - arc.x, q[1] - arc.y) - arc.r) : 0
      })
      if (Math.max(...off) > TOLERANCE.curve && n < 256) continue
      const area = points.reduce((sum, p, i) => {
        const arc = arcBetween(p, points[(i + 1) % n] as Vec2, bulges[i] as number)
        return sum + (arc ? (arc.r * arc.r * (arc.sweep - Math.sin(arc.sweep))) / 2 : 0)
      }, loopArea(points))
      // A hair larger or smaller, so that its area is the ellipse's.
      const k = Math.sqrt((Math.PI * a * b) / area)
      return points.map(([x, y], i) => ({
        id: `e${i + 1}`,
        at: [tidy(a + (x - a) * k), tidy(b + (y - b) * k)],
        bulge: bulges[i] as number,
      }))
    }
  },
  check: (s, name, numbers) => {
    atLeastAMillimetre(numbers.length(s.width), `The width of ${name}`)
    atLeastAMillimetre(numbers.length(s.depth), `The depth of ${name}`)
  },
}
