import { areaOf, intersectRegions, perimeterOf, piecesOf, rectsMeet, subtractRegions, TOLERANCE, uniteRegions, type Region } from '../solid'
import type { Plate } from './plate'

/** What one mass brings to a floor: its plate, the part of it that is too low to count, and its use. */
export interface Share { plate: Plate; low: Region; use: string; order: number }

/** Masses that meet at one floor, taken together; areas in m2, counted once. */
export interface Island {
  shares: Share[]
  /** the floor's outline, low parts included */
  region: Region
  /** the part that counts */
  counted: Region
  area: number; low: number; perimeter: number
  uses: Record<string, number>
  overlaps: { a: string; b: string; area: number; region: Region }[]
  /** pieces left out because they are smaller than the smallest area */
  slivers: Region[]
}

/** Groups the shares of a floor whose plates may meet; each group can be computed, and kept, on its own. */
export function islandsOf(shares: Share[]): Share[][] {
  const sorted = [...shares].sort((a, b) => a.plate.rect.x0 - b.plate.rect.x0)
  const group = new Map<Share, Share>(sorted.map((s) => [s, s]))
  const root = (s: Share): Share => { let r = s; while (group.get(r) !== r) r = group.get(r) as Share; return r }
  let active: Share[] = []
  for (const share of sorted) {
    active = active.filter((o) => o.plate.rect.x1 >= share.plate.rect.x0 - TOLERANCE.point)
    for (const other of active) if (rectsMeet(other.plate.rect, share.plate.rect)) group.set(root(share), root(other))
    active.push(share)
  }
  const islands = new Map<Share, Share[]>()
  for (const share of shares) {
    const r = root(share)
    const list = islands.get(r)
    if (list) list.push(share)
    else islands.set(r, [share])
  }
  return [...islands.values()].map((list) => list.sort((a, b) => a.order - b.order))
}

/** Computes one island: union, uses (where masses overlap, the first in order has the floor), what is low, what is a sliver. */
export function computeIsland(shares: Share[], smallestArea: number): Island {
  const only = shares.length === 1 ? shares[0] : undefined
  if (only && only.low.length === 0 && only.plate.region.length === 1 && only.plate.area >= smallestArea) {
    const { region, area } = only.plate
    return { shares, region, counted: region, area, low: 0, perimeter: perimeterOf(region), uses: { [only.use]: area }, overlaps: [], slivers: [] }
  }
  const region = uniteRegions(shares.map((s) => s.plate.region))
  const whole = uniteRegions(shares.map((s) => subtractRegions(s.plate.region, s.low)))
  const slivers = piecesOf(whole).filter((piece) => areaOf(piece) < smallestArea)
  const counted = slivers.length ? subtractRegions(whole, slivers.flat()) : whole
  const uses: Record<string, number> = {}
  const overlaps: Island['overlaps'] = []
  let taken: Region = []
  shares.forEach((share, i) => {
    for (const other of shares.slice(0, i)) {
      if (!rectsMeet(other.plate.rect, share.plate.rect, -TOLERANCE.point)) continue
      const common = intersectRegions(other.plate.region, share.plate.region)
      const area = areaOf(common)
      if (area > 0.005) overlaps.push({ a: other.plate.mass, b: share.plate.mass, area, region: common })
    }
    const own = intersectRegions(subtractRegions(share.plate.region, share.low), counted)
    const fresh = taken.length ? subtractRegions(own, taken) : own
    uses[share.use] = (uses[share.use] ?? 0) + areaOf(fresh)
    if (i + 1 < shares.length) taken = taken.length ? uniteRegions([taken, fresh]) : fresh
  })
  const area = areaOf(counted)
  return { shares, region, counted, area, low: Math.max(0, areaOf(region) - area), perimeter: perimeterOf(region), uses, overlaps, slivers }
}
