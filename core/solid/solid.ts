import { gapOf } from './vec2'
import { refuse } from '../values'
import { capOf } from './kernel'
import { turnOf, type Placement, type Vec2 } from './place'
import { placeSurface, type Surface } from './surfaces'

export type Vec3 = [number, number, number]

/** n . p = d, with n of length one, pointing out of the body. */
export interface Plane {
  n: Vec3
  d: number
}

/** A flat bit of a face; a plane face is one facet, a curved one has many of one name that share its true surface. */
export interface Facet {
  name: string
  plane: Plane
  surface?: Surface
  /** of a level side of a groove: the mean tilt of the surface that the groove is cut into */
  tilt?: number
}

/**
 * A closed body: xyz per vertex in metres (doubles), three vertex numbers per triangle (counter-clockwise seen from
 * outside), and per triangle the number of its facet.
 */
export interface Solid {
  positions: Float64Array
  triangles: Uint32Array
  facetOf: Uint32Array
  facets: Facet[]
}

/**
 * An upright prism over a simple outline (m, either sense), from z0 up to z1. `edgeNames[i]` names the side over the
 * edge from point i to the next.
 */
export function prism(
  points: Vec2[],
  edgeNames: string[],
  z0: number,
  z1: number,
  baseName: string,
  topName: string,
): Solid {
  if (z1 - z0 <= 0) refuse('size', 'A body needs a height above zero.', 'Type a height of at least one millimetre.')
  const clockwise = loopArea(points) < 0
  // Turned round, the edge from i to the next becomes the edge into i: its name goes with it.
  const ring = clockwise ? [...points].reverse() : points
  const names = clockwise
    ? points.map((_, i) => edgeNames[(2 * points.length - 2 - i) % points.length] ?? '')
    : edgeNames
  const n = ring.length
  const positions = new Float64Array(n * 6)
  ring.forEach(([x, y], i) => {
    positions.set([x, y, z0], i * 3)
    positions.set([x, y, z1], (n + i) * 3)
  })
  const facets: Facet[] = [
    { name: baseName, plane: { n: [0, 0, -1], d: -z0 } },
    { name: topName, plane: { n: [0, 0, 1], d: z1 } },
  ]
  const triangles: number[] = []
  const facetOf: number[] = []
  const cap = capOf([ring])
  for (let t = 0; t < cap.length; t += 3) {
    const [p, q, r] = [cap[t] ?? 0, cap[t + 1] ?? 0, cap[t + 2] ?? 0]
    triangles.push(p, r, q)
    facetOf.push(0)
    triangles.push(n + p, n + q, n + r)
    facetOf.push(1)
  }
  ring.forEach((a, i) => {
    const j = (i + 1) % n
    const b = ring[j] as Vec2
    const length = gapOf(b, a)
    const normal: Vec3 = [(b[1] - a[1]) / length, (a[0] - b[0]) / length, 0]
    facets.push({ name: names[i] ?? '', plane: { n: normal, d: normal[0] * a[0] + normal[1] * a[1] } })
    const f = facets.length - 1
    triangles.push(i, j, n + j, i, n + j, n + i)
    facetOf.push(f, f)
  })
  return { positions, triangles: Uint32Array.from(triangles), facetOf: Uint32Array.from(facetOf), facets }
}

/** Bodies that do not meet as one of several parts; they keep their names. */
export function asOne(solids: readonly Solid[]): Solid {
  const [first] = solids
  if (first && solids.length === 1) return first
  let [corners, facets] = [0, 0]
  const [positions, triangles, facetOf]: [number[], number[], number[]] = [[], [], []]
  for (const s of solids) {
    for (const p of s.positions) positions.push(p)
    for (const t of s.triangles) triangles.push(t + corners)
    for (const f of s.facetOf) facetOf.push(f + facets)
    corners += s.positions.length / 3
    facets += s.facets.length
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: Uint32Array.from(facetOf),
    facets: solids.flatMap((s) => s.facets),
  }
}

/** A plane of a body where the body stands. */
export function placePlane(plane: Plane, at: Placement): Plane {
  const { c, s } = turnOf(at.turn)
  const n: Vec3 = [c * plane.n[0] - s * plane.n[1], s * plane.n[0] + c * plane.n[1], plane.n[2]]
  return { n, d: plane.d + n[0] * at.x + n[1] * at.y + n[2] * at.z }
}

/** The body placed; names are kept. */
export function placeSolid(solid: Solid, at: Placement): Solid {
  const { c, s } = turnOf(at.turn)
  const positions = new Float64Array(solid.positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    const x = solid.positions[i] as number
    const y = solid.positions[i + 1] as number
    positions[i] = at.x + c * x - s * y
    positions[i + 1] = at.y + s * x + c * y
    positions[i + 2] = at.z + (solid.positions[i + 2] as number)
  }
  const surfaces = new Map<Surface, Surface>()
  const placed = (surface: Surface) => {
    let s = surfaces.get(surface)
    if (!s) surfaces.set(surface, (s = placeSurface(surface, at)))
    return s
  }
  return {
    ...solid,
    positions,
    facets: solid.facets.map((f): Facet => ({
      name: f.name,
      plane: placePlane(f.plane, at),
      ...(f.surface ? { surface: placed(f.surface) } : {}),
    })),
  }
}

/** The body with its vertices mapped; its surfaces, which would not be what they were, are left out. */
export function mappedSolid(solid: Solid, map: (x: number, y: number, z: number) => Vec3): Solid {
  const positions = new Float64Array(solid.positions.length)
  for (let i = 0; i < positions.length; i += 3)
    positions.set(
      map(solid.positions[i] as number, solid.positions[i + 1] as number, solid.positions[i + 2] as number),
      i,
    )
  return { ...solid, positions, facets: solid.facets.map(({ name, plane }) => ({ name, plane })) }
}

/** m3, by signed tetrahedra from a corner of the body. */
export function volumeOf(solid: Solid): number {
  const { positions: p, triangles } = solid
  const ox = p[0] ?? 0
  const oy = p[1] ?? 0
  const oz = p[2] ?? 0
  let six = 0
  for (let t = 0; t < triangles.length; t += 3) {
    const a = (triangles[t] as number) * 3
    const b = (triangles[t + 1] as number) * 3
    const c = (triangles[t + 2] as number) * 3
    const bx = (p[b] as number) - ox
    const by = (p[b + 1] as number) - oy
    const bz = (p[b + 2] as number) - oz
    const cx = (p[c] as number) - ox
    const cy = (p[c + 1] as number) - oy
    const cz = (p[c + 2] as number) - oz
    six +=
      ((p[a] as number) - ox) * (by * cz - bz * cy) +
      ((p[a + 1] as number) - oy) * (bz * cx - bx * cz) +
      ((p[a + 2] as number) - oz) * (bx * cy - by * cx)
  }
  return six / 6
}

export interface Box {
  x0: number
  y0: number
  z0: number
  x1: number
  y1: number
  z1: number
}

/** The least upright box about corners, m. */
export function boxOf(positions: ArrayLike<number>): Box {
  const box = { x0: Infinity, y0: Infinity, z0: Infinity, x1: -Infinity, y1: -Infinity, z1: -Infinity }
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i] as number, positions[i + 1] as number, positions[i + 2] as number]
    if (x < box.x0) box.x0 = x
    if (x > box.x1) box.x1 = x
    if (y < box.y0) box.y0 = y
    if (y > box.y1) box.y1 = y
    if (z < box.z0) box.z0 = z
    if (z > box.z1) box.z1 = z
  }
  return box
}

/** m2; above zero for counter-clockwise loops. Taken from the first point, so that far-away coordinates lose nothing. */
export function loopArea(loop: readonly (readonly number[])[]): number {
  const o = loop[0]
  if (!o) return 0
  const ox = o[0] as number
  const oy = o[1] as number
  let twice = 0
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const a = loop[j] as readonly number[]
    const b = loop[i] as readonly number[]
    twice += ((a[0] as number) - ox) * ((b[1] as number) - oy) - ((b[0] as number) - ox) * ((a[1] as number) - oy)
  }
  return twice / 2
}
