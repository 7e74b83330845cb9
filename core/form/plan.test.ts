import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { areaOf, enclosed, loopArea, openKernel, subtractRegions, type Region, type Vec2 } from '../solid'
import { projectWith, studied, withMass, withMoves } from '../testing/make'
import { planFromAbove } from './plan'

beforeAll(() => openKernel())

it('the plan of a body of many triangles that stand upright at most heights is that of what looks up', () => {
  // A disc of 1,500 sides on a foot of half its radius: between its edges no triangle looks up.
  const n = 1500
  const rows = [[0, 2], [6, 2], [6, 4], [9, 4]] as const // prettier-ignore
  const positions = [0, 0, 0, 0, 0, 9]
  for (const [z, r] of rows)
    for (let i = 0; i < n; i++)
      positions.push(r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n), z)
  const at = (row: number, i: number) => 2 + row * n + (i % n)
  const triangles = Array.from({ length: n }, (_, i) => [
    ...[0, at(0, i + 1), at(0, i)],
    ...[1, at(3, i), at(3, i + 1)],
    ...[0, 1, 2].flatMap((row) => [
      ...[at(row, i), at(row, i + 1), at(row + 1, i + 1)],
      ...[at(row, i), at(row + 1, i + 1), at(row + 1, i)],
    ]),
  ]).flat()
  const solid = {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: new Uint32Array(triangles.length / 3),
    facets: [],
  }
  expect(areaOf(planFromAbove(() => [], null, solid))).toBeCloseTo(8 * n * Math.sin((2 * Math.PI) / n), 6)
})

it('the plan of a bent, twisted, tapered body by its silhouette is the union of all its triangles', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -120, max: 200 }),
      fc.integer({ min: 4, max: 13 }),
      fc.boolean(),
      (angle, scale, isBent) => {
        const raised = withMass(projectWith([0, 3, 6]), { box: [400_000, 5_600_000, 20, 9], height: 12, name: 'T' })
        const taper = (id: string, by: number) => ({
          id,
          move: 'taper' as const,
          on: true,
          by: { kind: 'scale' as const, scale: by },
        })
        const moves = [
          taper('a', 0.8),
          taper('b', scale / 10),
          { id: 'tw', move: 'twist' as const, on: true, angle, from: 0, to: null },
          ...(isBent ? [taper('c', 0.9)] : []),
        ]
        const solid = studied(withMoves(raised, 'T', ...moves)).forms[0]?.body.solid
        if (!solid || solid.triangles.length < 1500) return
        const triangles: Region = []
        for (let t = 0; t < solid.triangles.length; t += 3) {
          const loop = [0, 1, 2].map((k): Vec2 => {
            const v = (solid.triangles[t + k] ?? 0) * 3
            return [solid.positions[v] ?? 0, solid.positions[v + 1] ?? 0]
          })
          if (loopArea(loop) > 0) triangles.push(loop)
        }
        const [all, plan] = [enclosed(triangles), planFromAbove(() => [], null, solid)]
        expect(areaOf(plan)).toBeCloseTo(areaOf(all), 3)
        expect(areaOf(subtractRegions(plan, all)) + areaOf(subtractRegions(all, plan))).toBeLessThan(2e-3)
      },
    ),
    { numRuns: 12 },
  )
})
