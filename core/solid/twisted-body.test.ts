import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import {
  bodyFault,
  openKernel,
  sweepBody,
  sweptVolume,
  volumeOf,
  type Outline,
  type Solid,
  type Sweep,
  type Vec2,
} from './index'

beforeAll(async () => {
  await openKernel()
})

const names = { base: 'base', top: 'top', side: (edge: string) => edge }
const outlineOf = (points: Vec2[]): Outline => ({
  points,
  edges: points.map((_, i) => `edge ${i}`),
  arcs: points.map(() => null),
})

/** A rectangle or an L, carried up straight, to a smaller one, or to a point; turned about a place inside or beside it. */
const sweeps = fc
  .tuple(
    fc.constantFrom<Vec2>([0, 0], [352_400.25, 5_612_300.5]),
    fc.boolean(),
    fc.constantFrom(1, 0.6, 0),
    fc.constantFrom(90, -33.7, 211),
    fc.integer({ min: 0, max: 40 }),
  )
  .map(([[x, y], isL, scale, angle, off]): Sweep => {
    const corners: Vec2[] = isL
      ? [
          [-9, -7],
          [9, -7],
          [9, -1],
          [-2, -1],
          [-2, 8],
          [-9, 8],
        ]
      : [
          [-9, -7],
          [9, -7],
          [9, 7],
          [-9, 7],
        ]
    const at = (by: number) => [outlineOf(corners.map(([u, v]): Vec2 => [x + u * by, y + v * by]))]
    const low = at(1)
    return {
      low,
      high: scale === 1 ? low : at(scale),
      z0: 1.5,
      z1: 25.5,
      twist: { x: x + off / 10, y: y - 1, from: 1.5, to: 25.5, angle },
    }
  })
const planesOf = ({ facets }: Solid): number[] => facets.flatMap(({ plane }) => [...plane.n, plane.d])
const isSame = (a: ArrayLike<number>, b: ArrayLike<number>): boolean =>
  a.length === b.length && Array.from(a).every((v, i) => v === b[i])
const storeys = fc.uniqueArray(fc.integer({ min: 16, max: 254 }), { maxLength: 7 }).map((z) => z.map((t) => t / 10))

it('is closed and has the volume of its sweep, whichever storeys it was made with before', () => {
  fc.assert(
    fc.property(sweeps, fc.array(storeys, { minLength: 2, maxLength: 4 }), (sweep, times) => {
      const bodies = times.map((heights) => sweepBody(sweep, names, heights))
      bodies.forEach((body, i) => {
        expect(bodyFault(body, body.triangles.length < 6000 ? undefined : 'edges')).toBeNull()
        expect(volumeOf(body) / sweptVolume(sweep)).toBeCloseTo(1, 9)
        // What others brought is what it brings by itself: of another name, none of them is like it.
        const alone = sweepBody(sweep, { ...names, side: (edge) => `${i} ${edge}` }, times[i] ?? [])
        expect(isSame(body.positions, alone.positions) && isSame(body.triangles, alone.triangles)).toBe(true)
        expect(isSame(planesOf(body), planesOf(alone))).toBe(true)
        const surfaces = new Set(body.facets.flatMap((f) => (f.surface ? [f.surface] : [])))
        expect(surfaces.size).toBe(sweep.low[0]?.points.length)
      })
    }),
    { numRuns: 15 },
  )
})

it('makes anew what lies under and over the level that moved, and keeps all else', () => {
  const low = [
    outlineOf([
      [0, 0],
      [12, 0],
      [12, 8],
      [0, 8],
    ]),
  ]
  const sweep = { low, high: low, z0: 0, z1: 30, twist: { x: 6, y: 4, from: 0, to: 30, angle: 70 } }
  const before = sweepBody(sweep, names, [3, 6, 9, 12, 15, 18, 21, 24, 27])
  const after = sweepBody(sweep, names, [3, 6, 9, 12, 15.4, 18, 21, 24, 27])
  const kept = new Set(before.facets)
  const heightsOf = (facet: number) =>
    [...after.facetOf].flatMap((f, t) =>
      f === facet
        ? [0, 1, 2].map((k) => after.positions[3 * (after.triangles[3 * t + k] as number) + 2] as number)
        : [],
    )
  after.facets.slice(2).forEach((facet, i) => {
    const heights = heightsOf(i + 2)
    const isNear = Math.min(...heights) >= 12 && Math.max(...heights) <= 18
    expect(kept.has(facet)).toBe(!isNear)
  })
})
