import { placePoint } from '../solid'
import { refuse, tidy, type Numbers, type OtherMass, type StandingNumbers } from '../values'
import type { Scheme } from './schema'
import type { Mass } from './things'

/**
 * The heights of all levels of the scheme that the numbers are of, m above the datum, by their ties: stacked ones
 * follow what they stand on.
 */
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
    return of ? standing(wanted, of) : null
  }
  const standing = (wanted: string, of: Mass): OtherMass => {
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
  const copies = (wanted: string) => copiesAmong(masses, wanted).map((of) => standing(wanted, of))
  return { ...numbers, heights, base, other, copies }
}

const copied = new WeakMap<Scheme['masses'], ReadonlyMap<string, readonly string[]>>()

/** Notes which of the masses are what repeats make of others: their ids by those of the others. */
export const noteCopies = (masses: Scheme['masses'], copies: ReadonlyMap<string, readonly string[]>): void =>
  void copied.set(masses, copies)

/** What repeats make of a mass, among masses that have grown; none among those that are drawn. */
export const copiesAmong = (masses: Scheme['masses'], id: string): Mass[] =>
  (copied.get(masses)?.get(id) ?? []).flatMap((copy) => masses[copy] ?? [])
