import { bodyHeights, isWall, type PartStudy } from '../../fabric'
import type { LevelHeight } from '../../levels'
import type { Memo } from '../../project'
import {
  areaOf,
  cutAt,
  RectIndex,
  rectOf,
  subtractRegions,
  TOLERANCE,
  uniteRegions,
  type Facet,
  type Rect,
  type Region,
} from '../../solid'
import type { Island } from '../../slice'
import type { Floor } from '../floor'

/** Walls by where they stand in plan. */
export type WallIndex = RectIndex<PartStudy>

/** The walls that stand at each level's height, by its id: those of the storey, and those that run up through it. */
export function wallsByLevel(
  memo: Memo,
  parts: readonly PartStudy[],
  levels: readonly LevelHeight[],
): Map<string, WallIndex> {
  const walls = new Map<string, PartStudy[]>()
  const storeys = levels.filter((l) => l.kind === 'storey')
  for (const part of parts) {
    const { body } = part
    if (!isWall(part.role) || !body) continue
    const { z0, z1 } = memo.keep(body, 'heights', [], () => bodyHeights(body))
    for (const { id, height } of storeys) {
      const isOwn = part.part.base?.level === id
      if (!isOwn && (z0 > height - TOLERANCE.least || z1 < height + TOLERANCE.least)) continue
      const list = walls.get(id)
      if (list) list.push(part)
      else walls.set(id, [part])
    }
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

/** What a wall takes of a floor at a height (m): its cut there; over an opening at its foot it takes nothing. */
const footAt = (memo: Memo, wall: PartStudy, z: number): Region => {
  const { body } = wall
  if (!body) return []
  if (body.kind === 'prism') return z > body.z0 - TOLERANCE.touch && z < body.z1 ? body.region : []
  return memo.keep(body, `cut at ${z.toFixed(4)}`, [], () => {
    const { z0 } = bodyHeights(body)
    const { mesh } = body
    const solid = { ...mesh, facetOf: new Uint32Array(mesh.triangles.length / 3), facets: [SIDE] }
    return cutAt(solid, Math.max(z, z0)).map((l) => l.points)
  })
}
const SIDE: Facet = { name: 'side', plane: { n: [0, 0, 1], d: 0 } }

/** The floor of an island (at a height, m) within the walls that stand on it. */
export function withinWalls(memo: Memo, island: Island, here: readonly PartStudy[], z: number): Region {
  // Storeys that are alike share one island, and walls that stand alike leave the same of it.
  const known = memo.keep(island, 'within walls', [], () => new Map<string, Region>())
  const feet = here.map((w) => footAt(memo, w, z))
  const key = JSON.stringify(feet)
  let within = known.get(key)
  if (!within) {
    if (known.size > 100) known.clear()
    known.set(key, (within = subtractRegions(island.counted, uniteRegions(feet))))
  }
  return within
}

/** Floor less what the walls that stand on it take, m2; null while no wall stands there. */
export function netOf(memo: Memo, floor: Floor, walls: WallIndex | undefined): number | null {
  if (!walls) return null
  const { id, height } = floor.level
  return floor.islands.reduce((sum, island) => {
    const here = wallsOn(memo, island, walls)
    return (
      sum +
      (here.length
        ? memo.keep(island, `net at ${id}`, [height, ...here], () => areaOf(withinWalls(memo, island, here, height)))
        : island.area)
    )
  }, 0)
}
