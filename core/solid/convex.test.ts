import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { areaOf, intersectRegions, openKernel, subtractRegions, uniteRegions, type Region, type Vec2 } from './index'
import { combinedConvex, convexOf } from './convex'

beforeAll(async () => {
  await openKernel()
})

/** A convex outline of corners on an oval, turned, somewhere. */
const convex = fc
  .tuple(
    fc.uniqueArray(fc.integer({ min: 0, max: 23 }), { minLength: 3, maxLength: 9 }),
    fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 })),
    fc.tuple(fc.integer({ min: 20, max: 90 }), fc.integer({ min: 20, max: 90 })),
    fc.constantFrom(0, 0.37, 1.21, 33.7),
  )
  .map(([at, [x, y], [rx, ry], turn]): Vec2[] =>
    at
      .sort((a, b) => a - b)
      .map((k): Vec2 => {
        const [u, w] = [(rx / 10) * Math.cos((k * Math.PI) / 12), (ry / 10) * Math.sin((k * Math.PI) / 12)]
        return [x / 10 + u * Math.cos(turn) - w * Math.sin(turn), y / 10 + u * Math.sin(turn) + w * Math.cos(turn)]
      }),
  )
/** A rectangle of which some corners lie on the sides of another one. */
const boxes = fc
  .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), fc.constantFrom(0, 0.4, 2.9))
  .map(([from, to, turn]): [Vec2[], Vec2[]] => {
    const turned = (x: number, y: number): Vec2 => [
      x * Math.cos(turn) - y * Math.sin(turn),
      x * Math.sin(turn) + y * Math.cos(turn),
    ]
    const box = (x0: number, x1: number) => [turned(x0, 0), turned(x1, 0), turned(x1, 5), turned(x0, 5)]
    return [box(0, 10), box(Math.min(from, to), Math.max(from, to) + 0.5)]
  })
const place = fc.constantFrom<Vec2>([0, 0], [352_400, 5_612_300])
const put = (loop: Vec2[], [x, y]: Vec2): Region => [loop.map((p): Vec2 => [p[0] + x, p[1] + y])]
/** The same with a corner more on a side, so that the kernel is asked. */
const asked = ([loop = []]: Region): Region => {
  const [a, b] = [loop[0] as Vec2, loop[1] as Vec2]
  return [[a, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], ...loop.slice(1)]]
}

describe('convex outlines are cut without the kernel', () => {
  it('as the kernel cuts them: areas, and what lies where', () => {
    let plain = 0
    fc.assert(
      fc.property(fc.oneof(fc.tuple(convex, convex), boxes), place, ([one, two], at) => {
        const [a, b] = [put(one, at), put(two, at)]
        const [ca, cb] = [convexOf(a), convexOf(b)]
        for (const [name, how] of [
          ['intersect', intersectRegions],
          ['subtract', subtractRegions],
        ] as const) {
          // prettier-ignore
          const [mine, kernel] = [how(a, b), how(asked(a), b)]
          if (ca && cb && combinedConvex(ca, cb, name)) plain++
          expect(areaOf(mine)).toBeCloseTo(areaOf(kernel), 4)
          expect(areaOf(uniteRegions([mine, kernel]))).toBeCloseTo(areaOf(kernel), 4)
        }
      }),
      { numRuns: 400 },
    )
    // Most of them are: a test of the kernel against itself would show nothing.
    expect(plain).toBeGreaterThan(300)
  })
  it('a floor that is low along both eaves leaves one outline, whichever way it is turned', () => {
    fc.assert(
      fc.property(boxes, place, ([whole], at) => {
        const [a, b, c, d] = whole as [Vec2, Vec2, Vec2, Vec2]
        const along = (p: Vec2, q: Vec2, t: number): Vec2 => [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]
        const strips = [
          put([a, along(a, b, 0.3), along(d, c, 0.3), d], at),
          put([along(a, b, 0.8), b, c, along(d, c, 0.8)], at),
        ]
        const [floor, low] = [put(whole, at), uniteRegions(strips)]
        expect(low).toHaveLength(2)
        const rest = subtractRegions(floor, low)
        expect(rest).toHaveLength(1)
        expect(rest[0]).toHaveLength(4)
        expect(areaOf(rest)).toBeCloseTo(25, 4)
        expect(areaOf(intersectRegions(low, floor))).toBeCloseTo(25, 4)
        expect(areaOf(subtractRegions(floor, strips[0] ?? []))).toBeCloseTo(35, 4)
        // What is open in the middle leaves a strip on either side.
        expect(subtractRegions(floor, rest)).toHaveLength(2)
      }),
      { numRuns: 100 },
    )
  })
  it('what all but touches is left to the kernel, which makes it meet', () => {
    const square: Vec2[] = [[0, 0], [4, 0], [4, 4], [0, 4]] // prettier-ignore
    const beside = (by: number): Vec2[] => [[4 + by, 0], [6, 1], [4 + by, 4]] // prettier-ignore
    for (const by of [-5e-5, 5e-5]) {
      expect(combinedConvex([square], [beside(by)], 'intersect')).toBeNull()
      expect(intersectRegions([square], [beside(by)])).toEqual([])
    }
  })
  it('a star, a hole and an outline that turns inward are none', () => {
    const star = [0, 2, 4, 1, 3].map((k): Vec2 => [Math.cos(k * 0.4 * Math.PI), Math.sin(k * 0.4 * Math.PI)])
    expect(convexOf([star])).toBeNull()
    expect(convexOf([[[0, 0], [0, 4], [4, 4], [4, 0]]])).toBeNull() // prettier-ignore
    expect(convexOf([[[0, 0], [4, 0], [1, 1], [0, 4]]])).toBeNull() // prettier-ignore
  })
})
