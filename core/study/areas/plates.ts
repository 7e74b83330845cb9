import {
  areaOf,
  deepestIn,
  loopArea,
  perimeterOf,
  piecesOf,
  uniteRegions,
  TOLERANCE,
  type Arc,
  type Region,
  type Vec2,
} from '../../solid'
import { computeIsland, islandsOf, ownRegions, type Island, type Share } from '../../slice'
import type { Floor } from '../floor'
import type { Study } from '../types'
import { outlineOf } from './entries'

/** What plates are put together by. */
export type PlatesBy = 'mass' | 'use' | 'wing' | 'all'

/** A plate and its figures: m, m2; arcs in the outline are true ones. */
export interface PlateFigures {
  /** the id of its mass, use or wing; null: of what has none, or of the whole floor */
  of: string | null
  name: string
  region: Region
  arcs: Arc[]
  holes: number
  area: number
  perimeter: number
  centroid: Vec2
  /** the greatest distance to a facade, those of courts too; voids have none */
  depth: number
  /** along facades: the outline of the whole floor */
  facade: number
  /** a storey above cuts it and is not taken: it is as high as two */
  double: boolean
}

/**
 * The plates of a floor, put together by what is asked for; cut so many m above the level, where that is asked for: then nothing is low, and voids and
 * changes of plates take off nothing.
 */
export function platesOf(study: Study, at: Floor, by: PlatesBy, above = 0): PlateFigures[] {
  const floor = above > 0 ? { ...at, islands: islandsAbove(study, at, above) } : at
  const groups = new Map<string | null, { regions: Region[]; shares: Share[]; outlines: Region[] }>()
  for (const island of floor.islands) {
    const own = ownRegions(island)
    const outline = outlineOf(island)
    island.shares.forEach((share, i) => {
      const region = own[i] ?? []
      if (areaOf(region) <= TOLERANCE.area) return
      const of = keyOf(study, share, by)
      const group = groups.get(of) ?? { regions: [], shares: [], outlines: [] }
      group.regions.push(region)
      group.shares.push(share)
      if (!group.outlines.includes(outline)) group.outlines.push(outline)
      groups.set(of, group)
    })
  }
  return [...groups].map(([of, { regions, shares, outlines }]) => {
    const region = regions.length > 1 ? uniteRegions(regions) : (regions[0] ?? [])
    const arcs = shares.flatMap((s) => s.plate.arcs)
    const outline = outlines.flat()
    return {
      of,
      name: nameOf(study, of, by),
      region,
      arcs,
      holes: region.filter((l) => loopArea(l) < 0).length,
      area: areaOf(region),
      perimeter: perimeterOf(region, arcs),
      centroid: centroidOf(region),
      depth: depthOf(outlines),
      facade: by === 'all' ? perimeterOf(outline, arcs) : sharedLength(region, outline),
      double: shares.some((s) => isDouble(study, floor, s.plate.mass)),
    }
  })
}

/** What the masses that take a floor are cut to so many m above it. */
function islandsAbove({ forms, context }: Study, floor: Floor, above: number): Island[] {
  const takers = new Map(floor.islands.flatMap((i) => i.shares.map((s) => [s.plate.mass, s] as const)))
  const shares = forms.flatMap((form): Share[] => {
    const share = takers.get(form.id)
    const plate = share && context.plateAt(form, floor.level.height + above)
    return share && plate ? [{ plate, low: [], use: share.use, order: share.order }] : []
  })
  return islandsOf(shares).map((group) => computeIsland(group, 0))
}

function keyOf({ wings }: Study, share: Share, by: PlatesBy): string | null {
  switch (by) {
    case 'mass':
      return share.plate.mass
    case 'use':
      return share.use
    case 'wing':
      return wings.of.get(share.plate.mass) ?? null
    case 'all':
      return null
  }
}

function nameOf({ scheme, project }: Study, of: string | null, by: PlatesBy): string {
  switch (by) {
    case 'mass':
      return scheme.masses[of ?? '']?.name ?? ''
    case 'use':
      return project.uses[of ?? '']?.name ?? ''
    case 'wing':
      return of === null ? 'in no wing' : (scheme.wings[of]?.name ?? '')
    case 'all':
      return 'the whole floor'
  }
}

/** The centre of a region's area, m. Source: the shoelace formula for first moments. */
export function centroidOf(region: Region): Vec2 {
  const [ox, oy] = region[0]?.[0] ?? [0, 0]
  let [a, sx, sy] = [0, 0, 0]
  for (const loop of region)
    loop.forEach(([px, py], i) => {
      const [qx, qy] = loop[(i + 1) % loop.length] as Vec2
      const [x0, y0, x1, y1] = [px - ox, py - oy, qx - ox, qy - oy]
      const cross = x0 * y1 - x1 * y0
      a += cross
      sx += (x0 + x1) * cross
      sy += (y0 + y1) * cross
    })
  return a === 0 ? [ox, oy] : [ox + sx / (3 * a), oy + sy / (3 * a)]
}

/** m: the greatest distance of a place in a region to its edge, over all regions; to within half a millimetre. */
export function depthOf(regions: readonly Region[]): number {
  return regions
    .flatMap((region) => piecesOf(region))
    .reduce((deepest, piece) => {
      let depth = depths.get(piece)
      if (depth === undefined) depths.set(piece, (depth = deepestIn(piece, DEPTH)?.depth ?? 0))
      return Math.max(deepest, depth)
    }, 0)
}
const depths = new WeakMap<Region, number>()
/** m: how closely a depth is known */
const DEPTH = 0.0005

/** m of the edge of a region that lies on the edge of another. */
function sharedLength(region: Region, other: Region): number {
  let sum = 0
  for (const loop of region)
    loop.forEach((p, i) => {
      const q = loop[(i + 1) % loop.length] as Vec2
      sum += alongEdges(p, q, other)
    })
  return sum
}

/** m of a straight edge that runs along edges of a region. */
function alongEdges(p: Vec2, q: Vec2, region: Region): number {
  const [dx, dy] = [q[0] - p[0], q[1] - p[1]]
  const long = Math.hypot(dx, dy)
  if (long < TOLERANCE.point) return 0
  const [ux, uy] = [dx / long, dy / long]
  const off = ([x, y]: Vec2) => Math.abs((x - p[0]) * uy - (y - p[1]) * ux)
  const at = ([x, y]: Vec2) => (x - p[0]) * ux + (y - p[1]) * uy
  let sum = 0
  for (const loop of region)
    loop.forEach((a, i) => {
      const b = loop[(i + 1) % loop.length] as Vec2
      if (off(a) > TOLERANCE.touch || off(b) > TOLERANCE.touch) return
      const [from, to] = [Math.min(at(a), at(b)), Math.max(at(a), at(b))]
      sum += Math.max(0, Math.min(long, to) - Math.max(0, from))
    })
  return Math.min(sum, long)
}

/** Returns true where the next storey cuts the mass and is none of its own. */
function isDouble({ floors, forms, scheme }: Study, floor: Floor, mass: string): boolean {
  const next = floors.find((f) => f.level.height > floor.level.height + TOLERANCE.height)
  const form = forms.find((f) => f.id === mass)
  if (!next || !form || form.top <= next.level.height + TOLERANCE.height) return false
  const takes = scheme.masses[mass]?.takes
  return takes !== undefined && takes.levels.includes(next.level.id) !== (takes.kind === 'only')
}
