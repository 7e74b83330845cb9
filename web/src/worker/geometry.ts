import type { Mesh, Vec2 } from '@geotome/core/solid'
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
  const sums = new Map<number, [number, number, number]>()
  const corners: { at: number; sum: [number, number, number] }[] = []
  const most = triangles.reduce((top, v) => Math.max(top, v), 0) + 1
  for (let t = 0; t < facetOf.length; t++) {
    const surface = numberOf(t)
    if (surface < 0) continue
    for (let k = 0; k < 3; k++) {
      const key = surface * most + (triangles[t * 3 + k] as number)
      let sum = sums.get(key)
      if (!sum) sums.set(key, (sum = [0, 0, 0]))
      const at = t * 9 + k * 3
      for (const i of [0, 1, 2] as const) sum[i] += normals[at + i] ?? 0
      corners.push({ at, sum })
    }
  }
  for (const { at, sum } of corners) {
    const length = Math.hypot(...sum) || 1
    for (const i of [0, 1, 2] as const) normals[at + i] = sum[i] / length
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
  const across = new Map<number, number>()
  const count = p.length / 3
  const endOf = (i: number) => triangles[i % 3 === 2 ? i - 2 : i + 1] as number
  for (let i = 0; i < triangles.length; i++) across.set((triangles[i] as number) * count + endOf(i), Math.floor(i / 3))
  const edges: number[] = []
  const contours: number[] = []
  const point = (to: number[], v: number) =>
    to.push((p[v * 3] as number) - ox, (p[v * 3 + 1] as number) - oy, p[v * 3 + 2] as number)
  const normal = (to: number[], t: number) =>
    to.push(normals[t * 3] as number, normals[t * 3 + 1] as number, normals[t * 3 + 2] as number)
  for (let i = 0; i < triangles.length; i++) {
    const [a, b] = [triangles[i] as number, endOf(i)]
    const t = Math.floor(i / 3)
    const other = across.get(b * count + a)
    if (other !== undefined && other < t) continue
    const cos =
      other === undefined
        ? -1
        : (normals[t * 3] as number) * (normals[other * 3] as number) +
          (normals[t * 3 + 1] as number) * (normals[other * 3 + 1] as number) +
          (normals[t * 3 + 2] as number) * (normals[other * 3 + 2] as number)
    if (cos > 1 - 1e-7) continue
    const soft = other !== undefined && (cos > BEND || oneFace(t, other))
    const to = soft ? contours : edges
    point(to, a)
    point(to, b)
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
    const [a, b, c] = [(triangles[i] as number) * 3, (triangles[i + 1] as number) * 3, (triangles[i + 2] as number) * 3]
    const [x, y, z] = [p[a] as number, p[a + 1] as number, p[a + 2] as number]
    const [ux, uy, uz] = [(p[b] as number) - x, (p[b + 1] as number) - y, (p[b + 2] as number) - z]
    const [wx, wy, wz] = [(p[c] as number) - x, (p[c + 1] as number) - y, (p[c + 2] as number) - z]
    const [nx, ny, nz] = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx]
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1
    normals[i] = nx / length
    normals[i + 1] = ny / length
    normals[i + 2] = nz / length
  }
  return normals
}
