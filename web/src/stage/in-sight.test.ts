import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Vec3 } from '@geotome/core/solid'
import { fitted, inSight, toPane, type Room, type View } from './camera'

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const point = fc.tuple(number(-60, 60), number(-60, 60), number(0, 90)) as fc.Arbitrary<Vec3>
const start: View = { target: [0, 0, 0], azimuth: -38, elevation: 31, scale: 8 }
const room = (height: number, foot: number): Room => ({ top: height / 2 - 50, bottom: foot - height / 2 })

test('what is seen above the verbs is seen above a sheet, in its middle, and no larger than before', () => {
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 3, maxLength: 12 }),
      number(-180, 180),
      number(240, 700),
      (points, azimuth, low) => {
        const before = fitted({ ...start, azimuth }, [460, 714], points)
        const after = inSight(before, points, room(714, 106), room(low, 10))
        expect(after.scale).toBeLessThanOrEqual(before.scale + 1e-9)
        const ys = points.map((p) => toPane(after, [460, low], p)[1])
        for (const y of ys) {
          expect(y).toBeGreaterThanOrEqual(50 - 1)
          expect(y).toBeLessThanOrEqual(low - 10 + 1)
        }
        expect((Math.min(...ys) + Math.max(...ys)) / 2).toBeCloseTo((50 + low - 10) / 2, 6)
      },
    ),
    { numRuns: 100 },
  )
})

test('a detail that fills the pane fills what is left of it', () => {
  const points: Vec3[] = [
    [0, 0, 0],
    [40, 0, 0],
    [40, 40, 30],
  ]
  const near: View = { ...start, target: [20, 10, 8], scale: 200 }
  const after = inSight(near, points, room(714, 106), room(314, 10))
  expect(after.scale / near.scale).toBeCloseTo((0.94 * (314 - 60)) / (714 - 156), 2)
})

test('a view of nothing stays', () => {
  expect(inSight(start, [], room(714, 106), room(314, 10))).toBe(start)
})
