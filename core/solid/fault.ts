import { TOLERANCE } from '../values'
import { cornerAt, crossOf, dotOf, lessOf } from './plane'
import { volumeOf, type Vec3 } from './solid'

/** What is wrong with a mesh as a body, and where (m). */
export interface BodyFault {
  fault: 'open' | 'inside out' | 'crossing'
  at: Vec3
}

/**
 * What is wrong with a mesh as a body: an edge that has no triangle on its other side, triangles that all look inwards, or triangles that
 * pass through one another; null when it is sound. `only`: the edges alone, which is quick, and done once for copies.
 */
export function bodyFault(mesh: { positions: Float64Array; triangles: Uint32Array }, only?: 'edges'): BodyFault | null {
  const { positions, triangles } = mesh
  const point = (v: number) => cornerAt(positions, v)
  const open = openEdge(triangles, positions.length / 3)
  if (open >= 0) return { fault: 'open', at: point(open) }
  if (only) return null
  if (volumeOf({ ...mesh, facetOf: new Uint32Array(), facets: [] }) < 0) return { fault: 'inside out', at: point(0) }
  const count = triangles.length / 3
  const boxes = Array.from({ length: count }, (_, t) => {
    const corners = [0, 1, 2].map((k) => point(triangles[t * 3 + k] as number)) as [Vec3, Vec3, Vec3]
    return {
      t,
      corners,
      low: [0, 1, 2].map((k) => Math.min(...corners.map((c) => c[k] as number))),
      high: [0, 1, 2].map((k) => Math.max(...corners.map((c) => c[k] as number))),
    }
  }).sort((a, b) => (a.low[0] as number) - (b.low[0] as number))
  let active: typeof boxes = []
  for (const box of boxes) {
    active = active.filter((o) => (o.high[0] as number) > (box.low[0] as number) + TOLERANCE.rounding)
    for (const other of active) {
      if (
        [1, 2].some(
          (k) =>
            (other.high[k] as number) <= (box.low[k] as number) + TOLERANCE.rounding ||
            (box.high[k] as number) <= (other.low[k] as number) + TOLERANCE.rounding,
        )
      )
        continue
      const at = crossing(box.corners, other.corners) ?? crossing(other.corners, box.corners)
      if (at) return { fault: 'crossing', at }
    }
    active.push(box)
  }
  return null
}

/** A vertex of an edge that has a triangle on one side only, or -1. Depends on the triangles alone, which copies share. */
function openEdge(triangles: Uint32Array, corners: number): number {
  let found = known.get(triangles)
  if (found === undefined) {
    const open = new Map<number, number>()
    for (let i = 0; i < triangles.length; i++) {
      const [a, b] = [triangles[i] as number, triangles[i % 3 === 2 ? i - 2 : i + 1] as number]
      if (!open.delete(b * corners + a)) open.set(a * corners + b, a)
    }
    const [first] = open.values()
    known.set(triangles, (found = first ?? -1))
  }
  return found
}
const known = new WeakMap<Uint32Array, number>()

/** A point where an edge of the first triangle passes through the inside of the second; touching is no crossing. */
function crossing(one: [Vec3, Vec3, Vec3], two: [Vec3, Vec3, Vec3]): Vec3 | null {
  const [a, b, c] = two
  const n = crossOf(lessOf(b, a), lessOf(c, a))
  const size = Math.hypot(...n)
  if (size < TOLERANCE.zero) return null
  const off = one.map((p) => dotOf(n, lessOf(p, a)) / size)
  for (let i = 0; i < 3; i++) {
    const j = (i + 1) % 3
    const [d, e] = [off[i] as number, off[j] as number]
    if (!((d > TOLERANCE.point && e < -TOLERANCE.point) || (d < -TOLERANCE.point && e > TOLERANCE.point))) continue
    const t = d / (d - e)
    const [p, q] = [one[i] as Vec3, one[j] as Vec3]
    const x: Vec3 = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]
    const inside = [
      [a, b],
      [b, c],
      [c, a],
    ].every(
      ([u, w]) =>
        dotOf(crossOf(lessOf(w as Vec3, u as Vec3), lessOf(x, u as Vec3)), n) > -TOLERANCE.rounding * size * size,
    )
    if (inside) return x
  }
  return null
}
