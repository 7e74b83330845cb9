import { isWall, type PartStudy } from '../../fabric'
import type { Memo } from '../../project'
import { areaOf, RectIndex, rectOf, subtractRegions, uniteRegions, type Rect, type Region } from '../../solid'
import type { Island } from '../../slice'
import type { Floor } from '../floor'

/** Walls by where they stand in plan. */
export type WallIndex = RectIndex<PartStudy>

/** The walls that stand on each level, by its id. */
export function wallsByLevel(memo: Memo, parts: readonly PartStudy[]): Map<string, WallIndex> {
  const walls = new Map<string, PartStudy[]>()
  for (const part of parts) {
    const level = part.part.base?.level
    if (!isWall(part.role) || !part.body || !level) continue
    const list = walls.get(level)
    if (list) list.push(part)
    else walls.set(level, [part])
  }
  return new Map(
    [...walls].map(([level, list]) => {
      const placed = list.map((thing) => ({
        thing,
        rect: memo.keep(thing, 'rect', [], (): Rect => rectOf(thing.plan)),
      }))
      return [level, new RectIndex(placed, TILE)]
    }),
  )
}
/** m */
const TILE = 16

/** Of the walls of a level, those that may stand on an island. */
export const wallsOn = (memo: Memo, island: Island, walls: WallIndex): PartStudy[] =>
  walls.meeting(memo.keep(island, 'rect', [], () => rectOf(island.counted)))

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
export function netOf(memo: Memo, floor: Floor, walls: WallIndex | undefined): number | null {
  if (!walls) return null
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
