import { refuse, type Id } from '../../project'
import { areaOf, subtractRegions, TOLERANCE, uniteRegions, type Region } from '../../solid'
import type { Floor } from '../floor'
import type { Study } from '../types'

/** A level of two schemes: the floor of each, and what only one of them has; m2. Null where a scheme has no such level. */
export interface LevelDifference {
  name: string
  height: number
  levels: [Id | null, Id | null]
  areas: [number | null, number | null]
  /** floor that is only in the first, and only in the second */
  only: [Region, Region]
  onlyArea: [number, number]
}

/**
 * What differs in plan between two schemes, level by level, from the lowest up: levels are the same by id, else by name, else by height. Errors:
 * 'edit' for a scheme and itself.
 */
export function differencesOf(a: Study, b: Study): LevelDifference[] {
  if (a.scheme.id === b.scheme.id && a.project === b.project)
    refuse('edit', `"${a.scheme.name}" is compared with itself.`, 'Choose another scheme beside it.')
  const left = new Set(b.floors)
  const take = (is: (f: Floor) => boolean) => {
    const found = [...left].find(is)
    if (found) left.delete(found)
    return found
  }
  const named = (f: Floor) => f.level.name.toLowerCase()
  const pairs: [Floor | undefined, Floor | undefined][] = a.floors.map((f) => [
    f,
    take((o) => o.level.id === f.level.id),
  ])
  for (const [is] of [
    [(f: Floor, o: Floor) => named(f) === named(o)],
    [(f: Floor, o: Floor) => Math.abs(f.level.height - o.level.height) < TOLERANCE.height],
  ] as const)
    for (const pair of pairs) if (pair[0] && !pair[1]) pair[1] = take((o) => is(pair[0] as Floor, o))
  for (const floor of left) pairs.push([undefined, floor])
  return pairs.map(([f, o]) => difference(f, o)).sort((x, y) => x.height - y.height)
}

function difference(a: Floor | undefined, b: Floor | undefined): LevelDifference {
  const { level } = (a ?? b) as Floor
  const [ra, rb] = [countedOf(a), countedOf(b)]
  const only: [Region, Region] = ra === rb ? [[], []] : [less(ra, rb), less(rb, ra)]
  return {
    name: level.name,
    height: level.height,
    levels: [a?.level.id ?? null, b?.level.id ?? null],
    areas: [a?.area ?? null, b?.area ?? null],
    only,
    onlyArea: [areaOf(only[0]), areaOf(only[1])],
  }
}

const countedOf = (floor: Floor | undefined): Region =>
  floor
    ? floor.islands.length === 1
      ? (floor.islands[0]?.counted ?? [])
      : floor.islands.flatMap((i) => i.counted)
    : []

/** What one floor has and another has not; what is thinner than touching is nothing. */
function less(a: Region, b: Region): Region {
  if (a.length === 0) return []
  const left = subtractRegions(a, b.length > 1 ? uniteRegions([b]) : b)
  return areaOf(left) > TOLERANCE.area * 10 ? left : []
}
