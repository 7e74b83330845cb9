import { refuse, tidy, type AtLevel, type StandingNumbers } from '../values'

/**
 * m from the mass's base to a level and so much above it. `what` is tied to it, in a sentence. Errors: 'unknown-id' when it is not there.
 */
export function heightAtLevel(at: AtLevel, numbers: StandingNumbers, what: string): number {
  const level =
    numbers.heights.get(at.level) ??
    refuse('unknown-id', `${what} a level that is not there.`, 'Choose one of the levels in the spine.')
  return tidy(level + numbers.length(at.above) - numbers.base)
}
