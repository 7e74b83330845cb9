import { TOLERANCE } from '../solid'
import { refuse } from '../values'

/** A length (m) that must be above zero; `what` names it. */
export const atLeastAMillimetre = (value: number, what: string): number =>
  value >= TOLERANCE.least
    ? value
    : refuse('size', `${what} is ${value === 0 ? 'zero' : `${value} m`}.`, 'Type at least one millimetre.')
