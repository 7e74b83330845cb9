import type { Facet, Solid, Vec2 } from './solid'
import { loopArea } from './solid'
import { TOLERANCE } from './tolerance'

/** A closed loop of a cut: points in plan (m), and per edge (from point i to the next) the name of the face it was cut from. */
export interface CutLoop { points: Vec2[]; faces: string[] }

/**
 * The cut of a body just above the height z: a body that begins at z is cut, one that ends there is not. Outer loops run
 * counter-clockwise, holes clockwise; closed by construction, because each loop is chained by the edges of the mesh.
 */
export function cutAt(solid: Solid, z: number): CutLoop[] {
  const { positions, triangles, facetOf, facets } = solid
  const limit = z + TOLERANCE.height
  const count = positions.length / 3
  const next = new Map<number, { to: number; facet: number }>()
  for (let t = 0, f = 0; t < triangles.length; t += 3, f++) {
    const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number]
    const [ua, ub, uc] = [(positions[a * 3 + 2] as number) > limit, (positions[b * 3 + 2] as number) > limit, (positions[c * 3 + 2] as number) > limit]
    if (ua === ub && ub === uc) continue
    // The cut enters a triangle where its outline goes down through the plane, and leaves where it comes up.
    const down = ua && !ub ? key(a, b, count) : ub && !uc ? key(b, c, count) : key(c, a, count)
    const up = !ua && ub ? key(a, b, count) : !ub && uc ? key(b, c, count) : key(c, a, count)
    next.set(down, { to: up, facet: facetOf[f] as number })
  }
  const loops: CutLoop[] = []
  for (const start of next.keys()) {
    if (!next.has(start)) continue
    const points: Vec2[] = []
    const cutFacets: number[] = []
    for (let at = start, step = next.get(at); step; step = next.get(at)) {
      next.delete(at)
      points.push(pointOn(positions, at, count, z))
      cutFacets.push(step.facet)
      at = step.to
    }
    const loop = simplified(points, cutFacets, facets)
    if (loop) loops.push(loop)
  }
  return loops
}

const key = (a: number, b: number, count: number) => (a < b ? a * count + b : b * count + a)

function pointOn(p: Float64Array, edge: number, count: number, z: number): Vec2 {
  const [a, b] = [Math.floor(edge / count) * 3, (edge % count) * 3]
  const [za, zb] = [p[a + 2] as number, p[b + 2] as number]
  const t = Math.min(1, Math.max(0, (z - za) / (zb - za)))
  return [(p[a] as number) + t * ((p[b] as number) - (p[a] as number)), (p[a + 1] as number) + t * ((p[b + 1] as number) - (p[a + 1] as number))]
}

/** Without doubled points, and without points within one facet's straight edge; null when nothing is left. */
function simplified(points: Vec2[], cutFacets: number[], facets: Facet[]): CutLoop | null {
  const kept: number[] = []
  for (let i = 0; i < points.length; i++) {
    const j = (i + 1) % points.length
    const [a, b] = [points[i] as Vec2, points[j] as Vec2]
    if (Math.abs(a[0] - b[0]) > TOLERANCE.point || Math.abs(a[1] - b[1]) > TOLERANCE.point) kept.push(i)
  }
  const corners = kept.filter((i, k) => cutFacets[i] !== cutFacets[kept[(k + kept.length - 1) % kept.length] ?? -1])
  const ring = corners.length >= 3 ? corners : kept
  if (ring.length < 3) return null
  const loop = ring.map((i) => points[i] as Vec2)
  if (Math.abs(loopArea(loop)) < TOLERANCE.area / 10) return null
  return { points: loop, faces: ring.map((i) => facets[cutFacets[i] ?? 0]?.name ?? '') }
}
