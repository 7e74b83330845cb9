import { direction, length, times } from '../../moves'
import { extentAlong, partBeside, planArea, sectorOf, turnOf, type Plan, type PlanLine, type Vec2 } from '../../solid'
import { refuse, TOLERANCE, type Num } from '../../values'
import { namedInTurn, needsPlan, newCell, planNow, type Cell } from '../cell'
import type { StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface DivideStep extends StepBase {
  step: 'divide'
  how: 'cells' | 'strips' | 'distances' | 'share' | 'sectors'
  columns: Num
  rows: Num
  /** m from one cut to the next */ apart: Num
  /** 0 to 1: of its area, what lies before the cut */ share: Num
  /** degrees from the rule's east: where columns run to */ direction: Num
}

const is =
  (...how: DivideStep['how'][]) =>
  (s: DivideStep) =>
    how.includes(s.how)

/**
 * Cuts each outline: into cells, strips, at distances, at a share of its area, or into sectors. Keys: that of the
 * whole, then column-row.
 */
export const divide: StepKind<DivideStep> = {
  step: 'divide',
  called: 'divide',
  about: 'into cells, strips, at distances, by a share, into sectors',
  fields: {
    how: {
      is: 'choice',
      label: 'into',
      options: [
        { value: 'cells', label: 'cells' },
        { value: 'strips', label: 'strips' },
        { value: 'distances', label: 'pieces at distances' },
        { value: 'share', label: 'two, by a share' },
        { value: 'sectors', label: 'sectors' },
      ],
    },
    columns: times('columns', { from: 1, to: 1e6, when: is('cells', 'strips', 'sectors') }),
    rows: times('rows', { from: 1, to: 1e6, when: is('cells') }),
    apart: length('every', { from: TOLERANCE.least, when: is('distances') }),
    share: times('share', { from: 0, to: 1, hint: 'Of its area, from 0 to 1.', when: is('share') }),
    direction: direction('running to', 'rule'),
  },
  says: (s) =>
    ({
      cells: 'divide into {how}, {columns} by {rows}, running to {direction}',
      strips: 'divide into {columns} {how}, one behind the other to {direction}',
      distances: 'divide into {how} of {apart}, one behind the other to {direction}',
      share: 'divide into {how} of {share}, cut square to {direction}',
      sectors: 'divide into {columns} {how}, the first from {direction}',
    })[s.how],
  starts: () => ({ how: 'cells', columns: 3, rows: 2, apart: 10, share: 0.5, direction: 0 }),
  each: (cell, s, { numbers, room }) => {
    needsPlan(cell, 'A step that divides')
    const plan = planNow(cell, numbers)
    const a = numbers.angle(s.direction) - cell.turn
    const { c, s: sin } = turnOf(a)
    const [way, up]: [Vec2, Vec2] = [
      [c, sin],
      [-sin, c],
    ]
    const many = (num: Num) => whole(numbers, num, 'A number of parts')
    const made = (): Part[] => {
      switch (s.how) {
        case 'cells': {
          room(many(s.columns) * many(s.rows))
          const across = evenly(plan, up, many(s.rows))
          return rowsOf([plan], way, evenly(plan, way, many(s.columns))).flatMap((column, i) =>
            rowsOf(column, up, across).flatMap((row, j) => partsOf(row, [i + 1, j + 1])),
          )
        }
        case 'strips':
          room(many(s.columns))
          return inRows(plan, way, evenly(plan, way, many(s.columns)))
        case 'distances': {
          const [from, to] = extentAlong(plan, way)
          const apart = numbers.length(s.apart)
          room(Math.ceil((to - from) / apart))
          const n = Math.ceil((to - from - TOLERANCE.least) / apart)
          return inRows(
            plan,
            way,
            Array.from({ length: Math.max(0, n - 1) }, (_, i) => from + apart * (i + 1)),
          )
        }
        case 'share':
          return inRows(plan, way, [atShare(plan, way, numbers.value(s.share, 'number'))])
        case 'sectors':
          room(many(s.columns))
          return sectors(plan, a, many(s.columns))
      }
    }
    const parts = made()
    if (parts.length === 0)
      return refuse('geometry', `Nothing is left of "${cell.key}" once it is divided.`, 'Divide it into fewer.')
    return parts.map(({ plan: part, at, nth }): Cell => {
      const key = `${cell.key === '1' ? '' : `${cell.key}.`}${at[0]}-${at[1]}${nth ? `-${nth + 1}` : ''}`
      return newCell(namedInTurn(part), { ...cell, key, at, by: s.id, moves: [], sides: {}, dressed: {} }, cell)
    })
  },
}

interface Part {
  plan: Plan
  at: [number, number]
  /** where a cell falls apart: which piece of it, from 0 */ nth: number
}

/** The heights along a direction (m) at which so many equal parts of a plan's extent meet. */
function evenly(plan: Plan, way: Vec2, many: number): number[] {
  const [from, to] = extentAlong(plan, way)
  return Array.from({ length: many - 1 }, (_, i) => from + ((to - from) * (i + 1)) / many)
}

/** Plans cut at places along a direction, from the first on: what lies before each, then what lies behind the last. */
function rowsOf(plans: readonly Plan[], way: Vec2, cuts: readonly number[]): Plan[][] {
  let rest: Plan[] = [...plans]
  const rows: Plan[][] = []
  for (const d of cuts) {
    const line: PlanLine = { n: way, d }
    rows.push(rest.flatMap((p) => partBeside(p, line, -1, 'cut')))
    rest = rest.flatMap((p) => partBeside(p, line, 1, 'cut'))
  }
  return [...rows, rest]
}

/** The pieces of one cell, the largest first. */
const partsOf = (pieces: readonly Plan[], at: [number, number]): Part[] =>
  [...pieces].sort((p, q) => planArea(q) - planArea(p)).map((plan, nth) => ({ plan, at, nth }))

/** A plan cut into rows, one cell each. */
const inRows = (plan: Plan, way: Vec2, cuts: readonly number[]): Part[] =>
  rowsOf([plan], way, cuts).flatMap((pieces, i) => partsOf(pieces, [i + 1, 1]))

/** m along a direction: what lies before it is a share of the plan's area. */
function atShare(plan: Plan, way: Vec2, share: number): number {
  let [from, to] = extentAlong(plan, way)
  const all = planArea(plan)
  for (let i = 0; i < 60; i++) {
    const d = (from + to) / 2
    const before = partBeside(plan, { n: way, d }, -1, 'cut').reduce((sum, p) => sum + planArea(p), 0)
    if (before < share * all) from = d
    else to = d
  }
  return (from + to) / 2
}

/** Sectors about the middle of a plan's extent, counter-clockwise from a direction (degrees). */
function sectors(plan: Plan, from: number, many: number): Part[] {
  if (many === 1) return [{ plan, at: [1, 1], nth: 0 }]
  const [x0, x1] = extentAlong(plan, [1, 0])
  const [y0, y1] = extentAlong(plan, [0, 1])
  const middle: Vec2 = [(x0 + x1) / 2, (y0 + y1) / 2]
  return Array.from({ length: many }, (_, i) =>
    partsOf(sectorOf(plan, middle, from + (360 * i) / many, 360 / many), [i + 1, 1]),
  ).flat()
}
