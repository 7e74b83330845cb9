import { outlinesOf, type OutlineShape } from '../../moves'
import { length, angle } from '../../moves'
import { extentAlong, planOfOutlines, turnOf, type Plan, type Vec2 } from '../../solid'
import { tidy, type Num, type Numbers } from '../../values'
import { newCell } from '../cell'
import type { StepBase, StepKind } from './kind'

export interface PlanStep extends StepBase {
  step: 'plan'
  shape: OutlineShape
  /** its middle in the rule's frame, m; degrees */ x: Num
  y: Num
  turn: Num
}

/** Draws a plan to begin with, about a point. Key: 1, or what is free. */
export const plan: StepKind<PlanStep> = {
  step: 'plan',
  called: 'plan',
  about: 'an outline to begin with',
  fields: {
    shape: { is: 'shape', label: 'outline' },
    x: length('middle east'),
    y: length('north'),
    turn: angle('turned by'),
  },
  says: 'begin with {shape} about {x}, {y}, turned by {turn}',
  starts: () => ({ shape: { kind: 'rectangle', width: 42, depth: 28 }, x: 0, y: 0, turn: 0 }),
  begins: (s, { numbers }) => {
    const drawn = planOfOutlines(outlinesOf({ shape: s.shape, holes: [] }, numbers))
    const [mx, my] = planMiddle(s.shape, numbers)
    const { c, s: sin } = turnOf(numbers.angle(s.turn))
    const at = ([x, y]: Vec2): Vec2 => [
      tidy(numbers.length(s.x) + c * (x - mx) - sin * (y - my)),
      tidy(numbers.length(s.y) + sin * (x - mx) + c * (y - my)),
    ]
    const turned = drawn.map((line) => line.map((corner) => ({ ...corner, at: at(corner.at) })))
    return [newCell(turned, { key: '1', at: [1, 1], by: s.id })]
  },
}

/** The middle of what a shape encloses, in its own frame, m: it is put where the step says. */
export function planMiddle(shape: OutlineShape, numbers: Numbers): Vec2 {
  const drawn = planOfOutlines(outlinesOf({ shape, holes: [] }, numbers))
  return [tidy(middleOf(drawn, [1, 0])), tidy(middleOf(drawn, [0, 1]))]
}

function middleOf(plan: Plan, way: Vec2): number {
  const [from, to] = extentAlong(plan, way)
  return (from + to) / 2
}
