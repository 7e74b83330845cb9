import { twinsOf, type Mesh, type Vec2 } from '@geotome/core/solid'
import type { Body } from '@geotome/core/form'
import type { Geometry } from './protocol'

/** A body's triangles with flat normals, the lines where its faces meet at an angle, and those along which a curved face may turn out of sight. */
export function bodyGeometry(key: string, body: Body): Geometry {
  const { solid } = body
  const names = facesNamed(body)
  const numbers = new Map(names.map((name, i) => [name, i]))
  const normals = normalsOf(solid)
  return {
    key,
    ...softened(solid, flatTriangles(solid.positions, solid.triangles, [0, 0], normals)),
    ...linesOf(
      solid,
      [0, 0],
      normals,
      (t, other) =>
        solid.facets[solid.facetOf[t] ?? 0]?.surface !== undefined &&
        solid.facets[solid.facetOf[t] ?? 0]?.surface === solid.facets[solid.facetOf[other] ?? 0]?.surface,
    ),
    faceOf: solid.facetOf.map((f) => numbers.get(solid.facets[f]?.name ?? '') ?? -1),
  }
}

/** Triangles of a curved face shaded softly: in each corner by the mean direction of those of the face that meet there. */
function softened(
  { triangles, facetOf, facets }: Body['solid'],
  flat: Pick<Geometry, 'positions' | 'normals'>,
): Pick<Geometry, 'positions' | 'normals'> {
  const surfaces = new Map<object, number>()
  const numberOf = (t: number): number => {
    const surface = facets[facetOf[t] ?? 0]?.surface
    if (!surface) return -1
    const known = surfaces.get(surface) ?? surfaces.size
    surfaces.set(surface, known)
    return known
  }
  const { normals } = flat
  if (!facets.some((f) => f.surface)) return flat
  const most = triangles.reduce((top, v) => Math.max(top, v), 0) + 1
  // One sum for each corner of each surface, and for each corner of a triangle the one that it adds to.
  const numbers = new Map<number, number>()
  const sumOf = new Int32Array(triangles.length).fill(-1)
  const sums = new Float64Array(triangles.length * 3)
  for (let t = 0; t < facetOf.length; t++) {
    const surface = numberOf(t)
    if (surface < 0) continue
    for (let i = t * 3; i < t * 3 + 3; i++) {
      const key = surface * most + (triangles[i] as number)
      let sum = numbers.get(key)
      if (sum === undefined) numbers.set(key, (sum = numbers.size))
      sumOf[i] = sum
      for (let k = 0; k < 3; k++) sums[sum * 3 + k] = (sums[sum * 3 + k] as number) + (normals[i * 3 + k] as number)
    }
  }
  for (let i = 0; i < triangles.length; i++) {
    const at = (sumOf[i] as number) * 3
    if (at < 0) continue
    const x = sums[at] as number
    const y = sums[at + 1] as number
    const z = sums[at + 2] as number
    const length = Math.sqrt(x * x + y * y + z * z) || 1
    normals[i * 3] = x / length
    normals[i * 3 + 1] = y / length
    normals[i * 3 + 2] = z / length
  }
  return flat
}

/** The names of a body's faces, in the order in which its triangles are numbered by them. */
export function facesNamed(body: Body): string[] {
  let names = known.get(body)
  if (!names) known.set(body, (names = [...new Set(body.solid.facets.map((f) => f.name))]))
  return names
}
const known = new WeakMap<Body, string[]>()

/** A part's mesh, from the origin; its ink lines are the edges between triangles that do not lie in one plane, nor bend by less than an arc's facets do. */
export function meshGeometry(key: string, mesh: Mesh, origin: Vec2): Geometry {
  const normals = normalsOf(mesh)
  return {
    key,
    ...flatTriangles(mesh.positions, mesh.triangles, origin, normals),
    ...linesOf(mesh, origin, normals, () => false),
    faceOf: new Uint32Array(),
  }
}

/** cosine of the angle below which two triangles are drawn as one surface: the facets of an arc are not to be seen */
const BEND = Math.cos((9 * Math.PI) / 180)

/** Ink where triangles meet at an angle; contours, with both directions, where they bend softly or belong to one curved face. */
function linesOf(
  { positions: p, triangles }: Mesh,
  [ox, oy]: Vec2,
  normals: Float64Array,
  oneFace: (t: number, other: number) => boolean,
): Pick<Geometry, 'edges' | 'contours'> {
  const twins = twinsOf(triangles, p.length / 3)
  const edges: number[] = []
  const contours: number[] = []
  const point = (to: number[], v: number) =>
    to.push((p[v * 3] as number) - ox, (p[v * 3 + 1] as number) - oy, p[v * 3 + 2] as number)
  const normal = (to: number[], t: number) =>
    to.push(normals[t * 3] as number, normals[t * 3 + 1] as number, normals[t * 3 + 2] as number)
  for (let i = 0; i < triangles.length; i++) {
    const t = Math.floor(i / 3)
    const twin = twins[i] as number
    const other = Math.floor(twin / 3)
    if (twin >= 0 && other < t) continue
    const cos =
      twin < 0
        ? -1
        : (normals[t * 3] as number) * (normals[other * 3] as number) +
          (normals[t * 3 + 1] as number) * (normals[other * 3 + 1] as number) +
          (normals[t * 3 + 2] as number) * (normals[other * 3 + 2] as number)
    if (cos > 1 - 1e-7) continue
    const soft = twin >= 0 && (cos > BEND || oneFace(t, other))
    const to = soft ? contours : edges
    point(to, triangles[i] as number)
    point(to, triangles[i % 3 === 2 ? i - 2 : i + 1] as number)
    if (soft) {
      normal(to, t)
      normal(to, other)
    }
  }
  return { edges: Float32Array.from(edges), contours: Float32Array.from(contours) }
}

/** Several geometries as one. */
export function merged(key: string, all: Geometry[]): Geometry {
  const join = (pick: (g: Geometry) => Float32Array) => {
    const out = new Float32Array(all.reduce((n, g) => n + pick(g).length, 0))
    let at = 0
    for (const g of all) {
      out.set(pick(g), at)
      at += pick(g).length
    }
    return out
  }
  return {
    key,
    positions: join((g) => g.positions),
    normals: join((g) => g.normals),
    edges: join((g) => g.edges),
    contours: join((g) => g.contours),
    faceOf: new Uint32Array(),
  }
}

function flatTriangles(
  p: Float64Array,
  triangles: Uint32Array,
  [ox, oy]: Vec2,
  each: Float64Array,
): { positions: Float32Array; normals: Float32Array } {
  const positions = new Float32Array(triangles.length * 3)
  const normals = new Float32Array(triangles.length * 3)
  for (let i = 0; i < triangles.length; i++) {
    const v = (triangles[i] as number) * 3
    const n = Math.floor(i / 3) * 3
    positions[i * 3] = (p[v] as number) - ox
    positions[i * 3 + 1] = (p[v + 1] as number) - oy
    positions[i * 3 + 2] = p[v + 2] as number
    normals[i * 3] = each[n] as number
    normals[i * 3 + 1] = each[n + 1] as number
    normals[i * 3 + 2] = each[n + 2] as number
  }
  return { positions, normals }
}

/** The direction that each triangle looks in, of length one: three numbers a triangle. */
function normalsOf({ positions: p, triangles }: Mesh): Float64Array {
  const normals = new Float64Array(triangles.length)
  for (let i = 0; i < triangles.length; i += 3) {
    const a = (triangles[i] as number) * 3
    const b = (triangles[i + 1] as number) * 3
    const c = (triangles[i + 2] as number) * 3
    const ux = (p[b] as number) - (p[a] as number)
    const uy = (p[b + 1] as number) - (p[a + 1] as number)
    const uz = (p[b + 2] as number) - (p[a + 2] as number)
    const wx = (p[c] as number) - (p[a] as number)
    const wy = (p[c + 1] as number) - (p[a + 1] as number)
    const wz = (p[c + 2] as number) - (p[a + 2] as number)
    const nx = uy * wz - uz * wy
    const ny = uz * wx - ux * wz
    const nz = ux * wy - uy * wx
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1
    normals[i] = nx / length
    normals[i + 1] = ny / length
    normals[i + 2] = nz / length
  }
  return normals
}
