import { cornerAt, dotOf } from './plane'
import { boxOf, type Box, type Facet, type Plane, type Solid, type Vec3 } from './solid'
import { TOLERANCE } from '../values'

/** m that a face which touches another is pushed into it, so that the kernel finds one body; taken back when it is done */
const PUSH = 2 * TOLERANCE.touch

/**
 * The second of two bodies made ready to be united with the first: faces that lie in one plane within the tolerance lie in it exactly, and
 * faces that lie against one another overlap by a hair. `settled` says where each vertex goes afterwards, `seams` where new ones do.
 */
export function madeToMeet(a: Solid, b: Solid): { body: Solid; settled: Float64Array; seams: Seam[] } {
  const pairs = pairsOf(a, b)
  if (pairs.length === 0) return { body: b, settled: b.positions, seams: [] }
  const planes = new Map<number, { plane: Plane; against: boolean }>()
  for (const { facet, plane, against } of pairs)
    if (!planes.has(facet) || against) planes.set(facet, { plane, against })
  const on = new Map<number, Set<number>>()
  b.triangles.forEach((v, i) => {
    const f = b.facetOf[Math.floor(i / 3)] as number
    if (!planes.has(f)) return
    const set = on.get(v)
    if (set) set.add(f)
    else on.set(v, new Set([f]))
  })
  const [settled, positions] = [b.positions.slice(), b.positions.slice()]
  for (const [v, facets] of on) {
    const targets = [...facets].map((f) => planes.get(f) as { plane: Plane; against: boolean })
    const at = cornerAt(b.positions, v)
    settled.set(
      onto(
        at,
        targets.map((t) => t.plane),
      ),
      v * 3,
    )
    positions.set(
      onto(
        at,
        targets.map(({ plane, against }) => ({ n: plane.n, d: plane.d + (against ? PUSH : 0) })),
      ),
      v * 3,
    )
  }
  const facets = b.facets.map((f, i): Facet => {
    const set = planes.get(i)
    return set ? { ...f, plane: set.plane } : f
  })
  return {
    body: { ...b, positions, facets },
    settled,
    seams: pairs.filter((p) => p.against).map(({ plane, box }) => ({ plane, box })),
  }
}

/** Where two faces lay against one another: what was computed in the hair by which they overlapped belongs into their plane. */
export interface Seam {
  plane: Plane
  box: Box
}

/** The planes of the seams that a point lies in. */
export const seamsAt = (seams: Seam[], p: Vec3): Plane[] =>
  seams
    .filter(({ plane, box }) => {
      const off = dotOf(plane.n, p) - plane.d
      return (
        off > -TOLERANCE.point &&
        off < PUSH * 1.5 &&
        boxesMeet(box, { x0: p[0], y0: p[1], z0: p[2], x1: p[0], y1: p[1], z1: p[2] }, 2 * PUSH)
      )
    })
    .map((s) => s.plane)

/** Facets of b that lie in the plane of a facet of a where the two may meet: looking the same way, or against one another. The plane is a's, looking as b's does. */
function pairsOf(a: Solid, b: Solid): { facet: number; plane: Plane; against: boolean; box: Box }[] {
  const [boxA, boxB] = [boxOf(a.positions), boxOf(b.positions)]
  if (!boxesMeet(boxA, boxB)) return []
  const [ours, theirs] = [
    extents(a).filter((e) => boxesMeet(e.box, boxB)),
    extents(b).filter((e) => boxesMeet(e.box, boxA)),
  ]
  return theirs.flatMap((t) =>
    ours.flatMap((o) => {
      const dot = dotOf(o.plane.n, t.plane.n)
      if (Math.abs(dot) < 1 - TOLERANCE.fine || !boxesMeet(o.box, t.box)) return []
      const lie = (points: Vec3[], { n, d }: Plane) => points.every((p) => Math.abs(dotOf(n, p) - d) < TOLERANCE.touch)
      if (!lie(t.points, o.plane) && !lie(o.points, t.plane)) return []
      const against = dot < 0
      const { n, d } = o.plane
      return [
        { facet: t.facet, against, box: t.box, plane: against ? { n: [-n[0], -n[1], -n[2]] as Vec3, d: -d } : o.plane },
      ]
    }),
  )
}

interface Extent {
  facet: number
  plane: Plane
  box: Box
  points: Vec3[]
}

function extents(solid: Solid): Extent[] {
  const corners = new Map<number, Set<number>>()
  solid.triangles.forEach((v, i) => {
    const f = solid.facetOf[Math.floor(i / 3)] as number
    const set = corners.get(f)
    if (set) set.add(v)
    else corners.set(f, new Set([v]))
  })
  return [...corners].map(([facet, set]) => {
    const points = [...set].map((v) => cornerAt(solid.positions, v))
    return { facet, plane: (solid.facets[facet] as Facet).plane, points, box: boxOf(points.flat()) }
  })
}

function boxesMeet(a: Box, b: Box, by: number = TOLERANCE.touch): boolean {
  return (
    a.x0 <= b.x1 + by &&
    b.x0 <= a.x1 + by &&
    a.y0 <= b.y1 + by &&
    b.y0 <= a.y1 + by &&
    a.z0 <= b.z1 + by &&
    b.z0 <= a.z1 + by
  )
}

/** The point near to p that lies on all planes (Kaczmarz: onto each in turn). */
function onto(p: Vec3, planes: Plane[]): Vec3 {
  let point = p
  for (let round = 0; round < 60; round++) {
    let most = 0
    for (const { n, d } of planes) {
      const off = dotOf(n, point) - d
      most = Math.max(most, Math.abs(off))
      point = [point[0] - off * n[0], point[1] - off * n[1], point[2] - off * n[2]]
    }
    if (most < TOLERANCE.zero) break
  }
  return point
}
