import { length, setBack } from '../../moves'
import { planOfOutlines } from '../../solid'
import { TOLERANCE, type Num } from '../../values'
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
    const [outer] = plan
    if (!outer) return [cell]
    const [inner] = planOfOutlines(setBack([outer], () => numbers.length(s.depth), `"${cell.key}"`))
    const court = inner ? [backwards(inner)] : []
    return [{ ...cell, plan: [outer, ...namedInTurn([...court, ...plan.slice(1)])], moves: [], by: s.id }]
  },
}
