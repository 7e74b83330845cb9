import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { linesOfPlan } from '../moves'
import {
  areaOf,
  intersectRegions,
  openKernel,
  partBeside,
  planArea,
  planOfOutlines,
  sectorOf,
  type Plan,
  type PlanLine,
  type Vec2,
} from './index'

beforeAll(() => openKernel())

const unit = fc.double({ min: 0, max: 1, noNaN: true })
/** Any plan round a point: corners by their distance, some sides arcs, now and then a hole; turned anyhow, at the origin or far from it. */
const anyPlan = fc
  .record({
    radii: fc.array(fc.double({ min: 4, max: 12, noNaN: true }), { minLength: 3, maxLength: 9 }),
    bulges: fc.array(fc.constantFrom(0, 0, 0.15, -0.1), { minLength: 9, maxLength: 9 }),
    hole: fc.boolean(),
    turn: unit,
    far: fc.constantFrom<Vec2>([0, 0], [3456, -7891]),
  })
  .map(({ radii, bulges, hole, turn, far }): Plan => {
    const at = (r: number, i: number, n: number): Vec2 => {
      const a = 2 * Math.PI * (turn + i / n)
      return [far[0] + r * Math.cos(a), far[1] + r * Math.sin(a)]
    }
    const outer = radii.map((r, i) => ({ id: `e${i}`, at: at(r, i, radii.length), bulge: bulges[i] ?? 0 }))
    const inner = [0, 1, 2, 3].map((i) => ({ id: `i${i}`, at: at(0.7, -i, 4), bulge: 0 }))
    return hole ? [outer, inner] : [outer]
  })
  .filter((plan) => sound(plan))

/** Whether a plan encloses what its corners say: arcs that run into their neighbours are none. */
function sound(plan: Plan): boolean {
  const region = linesOfPlan(plan).map((l) => l.points)
  const whole = intersectRegions(region, [square(plan)])
  return planArea(plan) > 5 && Math.abs(areaOf(whole) - planArea(plan)) < 1e-3
}
function square(plan: Plan): Vec2[] {
  const [x, y] = (plan[0]?.[0] as { at: Vec2 }).at
  return [
    [x - 99, y - 99],
    [x + 99, y - 99],
    [x + 99, y + 99],
    [x - 99, y + 99],
  ]
}
/** A line somewhere through a plan: anyhow, through one of its corners, or along one of its sides. */
function lineIn(plan: Plan, how: number, turn: number, share: number): PlanLine {
  const outer = plan[0] ?? []
  const i = Math.floor(share * outer.length) % outer.length
  const [p, q]: [Vec2, Vec2] = [outer[i]?.at ?? [0, 0], outer[(i + 1) % outer.length]?.at ?? [0, 0]]
  const a = how === 2 ? Math.atan2(q[0] - p[0], p[1] - q[1]) : 2 * Math.PI * turn
  const through: Vec2 = how === 0 ? [p[0] * share + q[0] * (1 - share) + 1 - 2 * turn, p[1] + 2 * share - 1] : p
  const n: Vec2 = [Math.cos(a), Math.sin(a)]
  return { n, d: n[0] * through[0] + n[1] * through[1] }
}
const areaIn = (plans: Plan[]) => plans.reduce((sum, p) => sum + planArea(p), 0)

describe('a plan that is parted', () => {
  it('by any line, through a corner or along a side too: both parts are the whole, and what the kernel cuts', () => {
    fc.assert(
      fc.property(anyPlan, fc.integer({ min: 0, max: 2 }), unit, unit, (plan, how, turn, share) => {
        const line = lineIn(plan, how, turn, share)
        const [above, below] = [partBeside(plan, line, 1, 'cut'), partBeside(plan, line, -1, 'cut')]
        expect(areaIn(above) + areaIn(below)).toBeCloseTo(planArea(plan), 3)
        for (const part of [...above, ...below]) expect(planArea(part)).toBeGreaterThan(0)
        // The half of the plane beyond the line, as far as the plan reaches.
        const [x, y] = (plan[0]?.[0] as { at: Vec2 }).at
        const [nx, ny] = line.n
        const off = nx * x + ny * y - line.d
        const foot: Vec2 = [x - nx * off, y - ny * off]
        const half: Vec2[] = [
          [foot[0] + 99 * ny, foot[1] - 99 * nx],
          [foot[0] + 99 * ny + 99 * nx, foot[1] - 99 * nx + 99 * ny],
          [foot[0] - 99 * ny + 99 * nx, foot[1] + 99 * nx + 99 * ny],
          [foot[0] - 99 * ny, foot[1] + 99 * nx],
        ]
        const region = linesOfPlan(plan).map((l) => l.points)
        // Facets of an arc lie a hair off it: where the line runs across them the two differ by that.
        expect(Math.abs(areaOf(intersectRegions(region, [half])) - areaIn(above))).toBeLessThan(0.02)
      }),
      { numRuns: 300 },
    )
  })
  it('into sectors: they are the whole, and corners made of facets are those that there were', () => {
    fc.assert(
      fc.property(anyPlan, fc.integer({ min: 3, max: 9 }), unit, (plan, many, turn) => {
        const about = (plan[0]?.[0] as { at: Vec2 }).at
        const parts = Array.from({ length: many }, (_, i) =>
          sectorOf(plan, [about[0] - 1, about[1] + turn], 360 * turn + (360 * i) / many, 360 / many),
        ).flat()
        expect(areaIn(parts)).toBeCloseTo(planArea(plan), 3)
        const again = planOfOutlines(linesOfPlan(plan))
        expect(again.map((l) => l.map((c) => c.id))).toEqual(plan.map((l) => l.map((c) => c.id)))
        expect(planArea(again)).toBeCloseTo(planArea(plan), 6)
      }),
      { numRuns: 150 },
    )
  })
})
