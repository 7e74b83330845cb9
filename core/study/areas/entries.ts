import { areaOf, intersectRegions, offsetRegion, rectOf, rectsMeet, uniteRegions, type Region } from '../../solid'
import { ownRegions, type Island } from '../../slice'
import type { Id, Use } from '../../project'
import type { Floor } from '../floor'
import type { Study } from '../types'
import { wallsByLevel, wallsOn, withinWalls, type WallIndex } from './walls-on'

/** The areas of one use in one wing on one level, m2. Internal and net are null where neither walls nor an allowance tell them. */
export interface LedgerEntry {
  level: Id
  use: Id
  wing: Id | null
  /** to the mass face */
  gross: number
  /** within the outer walls: by those that stand, else by the allowance for them */
  internal: number | null
  /** internal less cores, times the efficiency of the use */
  net: number | null
}

/** What an island gives by each of its shares, m2. */
interface ShareAreas {
  internal: number | null
  net: number | null
}

/** The ledger by level, use and wing; levels from the lowest up. */
export function entriesOf(study: Pick<Study, 'project' | 'context' | 'floors' | 'parts' | 'wings'>): LedgerEntry[] {
  const walls = wallsByLevel(study.context.memo, study.parts, study.context.levels)
  return study.floors.flatMap((floor) => {
    const rows = new Map<string, LedgerEntry>()
    for (const island of floor.islands) {
      const areas = shareAreas(study, floor, island, walls.get(floor.level.id))
      island.shares.forEach((share, i) => {
        const gross = island.own[i] ?? 0
        if (gross <= 0) return
        const wing = study.wings.of.get(share.plate.mass) ?? null
        const key = `${share.use} ${wing}`
        const row = rows.get(key) ?? { level: floor.level.id, use: share.use, wing, gross: 0, internal: 0, net: 0 }
        row.gross += gross
        row.internal = added(row.internal, areas[i]?.internal ?? null)
        row.net = added(row.net, areas[i]?.net ?? null)
        rows.set(key, row)
      })
    }
    return [...rows.values()]
  })
}

const added = (a: number | null, b: number | null) => (a === null || b === null ? null : a + b)

function shareAreas(
  { project, context }: Pick<Study, 'project' | 'context'>,
  floor: Floor,
  island: Island,
  walls: WallIndex | undefined,
): ShareAreas[] {
  const { memo, numbers } = context
  const here = walls ? wallsOn(memo, island, walls) : []
  const allowance = project.wallAllowance === null ? null : numbers.length(project.wallAllowance)
  const uses = island.shares.map((s) => project.uses[s.use])
  return memo.keep(
    island,
    `areas at ${here.length ? floor.level.id : 'any'}`,
    [allowance, here.length ? floor.level.height : null, ...uses, null, ...here],
    () => {
      const within = internalRegion(
        island,
        here.length ? withinWalls(memo, island, here, floor.level.height) : null,
        allowance,
      )
      if (!within) return island.shares.map(() => ({ internal: null, net: null }))
      const cores = island.shares.filter((s) => s.core).map((s) => s.plate.region)
      const drawn = cores.length ? uniteRegions(cores) : []
      const own = ownRegions(island)
      return island.shares.map((share, i) => {
        const mine = within === island.counted ? (own[i] ?? []) : intersectRegions(own[i] ?? [], within)
        const internal = areaOf(mine)
        return { internal, net: netWithin(mine, internal, drawn, uses[i]) * (share.core ? 0 : 1) }
      })
    },
  )
}

/** The floor within the outer walls; null where it is not known. */
function internalRegion(island: Island, walled: Region | null, allowance: number | null): Region | null {
  if (walled) return walled
  if (allowance === null) return null
  if (allowance === 0) return island.counted
  // The walls stand along the outline of the floor; where it is only low, or a void, there is none.
  return intersectRegions(island.counted, offsetRegion(outlineOf(island), -allowance))
}

/** The outline of an island's floor, with what voids take of it: what facades stand along. */
export function outlineOf(island: Island): Region {
  const voids = island.shares.flatMap((s) => (s.off ?? []).filter((o) => o.why === 'void').map((o) => o.region))
  return voids.length ? uniteRegions([island.region, ...voids]) : island.region
}

/** m2 of net floor: less drawn cores, or the typed share of cores where none is drawn, times the efficiency. */
function netWithin(region: Region, internal: number, drawn: Region, use: Use | undefined): number {
  const meets = drawn.length > 0 && rectsMeet(rectOf(drawn), rectOf(region), 0)
  const core = drawn.length === 0 ? internal * (use?.cores ?? 0) : meets ? areaOf(intersectRegions(region, drawn)) : 0
  return (internal - core) * (use?.efficiency ?? 1)
}
