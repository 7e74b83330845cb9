import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import { Attempts, Memo, sameList, type Mass, type Numbers, type StudyNode } from '../project'
import {
  changedShares,
  computeIsland,
  islandsOf,
  lessVoids,
  lessWhatGoesOn,
  lowAbove,
  lowRegion,
  offByMass,
  voidsOf,
  type Headroom,
  type Island,
  type Plate,
  type Share,
} from '../slice'
import { areaOf, intersectRegions, rectOf, rectsMeet, TOLERANCE, uniteRegions, type Region, type Vec2 } from '../solid'
import { RecentMap } from './aging'
import type { Finding } from './finding'
import { emptyFloor, type Floor } from './floor'
import { Groups } from './groups'
import { PLAIN, type Special } from './special'
import { Standings } from './standing'

/**
 * What a study computes, kept by the content it was computed from: a change costs what it touches. Bodies that were not
 * asked for in the last two studies are dropped, and all that hangs on them goes with them; what has a name of its own and was not asked for
 * in the last few studies goes too.
 */
export class StudyCache {
  /** what the checks that are left for afterwards found last, by kind */
  readonly found = new Map<string, Finding[]>()
  private readonly standings = new Standings()
  private readonly floors = new RecentMap<{ from: readonly unknown[]; floor: Floor }>()
  private readonly islands = new WeakMap<Share, Island[]>()
  /** for whatever else is computed of a thing: volumes, footprints, parts */
  readonly memo = new Memo()
  /** runs the nodes of the study that is under way, and notes those that fail */
  attempts = new Attempts()

  /** `probe` is told of each node before it runs: tests let it throw. */
  constructor(private readonly probe: ((node: StudyNode) => void) | null = null) {}

  private readonly latest = new RecentMap<{ from: readonly unknown[]; value: unknown }>()

  /** The last value of what is named, over all forms that it takes while it is dragged; made anew when an entry of `from` differs. */
  lately<T>(name: string, from: readonly unknown[], make: () => T): T {
    const known = this.latest.get(name)
    if (known && sameList(known.from, from)) return known.value as T
    const value = make()
    this.latest.set(name, { from, value })
    return value
  }

  /** Begins a study: ages what is kept. */
  begin(): void {
    this.attempts = new Attempts(this.probe)
    this.standings.begin()
    for (const kept of [this.memo, this.latest, this.floors, this.brought]) kept.begin()
  }

  /** The mass standing on its level; the same object while nothing about it changes. */
  form(mass: Mass, numbers: Numbers, heights: ReadonlyMap<string, number>, masses: Record<string, Mass>): MassForm {
    return this.standings.form(mass, numbers, heights, masses)
  }

  /** The plate of a mass at a height; one object for all heights at which the cut is the same. */
  plate(form: MassForm, z: number): Plate | null {
    return this.standings.plate(form, z)
  }

  /** The floor of a level: the same object while the masses that take it, their use and order, and the rules stay. */
  floor(
    level: LevelHeight,
    takers: MassForm[],
    { over, above }: Overhead,
    headroom: Headroom,
    smallest: number,
    special: Special = PLAIN,
  ): Floor {
    const islands = above.flatMap((f) => f.islands)
    const numbers = [level.height, headroom.height, headroom.wallLike, smallest]
    const from = [...numbers, special, ...takers, null, ...over, null, ...islands]
    const kept = this.floors.get(level.id)
    if (kept && sameList(kept.from, from)) return kept.floor.level === level ? kept.floor : { ...kept.floor, level }
    return this.attempts.keepIfWhole(
      () => {
        const alone = this.ownShares(level, takers, over, headroom)
        const own = islands.length ? alone.map((s) => s && this.underFloors(s, islands)) : alone
        const shares =
          special === PLAIN
            ? own.filter((s) => s !== null)
            : own.flatMap((s) => (s ? this.specialShares(s, level, special) : []))
        return this.likeTheLast(level, shares, smallest)
      },
      (floor) => this.floors.set(level.id, { from, floor }),
    )
  }

  /** The floor of some shares: most floors of most buildings are like the one below. */
  private likeTheLast(level: LevelHeight, shares: Share[], smallest: number): Floor {
    const like = this.last
    if (like && like.smallest === smallest && sameList(like.shares, shares)) return { ...like.floor, level }
    return this.attempts.keepIfWhole(
      () => this.floorOfShares(level, shares, smallest),
      (floor) => (this.last = { shares, smallest, floor }),
    )
  }
  private last: { shares: Share[]; smallest: number; floor: Floor } | null = null

  /**
   * What each taker brings to a level: the shares of last time for those of which nothing was low there, where only other masses have
   * changed.
   */
  private ownShares(level: LevelHeight, takers: MassForm[], over: MassForm[], headroom: Headroom): (Share | null)[] {
    const before = this.brought.get(level.id)
    const known =
      before?.height === level.height &&
      before.headroom.height === headroom.height &&
      before.headroom.wallLike === headroom.wallLike
        ? before
        : undefined
    const shares = takers.map((form, i) => {
      const had = known?.takers[i] === form ? known.shares[i] : undefined
      return had && this.plain.get(had.plate) === had && had.use === form.use && had.order === form.order
        ? had
        : this.attempts.run(
            { what: 'floor', id: form.id, name: form.name, level: level.id, masses: [form.id] },
            () => this.share(form, level.height, headroom, over),
            () => null,
          )
    })
    this.brought.set(level.id, { height: level.height, headroom, takers, shares })
    return shares
  }
  private readonly brought = new RecentMap<{
    height: number
    headroom: Headroom
    takers: MassForm[]
    shares: (Share | null)[]
  }>()

  /** A share under floors that are counted within the headroom above it: it is low there. */
  private underFloors(share: Share, islands: Island[]): Share {
    const { plate } = share
    const over = islands.filter((i) => i.area > 0 && rectsMeet(rectOf(i.counted), plate.rect, -TOLERANCE.point))
    if (over.length === 0 || share.low === plate.region) return share
    return this.memo.keep(share, 'under floors', over, () => {
      const under = intersectRegions(plate.region, uniteRegions(over.map((i) => i.counted)))
      if (areaOf(under) < TOLERANCE.area) return share
      const low = uniteRegions([share.low, under])
      return this.lowShare(plate, areaOf(low) > plate.area - TOLERANCE.area ? plate.region : low, share)
    })
  }

  /** What becomes of a share where something differs on its level; the same objects while nothing of it changes. */
  private specialShares(share: Share, level: LevelHeight, { uses, cores, changes, voids }: Special): Share[] {
    const { mass } = share.plate
    const holes = voids.flatMap((f) =>
      this.attempts.run(
        { what: 'floor', id: f.id, name: f.name, level: level.id, masses: [f.id] },
        () => this.plate(f, level.height) ?? [],
        () => [],
      ),
    )
    const [use, own, core] = [uses.get(mass) ?? share.use, changes.get(mass) ?? [], cores.has(mass)]
    // Levels whose masses are alike may differ in what is special: each keeps its own.
    const name = `special ${use} ${core} ${own.map((c) => c.id).join()} ${holes.map((h) => h.mass).join()}`
    return this.memo.keep(share, name, [use, core, ...own, null, ...holes], () => {
      // A core comes behind all others, so that what they have too is theirs.
      const as: Share = core ? { ...share, use, core, order: share.order + BEHIND } : { ...share, use }
      return changedShares(as, own).map((part) => lessVoids(part, holes))
    })
  }

  private floorOfShares(level: LevelHeight, all: Share[], smallest: number): Floor {
    const shares = all.filter((s) => s.plate.area > TOLERANCE.area)
    const islands = islandsOf(shares).flatMap((group) => {
      const masses = group.map((s) => s.plate.mass)
      return this.attempts.run<Island[]>(
        { what: 'common floor', id: masses.join(), name: level.name, level: level.id, masses },
        () => [this.island(group, smallest)],
        () => [],
      )
    })
    const noted = islands.filter((i) => i.overlaps.length || i.slivers.length || i.shares.some((s) => s.low.length))
    const plates = shares.map((s) => s.plate)
    const floor: Floor = { ...emptyFloor(level), plates, islands, noted, voids: voidsOf(all), off: offByMass(all) }
    for (const island of islands) {
      floor.area += island.area
      floor.low += island.low
      floor.perimeter += island.perimeter
      for (const [use, area] of Object.entries(island.uses)) floor.uses[use] = (floor.uses[use] ?? 0) + area
    }
    return floor
  }

  /** volumes, surfaces and plans of masses that may meet */
  readonly groups = new Groups(this.memo)

  /** m3 and m2 of a scheme when all was computed last: shown as such while something is tried */
  lastWhole: { volume: number; footprint: number } | null = null

  /** What one mass brings to a floor; where nothing is low, one object for all floors with the same plate. */
  private share(form: MassForm, z: number, headroom: Headroom, over: MassForm[]): Share | null {
    if (!lowAbove(form, z, headroom)) {
      const plate = this.plate(form, z)
      return plate && this.plainShare(plate, form)
    }
    const shares = this.standings.of(form)?.shares
    const near = over.filter((o) => o !== form && rectsMeet(o.rect, form.rect))
    const known = shares?.get(z)
    if (
      known &&
      known.headroom.height === headroom.height &&
      known.headroom.wallLike === headroom.wallLike &&
      sameList(known.near, near)
    )
      return known.share
    const share = this.shareOf(form, z, headroom, near)
    shares?.set(z, { headroom, near, share })
    return share
  }

  /** The share of a plate of which nothing is low: one object while the mass has the same use and order. */
  private plainShare(plate: Plate, { use, order }: MassForm): Share {
    const known = this.plain.get(plate)
    if (known?.use === use && known.order === order) return known
    const share: Share = { plate, low: [], use, order }
    this.plain.set(plate, share)
    return share
  }
  private readonly plain = new WeakMap<Plate, Share>()

  private shareOf(form: MassForm, z: number, headroom: Headroom, near: MassForm[]): Share | null {
    const plate = this.plate(form, z)
    if (!plate) return null
    const low = lowRegion(form, plate, z, headroom)
    return this.lowShare(
      plate,
      lessWhatGoesOn(low, form, z, headroom, near, (o, at) => this.plate(o, at)),
      form,
    )
  }

  /** The share of a plate of which that is low: one object while it is as low elsewhere, so that floors which are carried along stay. */
  private lowShare(plate: Plate, low: Region, { use, order }: Pick<MassForm, 'use' | 'order'>): Share {
    const known = this.lows.get(plate) ?? []
    const kept = known.find((s) => s.use === use && s.order === order && isSameRegion(s.low, low))
    if (kept) return kept
    const share: Share = { plate, low, use, order }
    this.lows.set(plate, [...known.slice(1 - MOST_LOWS), share])
    return share
  }
  private readonly lows = new WeakMap<Plate, Share[]>()

  private island(group: Share[], smallest: number): Island {
    const first = group[0]
    if (!first) return computeIsland(group, smallest)
    const known = this.islands.get(first) ?? []
    const kept = known.find((k) => k.smallest === smallest && sameList(k.shares, group))
    if (kept) return kept
    const island = computeIsland(group, smallest)
    this.islands.set(first, [...known.slice(-3), island])
    return island
  }
}

/** What lies over a floor: masses that rise above it, and floors that count within the headroom. */
export interface Overhead {
  over: MassForm[]
  above: Floor[]
}

/** how many shares of one plate with different parts low are kept */
const MOST_LOWS = 8

const isSameRegion = (a: Region, b: Region): boolean =>
  a === b ||
  (a.length === b.length &&
    a.every((loop, l) => {
      const other = b[l] as Vec2[]
      return loop.length === other.length && loop.every((p, i) => p[0] === other[i]?.[0] && p[1] === other[i]?.[1])
    }))

/** more than any order of a mass */
const BEHIND = 1e9
