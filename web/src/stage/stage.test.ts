import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Vec2, Vec3 } from '@geotome/core/solid'
import { atHeight, axesOf, facing, fitted, orbited, panned, toPane, zoomed, type View } from './camera'

const view = fc.record({
  target: fc.tuple(
    fc.integer({ min: -99, max: 99 }),
    fc.integer({ min: -99, max: 99 }),
    fc.integer({ min: 0, max: 30 }),
  ) as fc.Arbitrary<Vec3>,
  azimuth: fc.integer({ min: -180, max: 180 }),
  elevation: fc.oneof(fc.integer({ min: 8, max: 88 }), fc.constant(90)),
  scale: fc.double({ min: 1, max: 60, noNaN: true }),
}) as fc.Arbitrary<View>
const size: Vec2 = [760, 640]

describe('a view', () => {
  it('finds the point at a height that was drawn at a pixel', () => {
    fc.assert(
      fc.property(
        view,
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: -5, max: 40 }),
        (v, x, y, z) => {
          const [px, py] = atHeight(v, size, toPane(v, size, [x, y, z]), z)
          expect(px).toBeCloseTo(x, 6)
          expect(py).toBeCloseTo(y, 6)
        },
      ),
    )
  })
  it('keeps the spot under the pointer when zoomed there, and takes it along when panned', () => {
    fc.assert(
      fc.property(view, fc.double({ min: 0.6, max: 1.7, noNaN: true }), (v, factor) => {
        const spot: Vec2 = [200, 480]
        const [x, y] = atHeight(v, size, spot, 0)
        for (const [next, where] of [
          [zoomed(v, size, spot, factor), spot],
          [panned(v, 30, -12), [230, 468]],
        ] as const) {
          const [px, py] = toPane(next, size, [x, y, 0])
          expect(px).toBeCloseTo(where[0], 5)
          expect(py).toBeCloseTo(where[1], 5)
        }
      }),
    )
  })
  it('is fitted to a thousand masses of many corners too', () => {
    const v: View = { target: [0, 0, 0], azimuth: -60, elevation: 35, scale: 12 }
    const many = Array.from({ length: 400_000 }, (_, i): Vec3 => [i % 1000, Math.floor(i / 1000), i % 7])
    expect(fitted(v, size, many).scale).toBeLessThan(1)
  })
  it('shows everything when fitted, clear of the verbs', () => {
    fc.assert(
      fc.property(
        view,
        fc.array(
          fc.tuple(
            fc.integer({ min: -200, max: 200 }),
            fc.integer({ min: -200, max: 200 }),
            fc.integer({ min: 0, max: 90 }),
          ) as fc.Arbitrary<Vec3>,
          { minLength: 2, maxLength: 12 },
        ),
        (v, points) => {
          const next = fitted(v, size, points)
          for (const p of points) {
            const [x, y] = toPane(next, size, p)
            expect(x).toBeGreaterThan(0)
            expect(x).toBeLessThan(size[0])
            expect(y).toBeGreaterThan(0)
            expect(y).toBeLessThan(size[1] - 20)
          }
        },
      ),
    )
  })
  it('never turns over', () => {
    const v: View = { target: [0, 0, 0], azimuth: 0, elevation: 30, scale: 8 }
    expect(orbited(v, 0, 9999).elevation).toBe(88)
    expect(orbited(v, 0, -9999).elevation).toBe(8)
  })
})

describe('an upright view', () => {
  const upright = fc.record({
    target: fc.tuple(
      fc.integer({ min: -99, max: 99 }),
      fc.integer({ min: -99, max: 99 }),
      fc.integer({ min: 0, max: 30 }),
    ) as fc.Arbitrary<Vec3>,
    azimuth: fc.constantFrom(-90, 0, 90, 180, 33),
    elevation: fc.constant(0),
    scale: fc.double({ min: 1, max: 60, noNaN: true }),
  }) as fc.Arbitrary<View>
  it('has true heights: a metre up is as many pixels as a metre across', () => {
    fc.assert(
      fc.property(upright, fc.integer({ min: -20, max: 60 }), (v, z) => {
        const { right } = axesOf(v)
        const [a, b, c] = [
          toPane(v, size, [0, 0, z]),
          toPane(v, size, [0, 0, z + 1]),
          toPane(v, size, [right[0], right[1], z]),
        ]
        expect(a[1] - b[1]).toBeCloseTo(v.scale, 6)
        expect(c[0] - a[0]).toBeCloseTo(v.scale, 6)
      }),
    )
  })
  it('gives the point under a pixel in the plane that faces the viewer', () => {
    fc.assert(
      fc.property(upright, fc.integer({ min: 0, max: 760 }), fc.integer({ min: 0, max: 640 }), (v, x, y) => {
        const [px, py] = toPane(v, size, facing(v, size, [x, y]))
        expect(px).toBeCloseTo(x, 5)
        expect(py).toBeCloseTo(y, 5)
      }),
    )
  })
})
