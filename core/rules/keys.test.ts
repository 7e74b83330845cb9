import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel, planArea } from '../solid'
import { plainNumbers } from '../testing/recipes'
import { rule, world } from '../testing/rules'
import { runRule } from './index'

beforeAll(() => openKernel())

const run = (...steps: object[]) => {
  const done = runRule(rule(steps), world, () => plainNumbers)
  expect(done.failed).toBeNull()
  return done.cells
}
const areas = (cells: ReturnType<typeof run>) => cells.map((c) => Number(planArea(c.plan).toFixed(6)))
const total = (cells: ReturnType<typeof run>) => areas(cells).reduce((a, b) => a + b, 0)
const plan = (width: number, depth: number, x = 0) => ({
  step: 'plan',
  shape: { kind: 'rectangle', width, depth },
  x,
  y: 0,
  turn: 0,
})
const strips = (columns: number, more: object = {}) => ({
  step: 'divide',
  how: 'strips',
  columns,
  rows: 1,
  apart: 1,
  share: 0.5,
  direction: 0,
  ...more,
})
const cells = (columns: number, rows: number) => ({ ...strips(columns), how: 'cells', rows })
const line = (direction: number) => ({ step: 'repeat', way: { way: 'line', count: 2, apart: 50, direction } })

describe('the keys of cells', () => {
  it('are their own where a second plan is divided as the first one was', () => {
    const made = run(plan(40, 20), strips(2), plan(20, 10, 60), { step: 'choose', how: 'last', many: 1, from: 1, numbers: [], area: 1, x: 0, y: 0 }, strips(2, { of: 's3' })) // prettier-ignore
    expect(made).toHaveLength(4)
    expect(total(made)).toBeCloseTo(1000, 6)
    expect(new Set(made.map((c) => c.key)).size).toBe(4)
    // What was divided first keeps its keys, and what hangs on them.
    expect(made.slice(0, 2).map((c) => c.key)).toEqual(['1-1', '2-1'])
  })
  it('are their own where what is repeated is repeated again', () => {
    const made = run(plan(10, 10), line(0), line(90))
    expect(made).toHaveLength(4)
    expect(new Set(made.map((c) => c.key)).size).toBe(4)
    expect(made[0]?.key).toBe('1')
  })
  it('are their own whatever steps follow one another, and those of before stay', () => {
    const step = fc.constantFrom<object>(plan(30, 20), strips(2), strips(3), cells(2, 2), line(0), line(90), {
      step: 'ring',
      depth: 3,
    })
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 5 }), (steps) => {
        const before = run(plan(40, 20), ...steps.slice(0, -1))
        const made = run(plan(40, 20), ...steps)
        expect(new Set(made.map((c) => c.key)).size).toBe(made.length)
        const last = steps.at(-1) as { step: string }
        if (last.step === 'repeat')
          expect(made.map((c) => c.key)).toEqual(expect.arrayContaining(before.map((c) => c.key)))
      }),
      { numRuns: 60 },
    )
  })
})

describe('keep, order and ring', () => {
  const chosen = { step: 'choose', how: 'first', many: 2, from: 1, numbers: [], area: 1, x: 0, y: 0 }
  it('keeps only those that are chosen, or only the others', () => {
    const eight = [plan(40, 20), cells(4, 2), chosen]
    const keep = (what: string, others: boolean) => ({ step: 'keep', what, of: 's2', others })
    expect(total(run(...eight, keep('keep', false)))).toBeCloseTo(200, 6)
    expect(total(run(...eight, keep('leave', false)))).toBeCloseTo(600, 6)
    expect(total(run(...eight, keep('keep', true)))).toBeCloseTo(600, 6)
    expect(total(run(...eight, keep('leave', true)))).toBeCloseTo(200, 6)
  })
  it('leaves cells that are equal but for the last digit in their order', () => {
    const made = run(plan(10, 7), strips(7), { step: 'sort', by: 'area', down: 'up', x: 0, y: 0 })
    expect(made.map((c) => c.key)).toEqual(run(plan(10, 7), strips(7)).map((c) => c.key))
  })
  it('a ring deeper than half of the plan leaves the plan; a second ring takes what is left of the depth', () => {
    const ring = (depth: number) => ({ step: 'ring', depth })
    expect(areas(run(plan(40, 20), ring(5)))).toEqual([800 - 30 * 10])
    expect(areas(run(plan(40, 20), ring(11)))).toEqual([800])
    expect(areas(run(plan(40, 20), ring(5), ring(3)))).toEqual([800 - 34 * 14])
    expect(areas(run(plan(40, 20), ring(3), ring(5)))).toEqual([800 - 34 * 14])
    // A neck of 8 m closes at a depth of 4.5 m: two courts, 11 by 11 m each.
    const bone = {
      step: 'plan',
      shape: { kind: 'footprint', form: 'H', width: 60, depth: 20, a: 20, b: 6 },
      x: 0,
      y: 0,
      turn: 0,
    }
    const whole = 60 * 20 - 2 * 20 * 6
    expect(areas(run(bone, ring(4.5)))).toEqual([whole - 2 * 11 * 11])
  })
})
