import { refuse, tidy, type Numbers, type StandingNumbers } from '../values'
import type { Mass, Scheme } from './schema'

/** The heights of all levels of a scheme, m above the datum, by their ties: stacked ones follow what they stand on. */
export function heightsOf(scheme: Scheme, numbers: Numbers): Map<string, number> {
  const known = new Map<string, number>()
  const heightOf = (id: string, depth: number): number => {
    const ready = known.get(id)
    if (ready !== undefined) return ready
    const level = scheme.levels[id] ?? refuse('unknown-id', 'A level stands on one that is not there.', 'Choose another level for it to stand on.')
    if (depth > 5000) refuse('level-circle', 'The levels stand on each other in a circle.', 'Let one of them be fixed.')
    const height = tidy(level.tie.kind === 'fixed' ? numbers.length(level.tie.height) : heightOf(level.tie.on, depth + 1) + numbers.length(level.tie.above))
    known.set(id, height)
    return height
  }
  for (const id of Object.keys(scheme.levels)) heightOf(id, 0)
  return known
}

/** The numbers of a mass that stands on its base level. */
export const standingNumbers = (mass: Pick<Mass, 'base'>, numbers: Numbers, heights: ReadonlyMap<string, number>): StandingNumbers =>
  ({ ...numbers, heights, base: tidy((heights.get(mass.base.level) ?? 0) + numbers.length(mass.base.above)) })
