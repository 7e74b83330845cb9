import { isWall, type PartStudy } from '../../fabric'
import type { Memo } from '../../project'
import { areaOf, rectOf, rectsMeet, subtractRegions, uniteRegions, type Rect, type Region } from '../../solid'
import type { Island } from '../../slice'
import type { Floor } from '../floor'

/** The walls that stand on each level, by its id. */
export function wallsByLevel(parts: readonly PartStudy[]): Map<string, PartStudy[]> {
  const walls = new Map<string, PartStudy[]>()
  for (const part of parts) {
    const level = part.part.base?.level
    if (!isWall(part.role) || !part.body || !level) continue
    const list = walls.get(level)
    if (list) list.push(part)
    else walls.set(level, [part])
  }
  return walls
}

/** Of the walls of a level, those that may stand on an island. */
export function wallsOn(memo: Memo, island: Island, walls: readonly PartStudy[]): PartStudy[] {
  const extent = memo.keep(island, 'rect', [], () => rectOf(island.counted))
  return walls.filter((w) =>
    rectsMeet(
      memo.keep(w, 'rect', [], (): Rect => rectOf(w.plan)),
      extent,
    ),
  )
}

/** The floor of an island within the walls that stand on it. */
export function withinWalls(memo: Memo, island: Island, here: readonly PartStudy[]): Region {
  // Storeys that are alike share one island, and walls that stand alike leave the same of it.
  const known = memo.keep(island, 'within walls', [], () => new Map<string, Region>())
  const key = here.map((w) => JSON.stringify(w.plan)).join()
  let within = known.get(key)
  if (!within) {
    if (known.size > 100) known.clear()
    known.set(key, (within = subtractRegions(island.counted, uniteRegions(here.map((w) => w.plan)))))
  }
  return within
}

/** Floor less the plans of the walls that stand on it, m2; null while no wall stands there. */
export function netOf(memo: Memo, floor: Floor, walls: readonly PartStudy[]): number | null {
  if (walls.length === 0) return null
  return floor.islands.reduce((sum, island) => {
    const here = wallsOn(memo, island, walls)
    return (
      sum +
      (here.length
        ? memo.keep(island, `net at ${floor.level.id}`, here, () => areaOf(withinWalls(memo, island, here)))
        : island.area)
    )
  }, 0)
}
