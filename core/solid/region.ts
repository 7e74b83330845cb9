import { gapOf } from './vec2'
import type { CrossSection } from 'manifold-3d/manifold'
import { lengthOn, liesOn, type Arc } from './arc'
import { areApart, combinedConvex, convexOf } from './convex'
import { withKernel } from './kernel'
import { regionsMeeting } from './meet-regions'
import type { Vec2 } from './place'
import { rectOf, rectsMeet, type Region } from './rect'
import { combinedUpright, uprightOf } from './rectangles'
import { loopArea } from './solid'
import { TOLERANCE } from '../values'

/** m2 */
export const areaOf = (region: Region): number => region.reduce((sum, loop) => sum + loopArea(loop), 0)

/** m, of all loops, those of holes too; what lies on one of the arcs is as long as the arc, not as its facet. */
export const perimeterOf = (region: Region, arcs: readonly Arc[] = []): number =>
  region.reduce(
    (sum, loop) =>
      sum +
      loop.reduce((part, p, i) => {
        const q = loop[(i + 1) % loop.length] ?? p
        const arc = arcs.find((a) => liesOn(a, p, q))
        return part + (arc ? lengthOn(arc, p, q) : gapOf(q, p))
      }, 0),
    0,
  )

/** The union of regions; what touches within the tolerance becomes one. */
export function uniteRegions(regions: Region[]): Region {
  const filled = regions.filter((r) => r.length > 0)
  if (filled.length <= 1) return filled[0] ?? []
  if (isEachApart(filled)) return filled.flat()
  const met = regionsMeeting(filled)
  // Each region winds once round what it encloses: what they wind round together, at least once, is their union.
  return nearOrigin(met, (shift, back) =>
    withKernel((kernel, own) => back(own(new kernel.CrossSection(met.flatMap(shift), 'Positive')))),
  )
}

/** Whether they are a few convex loops of which none comes near another. */
function isEachApart(regions: Region[]): boolean {
  if (regions.length > 4) return false
  const loops = regions.flatMap((r) => (r.length === 1 && convexOf(r)) || [])
  return (
    loops.length === regions.length && loops.every((one, i) => loops.slice(i + 1).every((two) => areApart(one, two)))
  )
}

/** The region that loops enclose counter-clockwise, where they may cross themselves: what has turned inside out is gone. */
export const enclosed = (region: Region): Region =>
  region.length === 0
    ? []
    : nearOrigin([region], (shift, back) =>
        withKernel((kernel, own) => back(own(new kernel.CrossSection(shift(region), 'Positive')))),
      )

/** The region with its edge moved out by so many m (below zero: in), with square corners. */
export const offsetRegion = (region: Region, by: number): Region =>
  nearOrigin([region], (shift, back) =>
    withKernel((kernel, own) =>
      back(own(own(new kernel.CrossSection(shift(region), 'Positive')).offset(by, 'Miter', 4))),
    ),
  )

/** What two regions have in common. */
export const intersectRegions = (a: Region, b: Region): Region => combine(a, b, 'intersect')
/** The first region without the second. */
export const subtractRegions = (a: Region, b: Region): Region => (b.length === 0 ? a : combine(a, b, 'subtract'))

/** The region's separate pieces, each an outer loop with its holes. */
export function piecesOf(region: Region): Region[] {
  if (region.length <= 1) return region.length ? [region] : []
  const outers = region.filter((l) => loopArea(l) > 0)
  if (outers.length === 1) return [region]
  const pieces = outers.map((outer): Region => [outer])
  for (const hole of region.filter((l) => loopArea(l) <= 0)) {
    const around = pieces.filter(([outer]) => outer && hole[0] && inside(outer, hole[0]))
    around.sort((a, b) => loopArea(a[0] ?? []) - loopArea(b[0] ?? []))
    around[0]?.push(hole)
  }
  return pieces
}

/** Whether a point lies in a loop (either sense). */
export function inside(loop: Vec2[], [x, y]: Vec2): boolean {
  let odd = false
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const [a, b] = [loop[i] as Vec2, loop[j] as Vec2]
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) odd = !odd
  }
  return odd
}

/** m between a point and the nearest of a segment. */
export function offSegment(p: Vec2, a: Vec2, b: Vec2): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const t = Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(p[0] - a[0] - dx * t, p[1] - a[1] - dy * t)
}

function combine(a: Region, b: Region, how: 'intersect' | 'subtract'): Region {
  if (a.length === 0 || b.length === 0) return how === 'subtract' ? a : []
  if (!rectsMeet(rectOf(a), rectOf(b), TOLERANCE.touch)) return how === 'subtract' ? a : []
  // Most of what is cut in a building is upright rectangles.
  const [ra, rb] = [uprightOf(a), uprightOf(b)]
  const plain = ra && rb ? combinedUpright(ra, rb, how) : null
  if (plain) return plain
  const [ca, cb] = [convexOf(a), convexOf(b)]
  const clipped = ca && cb ? combinedConvex(ca, cb, how) : null
  if (clipped) return clipped
  const [one, two] = regionsMeeting([a, b]) as [Region, Region]
  return nearOrigin([one, two], (shift, back) =>
    withKernel((kernel, own) =>
      back(own(new kernel.CrossSection(woundOnceIn(shift(one), shift(two), how), 'Positive'))),
    ),
  )
}

/**
 * Loops that wind once round what is wanted, and not at all, or backwards, round all else, so that one pass of the kernel does: the first
 * region less the second is the first with the second turned round; what they have in common is both within a frame that is turned round.
 */
function woundOnceIn(one: Region, two: Region, how: 'intersect' | 'subtract'): Region {
  if (how === 'subtract') return [...one, ...two.map((loop) => [...loop].reverse())]
  const { x0, y0, x1, y1 } = rectOf([...one, ...two])
  const [l, b, r, t] = [x0 - 1, y0 - 1, x1 + 1, y1 + 1]
  return [
    ...one,
    ...two,
    [
      [l, b],
      [l, t],
      [r, t],
      [r, b],
    ],
  ]
}

/** Works near the origin, so that the kernel's integer grid is fine wherever the site lies. */
function nearOrigin(
  regions: Region[],
  work: (shift: (r: Region) => Region, back: (c: CrossSection) => Region) => Region,
): Region {
  const first = regions[0]?.[0]?.[0] ?? [0, 0]
  const [ox, oy] =
    Math.abs(first[0]) + Math.abs(first[1]) > 4096 ? [Math.round(first[0]), Math.round(first[1])] : [0, 0]
  if (ox === 0 && oy === 0)
    return work(
      (r) => r,
      (c) => cleaned(c.toPolygons()),
    )
  const shift = (r: Region) => r.map((loop) => loop.map(([x, y]): Vec2 => [x - ox, y - oy]))
  return work(shift, (c) => cleaned(c.toPolygons()).map((loop) => loop.map(([x, y]): Vec2 => [x + ox, y + oy])))
}

/** Drops what the integer grid leaves behind: slivers without area, points on straight edges. */
function cleaned(loops: Vec2[][]): Region {
  return loops.map(straightened).filter((loop) => loop.length >= 3 && Math.abs(loopArea(loop)) > TOLERANCE.area)
}

/** Without doubled points, points within straight edges, and spikes: edges that are gone along and come back. */
export function straightened(loop: Vec2[]): Vec2[] {
  const single = withoutSpikes(loop.filter((p, i) => !samePoint(p, loop[(i + loop.length - 1) % loop.length] as Vec2)))
  return single.filter((p, i) => {
    const a = single[(i + single.length - 1) % single.length] as Vec2
    const b = single[(i + 1) % single.length] as Vec2
    const off = Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]))
    return off > TOLERANCE.fine * gapOf(b, a)
  })
}

function withoutSpikes(loop: Vec2[]): Vec2[] {
  const ring = [...loop]
  for (let i = 0; i < ring.length && ring.length >= 3;) {
    const [before, after] = [(i + ring.length - 1) % ring.length, (i + 1) % ring.length]
    if (!samePoint(ring[before] as Vec2, ring[after] as Vec2)) {
      i++
      continue
    }
    // The tip goes, and one of the two points that are one; what was before them may be a tip now.
    for (const k of [i, after].sort((a, b) => b - a)) ring.splice(k, 1)
    i = Math.max(0, Math.min(i, after) - 2)
  }
  return ring
}

const samePoint = (a: Vec2, b: Vec2) =>
  Math.abs(a[0] - b[0]) <= TOLERANCE.point && Math.abs(a[1] - b[1]) <= TOLERANCE.point
