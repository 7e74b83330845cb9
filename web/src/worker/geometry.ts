import type { Mesh, Vec2 } from '@geotome/core/solid'
import type { Body } from '@geotome/core/form'
import type { Geometry } from './protocol'

/** A body's triangles with flat normals, the lines where its faces meet at an angle, and those along which a curved face may turn out of sight. */
export function bodyGeometry(key: string, body: Body): Geometry {
  const { solid } = body
  const names = facesNamed(body)
  return {
    key,
    ...softened(solid, flatTriangles(solid.positions, solid.triangles, [0, 0])),
    ...linesOf(
      solid,
      [0, 0],
      (t, other) =>
        solid.facets[solid.facetOf[t] ?? 0]?.surface !== undefined &&
        solid.facets[solid.facetOf[t] ?? 0]?.surface === solid.facets[solid.facetOf[other] ?? 0]?.surface,
    ),
    faceOf: solid.facetOf.map((f) => names.indexOf(solid.facets[f]?.name ?? '')),
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
  const sums = new Map<string, [number, number, number]>()
  const corners: { at: number; sum: [number, number, number] }[] = []
  for (let t = 0; t < facetOf.length; t++) {
    const surface = numberOf(t)
    if (surface < 0) continue
    for (let k = 0; k < 3; k++) {
      const key = `${surface}/${triangles[t * 3 + k]}`
      let sum = sums.get(key)
      if (!sum) sums.set(key, (sum = [0, 0, 0]))
      const at = t * 9 + k * 3
      for (const i of [0, 1, 2] as const) sum[i] += normals[at + i] ?? 0
      corners.push({ at, sum })
    }
  }
  for (const { at, sum } of corners) {
    const length = Math.hypot(...sum) || 1
    normals.set(
      sum.map((c) => c / length),
      at,
    )
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
  return {
    key,
    ...flatTriangles(mesh.positions, mesh.triangles, origin),
    ...linesOf(mesh, origin, () => false),
    faceOf: new Uint32Array(),
  }
}

/** cosine of the angle below which two triangles are drawn as one surface: the facets of an arc are not to be seen */
const BEND = Math.cos((9 * Math.PI) / 180)

/** Ink where triangles meet at an angle; contours, with both directions, where they bend softly or belong to one curved face. */
function linesOf(
  { positions: p, triangles }: Mesh,
  [ox, oy]: Vec2,
  oneFace: (t: number, other: number) => boolean,
): Pick<Geometry, 'edges' | 'contours'> {
  const across = new Map<number, number>()
  const count = p.length / 3
  for (let i = 0; i < triangles.length; i++)
    across.set((triangles[i] ?? 0) * count + (triangles[i % 3 === 2 ? i - 2 : i + 1] ?? 0), Math.floor(i / 3))
  const edges: number[] = []
  const contours: number[] = []
  const normals = new Map<number, [number, number, number]>()
  const normal = (t: number) => {
    let n = normals.get(t)
    if (!n) normals.set(t, (n = normalOf(p, triangles, t)))
    return n
  }
  for (let i = 0; i < triangles.length; i++) {
    const [a, b] = [triangles[i] ?? 0, triangles[i % 3 === 2 ? i - 2 : i + 1] ?? 0]
    const t = Math.floor(i / 3)
    const other = across.get(b * count + a)
    if (other !== undefined && other < t) continue
    const line = [
      (p[a * 3] ?? 0) - ox,
      (p[a * 3 + 1] ?? 0) - oy,
      p[a * 3 + 2] ?? 0,
      (p[b * 3] ?? 0) - ox,
      (p[b * 3 + 1] ?? 0) - oy,
      p[b * 3 + 2] ?? 0,
    ]
    if (other === undefined) {
      edges.push(...line)
      continue
    }
    const [n, m] = [normal(t), normal(other)]
    const cos = n[0] * m[0] + n[1] * m[1] + n[2] * m[2]
    if (cos > 1 - 1e-7) continue
    if (cos > BEND || oneFace(t, other)) contours.push(...line, ...n, ...m)
    else edges.push(...line)
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
): { positions: Float32Array; normals: Float32Array } {
  const positions = new Float32Array(triangles.length * 3)
  const normals = new Float32Array(triangles.length * 3)
  for (let t = 0; t < triangles.length / 3; t++) {
    const n = normalOf(p, triangles, t)
    for (let k = 0; k < 3; k++) {
      const v = (triangles[t * 3 + k] ?? 0) * 3
      positions.set([(p[v] ?? 0) - ox, (p[v + 1] ?? 0) - oy, p[v + 2] ?? 0], t * 9 + k * 3)
      normals.set(n, t * 9 + k * 3)
    }
  }
  return { positions, normals }
}

function normalOf(p: Float64Array, triangles: Uint32Array, t: number): [number, number, number] {
  const [a, b, c] = [0, 1, 2].map((k) => (triangles[t * 3 + k] ?? 0) * 3) as [number, number, number]
  const at = (v: number, i: number) => p[v + i] ?? 0
  const [ux, uy, uz, wx, wy, wz] = [
    at(b, 0) - at(a, 0),
    at(b, 1) - at(a, 1),
    at(b, 2) - at(a, 2),
    at(c, 0) - at(a, 0),
    at(c, 1) - at(a, 1),
    at(c, 2) - at(a, 2),
  ]
  const n: [number, number, number] = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx]
  const length = Math.hypot(...n) || 1
  return [n[0] / length, n[1] / length, n[2] / length]
}
