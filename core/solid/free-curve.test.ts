import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { arcBetween, freeCurve, gapOf, type Vec2 } from './index'

/** The direction of a side's arc at its beginning and at its end, radians. */
function ways(a: Vec2, b: Vec2, bulge: number): [number, number] {
  const chord = Math.atan2(b[1] - a[1], b[0] - a[0])
  const half = 2 * Math.atan(bulge)
  return [chord - half, chord + half]
}
const apart = (a: number, b: number) => Math.abs(Math.atan2(Math.sin(a - b), Math.cos(a - b)))

describe('a free curve through points', () => {
  it('of points on a circle is that circle, wherever they lie on it', () => {
    const points = [0, 0.7, 1.9, 3.1, 4.4, 5.6].map((t): Vec2 => [3 + 5 * Math.cos(t), -2 + 5 * Math.sin(t)])
    const curve = freeCurve(
      { points, bulges: [] },
      points.map(() => true),
      true,
    )
    curve.points.forEach((p, i) => {
      const arc = arcBetween(p, curve.points[(i + 1) % curve.points.length] as Vec2, curve.bulges[i] as number)
      expect(arc?.r).toBeCloseTo(5, 8)
      expect(arc && gapOf([arc.x, arc.y], [3, -2])).toBeCloseTo(0, 8)
    })
  })
  it('runs through all of them without a kink, and leaves other sides as they are', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 9 }),
        fc.array(fc.double({ min: 0.5, max: 1.5, noNaN: true }), { minLength: 9, maxLength: 9 }),
        fc.boolean(),
        (n, far, whole) => {
          const points = far.slice(0, n).map((r, i): Vec2 => {
            const t = (2 * Math.PI * i) / n
            return [10 * r * Math.cos(t), 10 * r * Math.sin(t)]
          })
          const curved = points.map((_, i) => whole || i < n - 2)
          const { points: all, bulges } = freeCurve({ points, bulges: [] }, curved, true)
          for (const p of points) expect(all.some((q) => gapOf(p, q) === 0)).toBe(true)
          const at = (i: number) => all[(i + all.length) % all.length] as Vec2
          all.forEach((p, i) => {
            const before = ways(at(i - 1), p, bulges[(i + all.length - 1) % all.length] as number)[1]
            const after = ways(p, at(i + 1), bulges[i] as number)[0]
            const k = points.findIndex((q) => q === p)
            const isWithin = k < 0 || whole || (k > 0 && k < n - 2)
            if (isWithin) expect(apart(before, after)).toBeLessThan(1e-6)
          })
        },
      ),
    )
  })
})
