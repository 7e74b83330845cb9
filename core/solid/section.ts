import { gapOf } from './vec2'
import type { Arc } from './arc'
import type { Vec2 } from './place'
import type { Facet, Solid } from './solid'
import { loopArea } from './solid'
import { arcAt, isRuled, type Surface } from './surfaces'
import { TOLERANCE } from '../values'

/** A closed loop of a cut: points in plan (m), and per edge (from point i to the next) the name of the face it was cut from and the arc that it is a facet of. */
export interface CutLoop {
  points: Vec2[]
  faces: string[]
  arcs: (Arc | null)[]
}

/**
 * The cut of a body just above the height z: a body that begins at z is cut, one that ends there is not. Outer loops run
 * counter-clockwise, holes clockwise; closed by construction, because each loop is chained by the edges of the mesh.
 */
export function cutAt(solid: Solid, z: number): CutLoop[] {
  const { positions, triangles, facetOf, facets } = solid
  const limit = z + TOLERANCE.height
  const count = positions.length / 3
  const next = new Map<number, Step>()
  // Where bodies meet along an edge, several steps begin at it.
  const more = new Map<number, Step[]>()
  for (let t = 0, f = 0; t < triangles.length; t += 3, f++) {
    const a = triangles[t] as number
    const b = triangles[t + 1] as number
    const c = triangles[t + 2] as number
    const ua = (positions[a * 3 + 2] as number) > limit
    const ub = (positions[b * 3 + 2] as number) > limit
    const uc = (positions[c * 3 + 2] as number) > limit
    if (ua === ub && ub === uc) continue
    // The cut enters a triangle where its outline goes down through the plane, and leaves where it comes up.
    const down = ua && !ub ? key(a, b, count) : ub && !uc ? key(b, c, count) : key(c, a, count)
    const up = !ua && ub ? key(a, b, count) : !ub && uc ? key(b, c, count) : key(c, a, count)
    const step = { to: up, facet: facetOf[f] as number }
    if (next.has(down)) more.set(down, [...(more.get(down) ?? []), step])
    else next.set(down, step)
  }
  const taken = (at: number): Step | undefined => {
    const step = next.get(at)
    const other = more.get(at)?.pop()
    if (other) next.set(at, other)
    else next.delete(at)
    return step
  }
  const loops: CutLoop[] = []
  const arcs = new Map<Surface, Arc | null>()
  const arcOf = (facet: number): Arc | null => {
    const surface = facets[facet]?.surface
    if (!surface) return null
    let arc = arcs.get(surface)
    if (arc === undefined) arcs.set(surface, (arc = arcAt(surface, z)))
    return arc
  }
  for (const start of next.keys()) {
    if (!next.has(start)) continue
    const points: Vec2[] = []
    const cutFacets: number[] = []
    for (let at = start, step = taken(at); step; step = taken(at)) {
      points.push(pointOn(positions, at, count, z))
      cutFacets.push(step.facet)
      at = step.to
    }
    const loop = simplified(points, cutFacets, facets, arcOf)
    if (loop) loops.push(loop)
  }
  return loops
}

/** From one edge of the mesh to the next. */
interface Step {
  to: number
  facet: number
}

const key = (a: number, b: number, count: number) => (a < b ? a * count + b : b * count + a)

function pointOn(p: Float64Array, edge: number, count: number, z: number): Vec2 {
  const [a, b] = [Math.floor(edge / count) * 3, (edge % count) * 3]
  const [za, zb] = [p[a + 2] as number, p[b + 2] as number]
  const t = Math.min(1, Math.max(0, (z - za) / (zb - za)))
  return [
    (p[a] as number) + t * ((p[b] as number) - (p[a] as number)),
    (p[a + 1] as number) + t * ((p[b + 1] as number) - (p[a + 1] as number)),
  ]
}

/** Without doubled points, and without points within one face's straight edge; null when nothing is left. */
function simplified(
  points: Vec2[],
  cutFacets: number[],
  facets: Facet[],
  arcOf: (facet: number) => Arc | null,
): CutLoop | null {
  const kept: number[] = []
  for (let i = 0; i < points.length; i++) {
    const j = (i + 1) % points.length
    const [a, b] = [points[i] as Vec2, points[j] as Vec2]
    if (Math.abs(a[0] - b[0]) > TOLERANCE.point || Math.abs(a[1] - b[1]) > TOLERANCE.point) kept.push(i)
  }
  const before = (k: number) => kept[(k + kept.length - 1) % kept.length] ?? -1
  const corners = kept.filter((i, k) => {
    const [f, g] = [cutFacets[i] ?? 0, cutFacets[before(k)] ?? 0]
    if (f === g) return false
    // A twisted or warped side is cut along one straight line, through many facets.
    const surface = facets[f]?.surface
    return !(
      surface &&
      isRuled(surface) &&
      facets[f]?.name === facets[g]?.name &&
      !arcOf(f) &&
      inLine(points[before(k)] as Vec2, points[i] as Vec2, points[kept[(k + 1) % kept.length] ?? 0] as Vec2)
    )
  })
  const ring = corners.length >= 3 ? corners : kept
  if (ring.length < 3) return null
  const loop = ring.map((i) => points[i] as Vec2)
  if (Math.abs(loopArea(loop)) < TOLERANCE.area / 10) return null
  return {
    points: loop,
    faces: ring.map((i) => facets[cutFacets[i] ?? 0]?.name ?? ''),
    arcs: ring.map((i) => arcOf(cutFacets[i] ?? 0)),
  }
}

const inLine = (a: Vec2, p: Vec2, b: Vec2) =>
  Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) < TOLERANCE.fine * gapOf(b, a)
