import {
  areaOf,
  intersectRegions,
  offsetRegion,
  rectOf,
  rectsMeet,
  subtractRegions,
  TOLERANCE,
  uniteRegions,
  type Region,
} from '../solid'
import type { Plate } from './plate'
import type { Off, Share } from './share'

/** A change of a plate where it stands: the floor ends so far (m) within, or a part of it is none, or has another use. */
export type PlateChange =
  { id: string; kind: 'inset'; by: number } | { id: string; kind: 'part'; region: Region; use: string | null }

/** A plate that covers only a part of what the mass is cut to; its edges have no names. */
const partOf = (plate: Plate, region: Region): Plate => ({
  ...plate,
  loops: [],
  region,
  area: areaOf(region),
  rect: rectOf(region),
})

const isThere = (region: Region) => areaOf(region) > TOLERANCE.area

/** What a share becomes by changes of its plate, one after the other: parts with uses of their own, which together cover what is left. */
export function changedShares(share: Share, changes: readonly PlateChange[]): Share[] {
  let parts = [share]
  for (const change of changes)
    parts = parts.flatMap((part) => {
      const { region } = part.plate
      if (change.kind === 'inset') {
        const left = intersectRegions(region, offsetRegion(region, -change.by))
        return [without(part, left, 'inset', change.id)]
      }
      const within = intersectRegions(region, change.region)
      if (!isThere(within)) return [part]
      const rest = subtractRegions(region, change.region)
      if (change.use === null) return [without(part, rest, 'left out', change.id)]
      const changed: Share = { ...part, plate: partOf(part.plate, within), use: change.use, off: [] }
      return isThere(rest) ? [{ ...part, plate: partOf(part.plate, rest) }, changed] : [{ ...changed, off: part.off }]
    })
  return parts
}

/** A share less what voids (their plates on this level) take of it; the first of them has what several take. */
export function lessVoids(share: Share, voids: readonly Plate[]): Share {
  return voids.reduce((left, hole) => {
    if (!rectsMeet(left.plate.rect, hole.rect, -TOLERANCE.point)) return left
    const rest = subtractRegions(left.plate.region, hole.region)
    return areaOf(rest) < left.plate.area - TOLERANCE.area ? without(left, rest, 'void', hole.mass) : left
  }, share)
}

/** The share with only this left of it; what went is noted. */
function without(share: Share, left: Region, why: Off['why'], by: string): Share {
  const { region } = share.plate
  const gone = isThere(left) ? subtractRegions(region, left) : region
  return {
    ...share,
    plate: partOf(share.plate, isThere(left) ? left : []),
    low: share.low === region ? left : share.low,
    off: [...(share.off ?? []), { why, by, area: areaOf(gone), region: gone }],
  }
}

/** What a void takes of a floor, counted once where masses overlap there. */
export interface FloorVoid {
  mass: string
  area: number
  region: Region
}

/** The voids of a floor, by what they take of its shares. */
export function voidsOf(shares: readonly Share[]): FloorVoid[] {
  const regions = new Map<string, Region[]>()
  for (const { off } of shares)
    for (const { why, by, region } of off ?? [])
      if (why === 'void') regions.set(by, [...(regions.get(by) ?? []), region])
  return [...regions].map(([mass, of]) => {
    const region = of.length > 1 ? uniteRegions(of) : (of[0] ?? [])
    return { mass, region, area: areaOf(region) }
  })
}
