import fc from 'fast-check'
import { expect, it } from 'vitest'
import { planArea } from '../solid'
import { plainNumbers } from '../testing/recipes'
import { rule, world } from '../testing/rules'
import { inRule, runRule } from './index'

const angle = fc.double({ min: -360, max: 360, noNaN: true })
const plan = fc.record({
  step: fc.constant('plan'),
  shape: fc.constantFrom(
    { kind: 'rectangle', width: 42, depth: 28 },
    { kind: 'circle', radius: 15 },
    { kind: 'footprint', form: 'U', width: 30, depth: 20, a: 7, b: 8 },
  ),
  x: fc.constantFrom(0, 4567),
  y: fc.constantFrom(0, -3210),
  turn: angle,
})
const divide = fc.record({
  step: fc.constant('divide'),
  how: fc.constantFrom('cells', 'strips', 'distances', 'share', 'sectors'),
  columns: fc.integer({ min: 1, max: 6 }),
  rows: fc.integer({ min: 1, max: 4 }),
  apart: fc.double({ min: 3, max: 20, noNaN: true }),
  share: fc.double({ min: 0.05, max: 0.95, noNaN: true }),
  direction: angle,
})

it('whatever is divided, and divided again, its cells are the whole, each with a key of its own, where they were', () => {
  fc.assert(
    fc.property(plan, divide, divide, (first, once, twice) => {
      const whole = runRule(rule([first]), world, () => plainNumbers)
      const run = runRule(rule([first, once, twice]), world, () => plainNumbers)
      expect([whole.failed, run.failed]).toEqual([null, null])
      const area = (cells: typeof run.cells) => cells.reduce((sum, c) => sum + planArea(c.plan), 0)
      // A bit of less than a tenth of a thousandth of a square metre is none.
      expect(Math.abs(area(run.cells) - area(whole.cells))).toBeLessThan(0.01)
      expect(new Set(run.cells.map((c) => c.key)).size).toBe(run.cells.length)
      const middle = [first.x, first.y] as const
      for (const c of run.cells) {
        const [x, y] = inRule(c, [0, 0])
        expect(Math.hypot(x - middle[0], y - middle[1])).toBeLessThan(30)
        expect(new Set(c.plan[0]?.map((corner) => corner.id)).size).toBe(c.plan[0]?.length)
      }
      if (once.how === 'share') {
        const [before] = runRule(rule([first, once]), world, () => plainNumbers).trace[1]?.cells ?? []
        const parts = run.trace[1]?.cells.filter((c) => c.at[0] === 1) ?? []
        expect(before).toBeDefined()
        expect(area(parts) / area(whole.cells)).toBeCloseTo(once.share, 3)
      }
    }),
    { numRuns: 200 },
  )
})

it('a column that falls apart is divided in rows with all its pieces, each piece a cell of its own', () => {
  const steps = [
    { step: 'plan', shape: { kind: 'footprint', form: 'U', width: 30, depth: 20, a: 7, b: 8 }, x: 0, y: 0, turn: 0 },
    { step: 'divide', how: 'cells', columns: 1, rows: 2, apart: 3, share: 0.5, direction: 0 },
    { step: 'divide', how: 'cells', columns: 1, rows: 2, apart: 3, share: 0.5, direction: 0 },
  ]
  const { trace } = runRule(rule(steps), world, () => plainNumbers)
  const said = (i: number) => trace[i]?.cells.map((c) => [c.key, Math.round(planArea(c.plan) * 100) / 100])
  // The upper half is two arms of 11.5 by 8 on a base 2 deep: cut at 5 m above it, only the arms are above.
  expect(said(1)).toEqual([
    ['1-1', 300],
    ['1-2', 244],
  ])
  expect(said(2)?.slice(-3)).toEqual([
    ['1-2.1-1', 129],
    ['1-2.1-2', 57.5],
    ['1-2.1-2-2', 57.5],
  ])
  const turned = [steps[0], { ...steps[1], rows: 1, columns: 2, direction: 90 }, { ...steps[2], columns: 2, rows: 2 }]
  const cells = runRule(rule(turned as object[]), world, () => plainNumbers).cells
  expect(new Set(cells.map((c) => c.key)).size).toBe(cells.length)
})
