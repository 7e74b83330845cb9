import { areaOf, intersectRegions, rectsMeet, subtractRegions, TOLERANCE, uniteRegions, type Region } from '../../solid'
import type { Share } from '../../slice'
import { inOrder, showNumber, type Id, type Project } from '../../project'
import type { Floor } from '../floor'
import type { Study } from '../types'

/** One step on the way to a figure: so many m2 put in or taken off (below zero), what it is, why, and where. */
export interface AccountItem {
  level: Id
  mass: Id
  use: Id
  /** m2; below zero where it is taken off */
  area: number
  say: string
  why: string
  region: Region
}
/** What of the ledger is asked about: null is all of it. */
export interface AccountOf {
  level: Id | null
  use: Id | null
  wing: Id | null | undefined
}

/**
 * How an area came to be: the cut of each mass, and what was taken off it, and why; they sum to the ledger's figure. From the lowest level up.
 */
export function accountOf(study: Study, of: Partial<AccountOf> = {}): AccountItem[] {
  return study.floors
    .filter((f) => !of.level || f.level.id === of.level)
    .flatMap((floor) =>
      floor.islands.flatMap((island) =>
        island.shares.flatMap((share, i) =>
          (!of.use || share.use === of.use) &&
          (of.wing === undefined || (study.wings.of.get(share.plate.mass) ?? null) === of.wing)
            ? shareAccount(study, floor, island, share, i)
            : [],
        ),
      ),
    )
}

function shareAccount(
  { project, scheme, context }: Study,
  floor: Floor,
  island: Floor['islands'][number],
  share: Share,
  i: number,
): AccountItem[] {
  const { plate, low, use, off = [] } = share
  const name = (id: Id) => scheme.masses[id]?.name ?? 'what is gone'
  const common = { level: floor.level.id, mass: plate.mass, use }
  const items: AccountItem[] = []
  const cut = off.length ? uniteRegions([plate.region, ...off.map((o) => o.region)]) : plate.region
  items.push({
    ...common,
    area: plate.area + off.reduce((sum, o) => sum + o.area, 0),
    say: `${name(plate.mass)}, cut at ${floor.level.name}`,
    why: share.core
      ? 'A core: gross floor where no other mass has it, and none of the net.'
      : 'The plate, to the mass face.',
    region: cut,
  })
  const less = (region: Region, area: number, say: string, why: string) => {
    if (area > TOLERANCE.area) items.push({ ...common, area: -area, say, why, region })
  }
  for (const o of off)
    less(
      o.region,
      o.area,
      o.why === 'void' ? `the void ${name(o.by)}` : o.why === 'inset' ? 'the floor ends within the form' : 'left out',
      o.why === 'void' ? 'A void takes floor off on each level that it passes.' : 'By a change of this plate.',
    )
  const high = low.length ? subtractRegions(plate.region, low) : plate.region
  less(
    intersectRegions(low, plate.region),
    plate.area - areaOf(high),
    `less than ${headroomOf(project, context)} clear above it`,
    'The rule of headroom: such floor is low, and listed apart.',
  )
  const counted = island.slivers.length ? intersectRegions(high, island.counted) : high
  less(
    subtractRegions(high, counted),
    areaOf(high) - areaOf(counted),
    'a piece below the smallest area',
    'Pieces of floor that are smaller than the smallest area do not count.',
  )
  const before = island.shares.slice(0, i).filter((o) => rectsMeet(o.plate.rect, plate.rect, -TOLERANCE.point))
  const shared = areaOf(counted) - (island.own[i] ?? 0)
  if (shared > TOLERANCE.area)
    less(
      intersectRegions(counted, uniteRegions(before.map((o) => o.plate.region))),
      shared,
      `also in ${[...new Set(before.map((o) => name(o.plate.mass)))].join(', ')}`,
      'Floor that several masses have is counted once, with the first of them.',
    )
  return items
}

const headroomOf = (project: Project, { numbers }: Study['context']) =>
  showNumber(numbers.length(project.headroom), 'length', project)

/** Voids over all levels that they pass: shown once each. m2 by level id, from the lowest up. */
export interface VoidFigures {
  mass: Id
  name: string
  area: number
  levels: { level: Id; area: number }[]
}

/** What each void takes off, over all its levels. */
export function voidFigures({ floors, scheme }: Pick<Study, 'floors' | 'scheme'>): VoidFigures[] {
  const all = new Map<Id, VoidFigures>()
  for (const { level, voids } of floors)
    for (const { mass, area } of voids) {
      const known = all.get(mass) ?? { mass, name: scheme.masses[mass]?.name ?? '', area: 0, levels: [] }
      known.area += area
      known.levels.push({ level: level.id, area })
      all.set(mass, known)
    }
  return inOrder(scheme.masses).flatMap((m) => all.get(m.id) ?? [])
}
