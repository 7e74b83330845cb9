import {
  areaOf,
  groupsThatMeet,
  intersectRegions,
  perimeterOf,
  piecesOf,
  rectsMeet,
  subtractRegions,
  TOLERANCE,
  uniteRegions,
  type Region,
} from '../solid'
import { plateLength } from './plate'
import type { Share } from './share'

/** What two masses share of a floor, m2. */
export interface Overlap {
  a: string
  b: string
  area: number
  region: Region
}

/** Masses that meet at one floor, taken together; areas in m2, counted once. */
export interface Island {
  shares: Share[]
  /** the floor's outline, low parts included */
  region: Region
  /** the part that counts */
  counted: Region
  area: number
  low: number
  perimeter: number
  uses: Record<string, number>
  /** m2 that count of each share, in their order: floor that several masses have is the first one's */
  own: number[]
  overlaps: Overlap[]
  /** pieces left out because they are smaller than the smallest area (m2) */
  slivers: Region[]
  smallest: number
}

/** Groups the shares of a floor whose plates may meet; each group can be computed, and kept, on its own. */
export function islandsOf(shares: Share[]): Share[][] {
  return groupsThatMeet(
    shares,
    (s) => s.plate.rect,
    () => true,
  ).map((list) => list.sort((a, b) => a.order - b.order))
}

/** Computes one island: union, uses (where masses overlap, the first in order has the floor), what is low, what is a sliver. */
export function computeIsland(shares: Share[], smallest: number): Island {
  const common = { shares, smallest }
  const only = shares.length === 1 ? shares[0] : undefined
  if (only && only.low.length === 0 && only.plate.region.length === 1 && only.plate.area >= smallest) {
    const { region, area } = only.plate
    return {
      ...common,
      region,
      counted: region,
      area,
      low: 0,
      perimeter: only.plate.loops.length ? plateLength(only.plate) : perimeterOf(region, only.plate.arcs),
      uses: { [only.use]: area },
      own: [area],
      overlaps: [],
      slivers: [],
    }
  }
  const region = uniteRegions(shares.map((s) => s.plate.region))
  // Where a form ends below the headroom its whole plate is low.
  const high = shares.map((s) => (s.low === s.plate.region ? [] : subtractRegions(s.plate.region, s.low)))
  const whole = shares.some((s) => s.low.length) ? uniteRegions(high) : region
  const slivers = piecesOf(whole).filter((piece) => areaOf(piece) < smallest)
  const counted = slivers.length ? subtractRegions(whole, slivers.flat()) : whole
  const area = areaOf(counted)
  const own = ownAreas(shares, slivers.length ? high.map((h) => intersectRegions(h, counted)) : high)
  return {
    ...common,
    region,
    counted,
    area,
    low: Math.max(0, areaOf(region) - area),
    perimeter: perimeterOf(
      region,
      shares.flatMap((s) => s.plate.arcs),
    ),
    slivers,
    own,
    uses: usesOf(shares, own),
    overlaps: overlapsOf(shares),
  }
}

/** The part of an island that does not count, slivers with it. */
export function notCounted(island: Island): Region {
  let region = uncounted.get(island)
  if (!region) {
    const [only, more] = island.shares
    const isOne = only && !more && island.slivers.length === 0
    uncounted.set(island, (region = isOne ? only.low : subtractRegions(island.region, island.counted)))
  }
  return region
}
const uncounted = new WeakMap<Island, Region>()

/** The floor that counts of each share of an island, in their order; what several masses have is the first one's. */
export function ownRegions({ shares, counted, low, slivers }: Island): Region[] {
  if (shares.length === 1) return [counted]
  const high = shares.map((s) =>
    s.low === s.plate.region ? [] : s.low.length ? subtractRegions(s.plate.region, s.low) : s.plate.region,
  )
  return shares.map(({ plate }, i) => {
    const before = shares.slice(0, i).flatMap((o, k) => (rectsMeet(o.plate.rect, plate.rect, 0) ? [high[k] ?? []] : []))
    const mine = high[i] ?? []
    const own = before.length ? subtractRegions(mine, uniteRegions(before)) : mine
    return low > 0 || slivers.length ? intersectRegions(own, counted) : own
  })
}

/** m2 by share; floor that several masses have is the first one's. */
function ownAreas(shares: Share[], own: Region[]): number[] {
  return shares.map((share, i) => {
    const mine = own[i] ?? []
    const before = shares.flatMap((o, k) =>
      k < i && rectsMeet(o.plate.rect, share.plate.rect, -TOLERANCE.point) ? [own[k] ?? []] : [],
    )
    return areaOf(mine) - (before.length ? areaOf(intersectRegions(mine, uniteRegions(before))) : 0)
  })
}

function usesOf(shares: Share[], own: number[]): Record<string, number> {
  const uses: Record<string, number> = {}
  shares.forEach((share, i) => {
    uses[share.use] = (uses[share.use] ?? 0) + (own[i] ?? 0)
  })
  return uses
}

/** Where two masses have the same floor. */
function overlapsOf(shares: Share[]): Island['overlaps'] {
  return shares.flatMap((share, i) =>
    shares.slice(0, i).flatMap((other) => {
      if (share.core || other.core || share.plate.mass === other.plate.mass) return []
      if (!rectsMeet(other.plate.rect, share.plate.rect, -TOLERANCE.point)) return []
      const region = intersectRegions(other.plate.region, share.plate.region)
      const area = areaOf(region)
      return area > 0.005 ? [{ a: other.plate.mass, b: share.plate.mass, area, region }] : []
    }),
  )
}
