import { length, linesOfPlan, outlineFault, setBack } from '../../moves'
import { insetLoop, lessRegions, piecesOf, planOfOutlines, type Plan, type PlanCorner, type Region } from '../../solid'
import { Refusal, TOLERANCE, type Num } from '../../values'
import { namedInTurn, needsPlan, planNow } from '../cell'
import { backwards } from './bands'
import type { StepBase, StepKind } from './kind'

export interface RingStep extends StepBase {
  step: 'ring'
  /** m */ depth: Num
}

/** Leaves of each outline what lies within a depth of its sides: a court is open in its middle. */
export const ring: StepKind<RingStep> = {
  step: 'ring',
  called: 'ring',
  about: 'a court in the middle, so deep all round',
  fields: { depth: length('deep', { from: TOLERANCE.least }) },
  says: 'leave {depth} all round, open in the middle',
  starts: () => ({ depth: 12 }),
  each: (cell, s, { numbers }) => {
    needsPlan(cell, 'A step that opens a court')
    const plan = planNow(cell, numbers)
    const depth = numbers.length(s.depth)
    const isRound = plan.some((line) => line.some((c) => c.bulge !== 0))
    const pieces = (isRound ? withCourt(plan, depth) : null) ?? withCourts(plan, depth)
    return pieces.map((piece, i) => ({
      ...cell,
      key: i === 0 ? cell.key : `${cell.key}-${i + 1}`,
      plan: piece,
      moves: [],
      by: s.id,
    }))
  },
}

/** A plan with one court, its arcs kept; null where its middle falls apart, or closes, or is open already. */
function withCourt([outer, ...holes]: Plan, depth: number): Plan[] | null {
  if (!outer || holes.length) return null
  try {
    const lines = setBack([outer], () => depth, 'the outline')
    const [inner] = planOfOutlines(lines)
    const crosses = outlineFault(lines[0]?.points ?? [], null, 3, 'arcs') !== null
    return inner && !crosses ? [[outer, ...namedInTurn([backwards(inner)])]] : null
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return null
  }
}

/** A plan with whatever courts are left in its middle; where none is, the plan as it was. */
function withCourts(plan: Plan, depth: number): Plan[] {
  const region: Region = linesOfPlan(plan).map((l) => l.points)
  const [outer] = plan
  const [loop] = region
  const middle = loop ? insetLoop(loop, depth) : []
  if (!outer || middle.length === 0) return [plan]
  const pieces = piecesOf(lessRegions(region, [middle])).map((loops): Plan =>
    loops.map((points) => points.map((at, i): PlanCorner => ({ id: `s${i + 1}`, at, bulge: 0 }))),
  )
  // Its own sides keep their names.
  const [only, more] = pieces
  return only && !more ? [[outer, ...namedInTurn(only.slice(1))]] : pieces.map(namedInTurn)
}
