import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  arcBetween,
  arcLength,
  arcPoints,
  bodyFault,
  bulgeAlong,
  bulgeThrough,
  facetsFor,
  lengthOn,
  liesOn,
  loopArea,
  offSegment,
  onFacets,
  perimeterOf,
  planeThrough,
  type Arc,
  type Vec2,
} from './index'

const bulges = fc.double({ min: 0.05, max: 3, noNaN: true }).chain((b) => fc.constantFrom(b, -b))
const spot = fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })) as fc.Arbitrary<Vec2>
const twoSpots = fc.tuple(spot, spot).filter(([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 1)
const arcOf = (a: Vec2, b: Vec2, bulge: number) => arcBetween(a, b, bulge) as Arc

describe('an arc by its bulge', () => {
  it('begins and ends where it is told, and rises over its chord by half of chord times bulge', () => {
    fc.assert(
      fc.property(twoSpots, bulges, ([a, b], bulge) => {
        const arc = arcOf(a, b, bulge)
        const points = arcPoints(arc)
        for (const [p, q] of [
          [points[0], a],
          [points.at(-1), b],
        ] as [Vec2, Vec2][])
          expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeLessThan(1e-9)
        const chord = Math.hypot(b[0] - a[0], b[1] - a[1])
        // To the right of the way from a to b for a bulge above zero.
        const top: Vec2 = [
          (a[0] + b[0]) / 2 + ((b[1] - a[1]) / 2) * bulge,
          (a[1] + b[1]) / 2 - ((b[0] - a[0]) / 2) * bulge,
        ]
        expect(Math.hypot(top[0] - arc.x, top[1] - arc.y)).toBeCloseTo(arc.r, 6)
        expect(arcLength(arc)).toBeGreaterThan(chord)
      }),
    )
  })
  it('is found again from a point on it, and from the direction in which it leaves', () => {
    fc.assert(
      fc.property(twoSpots, bulges, fc.double({ min: 0.1, max: 0.9, noNaN: true }), ([a, b], bulge, t) => {
        const arc = arcOf(a, b, bulge)
        const on: Vec2 = [
          arc.x + arc.r * Math.cos(arc.from + arc.sweep * t),
          arc.y + arc.r * Math.sin(arc.from + arc.sweep * t),
        ]
        expect(bulgeThrough(a, on, b)).toBeCloseTo(bulge, 5)
        const sense = Math.sign(arc.sweep)
        expect(bulgeAlong(a, [-(a[1] - arc.y) * sense, (a[0] - arc.x) * sense], b)).toBeCloseTo(bulge, 5)
      }),
    )
  })
  it('encloses with its facets the very segment of the circle, and lies off it by less than a millimetre', () => {
    fc.assert(
      fc.property(twoSpots, bulges, ([a, b], bulge) => {
        const arc = arcOf(a, b, bulge)
        const points = arcPoints(arc)
        const segment = (arc.r * arc.r * (arc.sweep - Math.sin(arc.sweep))) / 2
        expect(loopArea(points)).toBeCloseTo(segment, 5)
        for (const p of points) expect(Math.abs(Math.hypot(p[0] - arc.x, p[1] - arc.y) - arc.r)).toBeLessThan(1.0001e-3)
      }),
    )
  })
  it("has the length of its facets' true arcs, whichever bits of them are left", () => {
    fc.assert(
      fc.property(twoSpots, bulges, ([a, b], bulge) => {
        const arc = arcOf(a, b, bulge)
        const points = arcPoints(arc)
        const sum = points.slice(1).reduce((s, q, i) => {
          const p = points[i] as Vec2
          expect(liesOn(arc, p, q)).toBe(true)
          return s + lengthOn(arc, p, q)
        }, 0)
        expect(sum).toBeCloseTo(arcLength(arc), 6)
        expect(perimeterOf([points], [arc])).toBeCloseTo(arcLength(arc) + Math.hypot(a[0] - b[0], a[1] - b[1]), 3)
      }),
      { numRuns: 40 },
    )
  })
  it('is straight without a bulge', () => expect(arcBetween([0, 0], [5, 0], 0)).toBeNull())
  it('gets more facets the larger it is, in fours', () => {
    expect([1, 10, 100].map((r) => facetsFor(r, 2 * Math.PI))).toEqual([60, 184, 576])
  })
  it('gives a place along its facets that lies on them', () => {
    fc.assert(
      fc.property(twoSpots, bulges, fc.double({ min: 0, max: 1, noNaN: true }), ([a, b], bulge, t) => {
        const arc = arcOf(a, b, bulge)
        const [p, points] = [onFacets(arc, t), arcPoints(arc)]
        expect(Math.min(...points.slice(1).map((q, i) => offSegment(p, points[i] as Vec2, q)))).toBeLessThan(1e-7)
      }),
    )
  })
})

describe('a plane', () => {
  it('of three corners looks to where they run counter-clockwise', () => {
    expect(planeThrough([0, 0, 2], [1, 0, 2], [0, 1, 2])).toEqual({ n: [0, 0, 1], d: 2 })
    expect(planeThrough([0, 0, 2], [0, 1, 2], [1, 0, 2])).toEqual({ n: [0, 0, -1], d: -2 })
    expect(planeThrough([0, 0, 3], [1, 0, 3], [2, 0, 3]).d).toBe(3)
  })
})

describe('a body', () => {
  const corners = [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1]
  const faces = [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3]
  const fault = (positions: number[], triangles: number[]) =>
    bodyFault({ positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) })
  it('is sound when every edge has a triangle on its other side', () => expect(fault(corners, faces)).toBeNull())
  it('is open when a triangle is missing', () => expect(fault(corners, faces.slice(3))?.fault).toBe('open'))
  it('passes through itself when two shells cross, and not when they only touch or stand apart', () => {
    const two = (by: [number, number, number]) =>
      fault([...corners, ...corners.map((c, i) => c + (by[i % 3] ?? 0))], [...faces, ...faces.map((v) => v + 4)])
    expect(two([0.2, 0.2, -0.3])?.fault).toBe('crossing')
    expect(two([3, 0, 0])).toBeNull()
    expect(two([0, 0, -1])).toBeNull()
  })
})
