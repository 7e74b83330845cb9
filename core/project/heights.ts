import { tidy, type Numbers, type StandingNumbers } from '../values'
import type { Scheme } from './schema'
import type { Mass } from './things'

/** The heights of all levels of the scheme that the numbers are of, m above the datum, by their ties: stacked ones follow what they stand on. */
export const heightsOf = (scheme: Scheme, numbers: Numbers): Map<string, number> =>
  new Map(Object.keys(scheme.levels).map((id) => [id, numbers.height(id)]))

/** The numbers of a mass that stands on its base level. */
export const standingNumbers = (
  mass: Pick<Mass, 'base'>,
  numbers: Numbers,
  heights: ReadonlyMap<string, number>,
): StandingNumbers => ({
  ...numbers,
  heights,
  base: tidy((heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above)),
})
