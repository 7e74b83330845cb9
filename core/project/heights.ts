import { placePoint } from '../solid'
import { refuse, tidy, type Numbers, type OtherMass, type StandingNumbers } from '../values'
import type { Scheme } from './schema'
import type { Mass } from './things'

/** The heights of all levels of the scheme that the numbers are of, m above the datum, by their ties: stacked ones follow what they stand on. */
export const heightsOf = (scheme: Scheme, numbers: Numbers): Map<string, number> =>
  new Map(Object.keys(scheme.levels).map((id) => [id, numbers.height(id)]))

/** The numbers of a mass that stands on its base level, among the masses that its moves may read. */
export function standingNumbers(
  mass: Pick<Mass, 'base'> & Partial<Pick<Mass, 'id' | 'place'>>,
  numbers: Numbers,
  heights: ReadonlyMap<string, number>,
  masses: Scheme['masses'] = {},
  readBy: readonly string[] = [],
): StandingNumbers {
  const baseOf = ({ base }: Pick<Mass, 'base'>) => tidy((heights.get(base.level) ?? 0) + numbers.length(base.above))
  const { id, place } = mass
  const base = baseOf(mass)
  if (id === undefined || !place) return { ...numbers, heights, base }
  const path = [...readBy, id]
  const other = (wanted: string): OtherMass | null => {
    const of = masses[wanted]
    if (!of) return null
    if (path.includes(wanted))
      refuse(
        'geometry',
        `The masses read each other in a circle: ${[...path.slice(path.indexOf(wanted)), wanted].map((m) => masses[m]?.name ?? m).join(' -> ')}.`,
        'Let one of them be detached.',
      )
    const turn = numbers.angle(place.turn)
    const [x, y] = placePoint(
      [numbers.length(of.place.x) - numbers.length(place.x), numbers.length(of.place.y) - numbers.length(place.y)],
      { x: 0, y: 0, z: 0, turn: -turn },
    )
    return {
      name: of.name,
      recipe: of.recipe,
      numbers: standingNumbers(of, numbers, heights, masses, path),
      at: { x: tidy(x), y: tidy(y), z: tidy(baseOf(of) - base), turn: tidy(numbers.angle(of.place.turn) - turn) },
    }
  }
  return { ...numbers, heights, base, other }
}
