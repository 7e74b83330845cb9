import fc from 'fast-check'
import { expect, test } from 'vitest'
import { deepestIn, inside, offSegment, type Region, type Vec2 } from './index'

const turned = (piece: Region, degrees: number, [ox, oy]: Vec2): Region => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return piece.map((loop) => loop.map(([x, y]): Vec2 => [ox + c * x - s * y, oy + s * x + c * y]))
}
const bar: Region = [
  [
    [0, 0],
    [40, 0],
    [40, 18],
    [0, 18],
  ],
]
const court: Vec2[] = [
  [15, 6],
  [15, 12],
  [25, 12],
  [25, 6],
]

test.each([
  [0, [0, 0]],
  [33.7, [0, 0]],
  [211.3, [412_000, 5_650_000]],
] as [number, Vec2][])(
  'a bar is half as deep as it is wide; a court makes it less, turned by %d degrees',
  (turn, at) => {
    expect(deepestIn(turned(bar, turn, at), 0.0005)?.depth).toBeCloseTo(9, 4)
    // Left and right of the court 15 by 18 are free.
    expect(deepestIn(turned([...bar, court], turn, at), 0.0005)?.depth).toBeCloseTo(7.5, 4)
    const long = bar.map((loop) => loop.map(([x, y]): Vec2 => [x * 25, y]))
    expect(deepestIn(turned(long, turn, at), 0.0005)?.depth).toBeCloseTo(9, 4)
  },
)

test('no place of a ragged outline is deeper than the deepest, by more than is asked', () => {
  const ragged = fc
    .array(fc.double({ min: 3, max: 15, noNaN: true }), { minLength: 3, maxLength: 14 })
    .map((reaches): Vec2[] =>
      reaches.map((r, i) => {
        const a = (i * 2 * Math.PI) / reaches.length
        return [r * Math.cos(a), r * Math.sin(a)]
      }),
    )
  const place = fc.tuple(fc.double({ min: -15, max: 15, noNaN: true }), fc.double({ min: -15, max: 15, noNaN: true }))
  const off = (loop: Vec2[], p: Vec2) =>
    Math.min(...loop.map((a, i) => offSegment(p, a, loop[(i + 1) % loop.length] as Vec2)))
  fc.assert(
    fc.property(ragged, fc.array(place, { minLength: 60, maxLength: 60 }), (loop, places) => {
      const found = deepestIn([loop], 0.001)
      if (!found) return
      expect(inside(loop, found.at)).toBe(true)
      expect(off(loop, found.at)).toBeCloseTo(found.depth, 9)
      for (const p of places) if (inside(loop, p)) expect(off(loop, p)).toBeLessThanOrEqual(found.depth + 0.001)
    }),
    { numRuns: 60 },
  )
})

test('nothing has no deepest place', () => {
  expect(deepestIn([], 0.001)).toBeNull()
})
