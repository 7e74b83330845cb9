import { kindOfMove, planOf, type Move, type OutlineMove } from '../moves'
import {
  extentAlong,
  cornersArea,
  placePoint,
  planOfOutlines,
  turnOf,
  type Outline,
  type Plan,
  type PlanCorner,
  type Vec2,
} from '../solid'
import { refuse, tidy, TOLERANCE, type Id, type Numbers } from '../values'

/** One of what a rule is at work on: an outline that stands somewhere, with the moves that raise and shape it. It never changes. */
export interface Cell {
  /** which one it is: it stays when others come or go */
  key: string
  /** what it is called, where its key is no name */ label: string | null
  /** its column and row where it was divided last, from 1 */ at: [number, number]
  /** where its frame lies in the rule's, m and degrees; `up`: m above the rule's base */
  x: number
  y: number
  turn: number
  up: number
  /** its outline in its own frame, m, as it was drawn or divided, and the step that did */
  plan: Plan
  by: Id
  /** the moves behind its outline */
  moves: Move[]
  /** numbers that steps gave it, in SI units, by the step */
  given: Readonly<Record<Id, number>>
  /** the steps that chose it */
  chosen: readonly Id[]
  /** sides that steps named, by the step */
  sides: Readonly<Record<Id, string>>
  /** what sides are drawn in, by the side's name; or faces, by theirs */
  dressed: Readonly<Record<string, Id>>
  use: Id | null
  material: Id | null
  /** whether it projects: no floor and no volume of the totals; what it covers of the site counts, or not */
  projecting: 'apart' | 'covers' | null
}

/** Whether something makes a body of it: then its outline is divided no more. */
export const isRaised = (cell: Cell): boolean => cell.moves.some((m) => m.on && kindOfMove(m).gives !== 'plan')

/** A new cell of a plan in a frame (m): the frame is put into the middle of what the plan encloses. */
export function newCell(
  plan: Plan,
  more: Pick<Cell, 'key' | 'at' | 'by'> & Partial<Cell>,
  frame: { x: number; y: number; turn: number } = { x: 0, y: 0, turn: 0 },
): Cell {
  const [x0, x1] = extentAlong(plan, [1, 0])
  const [y0, y1] = extentAlong(plan, [0, 1])
  const middle: Vec2 = [tidy((x0 + x1) / 2), tidy((y0 + y1) / 2)]
  const [x, y] = placePoint(middle, { ...frame, z: 0 })
  return {
    up: 0,
    moves: [],
    given: {},
    chosen: [],
    sides: {},
    dressed: {},
    use: null,
    material: null,
    projecting: null,
    label: null,
    ...more,
    x: tidy(x),
    y: tidy(y),
    turn: frame.turn,
    plan: plan.map((line) =>
      line.map((c) => ({ ...c, at: [tidy(c.at[0] - middle[0]), tidy(c.at[1] - middle[1])] as Vec2 })),
    ),
  }
}

/** A plan with its sides named in turn from its lowest, leftmost corner: s1, s2 ...; its holes are h1, h2 ... */
export function namedInTurn(plan: Plan): Plan {
  return plan.map((line) => {
    const first = line.reduce((low, { at }, i) => {
      const [x, y] = (line[low] as PlanCorner).at
      const lower = at[1] < y - TOLERANCE.point || (at[1] < y + TOLERANCE.point && at[0] < x - TOLERANCE.point)
      return lower ? i : low
    }, 0)
    return line.map((_, i) => ({ ...(line[(first + i) % line.length] as PlanCorner), id: `s${i + 1}` }))
  })
}

/** The cell's outline as the move that a recipe begins with. */
export function outlineMove(cell: Pick<Cell, 'plan' | 'by'>): OutlineMove {
  const [outer, ...holes] = cell.plan
  const corners = (line: PlanCorner[] = []) => {
    // A shape says its arcs from outside; a hole runs clockwise.
    const sense = cornersArea(line) < 0 ? -1 : 1
    return line.map(({ id, at: [x, y], bulge }) => ({
      id: id.replace(/^.*\//, ''),
      x: tidy(x),
      y: tidy(y),
      bulge: tidy(bulge * sense),
    }))
  }
  return {
    id: cell.by,
    on: true,
    move: 'outline',
    shape: { kind: 'polygon', corners: corners(outer) },
    holes: holes.map((line, i) => ({
      id: `h${i + 1}`,
      x: 0,
      y: 0,
      shape: { kind: 'polygon', corners: corners(line) },
    })),
  }
}

/** The cell's plan after what is done to it there, in its own frame, m. Errors: as its moves'. */
export function planNow(cell: Cell, numbers: Numbers): Plan {
  if (cell.moves.length === 0) return cell.plan
  return planOfOutlines(outlinesNow(cell, numbers))
}

export const outlinesNow = (cell: Cell, numbers: Numbers): Outline[] =>
  planOf([outlineMove(cell), ...cell.moves], numbers, cell.key)

/** A point of the cell's frame in the rule's, m. */
export const inRule = (cell: Pick<Cell, 'x' | 'y' | 'turn'>, p: Vec2): Vec2 => placePoint(p, { ...cell, z: 0 })

/** A point of the rule's frame in the cell's, m. */
export function inCell(cell: Pick<Cell, 'x' | 'y' | 'turn'>, [x, y]: Vec2): Vec2 {
  const { c, s } = turnOf(cell.turn)
  const [dx, dy] = [x - cell.x, y - cell.y]
  return [c * dx + s * dy, -s * dx + c * dy]
}

/** Refuses what is about outlines, behind what raises them. */
export const needsPlan = (cell: Cell, what: string): void => {
  if (isRaised(cell))
    refuse('geometry', `${what} stands behind the step that raises what it is about.`, 'Put it before that step.')
}
