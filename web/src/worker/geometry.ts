import { facesOf, type Mesh, type Solid, type Vec2 } from '@geotome/core/solid'
import type { Body } from '@geotome/core/form'
import type { Geometry } from './protocol'

/** A body's triangles with flat normals, and the lines where its faces meet at an angle. */
export function bodyGeometry(key: string, body: Body): Geometry {
  const { solid } = body
  const planes = new Map(body.faces().map((f) => [f.name.split('~')[0] ?? '', f.plane.n]))
  const edges: number[] = []
  for (const face of body.faces()) for (const loop of face.loops) loop.points.forEach((a, i) => {
    const b = loop.points[(i + 1) % loop.points.length] ?? a
    const other = planes.get((loop.beyond[i] ?? '').split('~')[0] ?? '')
    const flat = other && other[0] * face.plane.n[0] + other[1] * face.plane.n[1] + other[2] * face.plane.n[2] > 0.9999
    // Each line belongs to two faces; the one named first draws it.
    if (!flat && face.name < (loop.beyond[i] ?? '')) edges.push(...a, ...b)
  })
  return { key, ...flatTriangles(solid.positions, solid.triangles, [0, 0]), edges: Float32Array.from(edges) }
}

/** A part's mesh, from the origin; its ink lines are the edges between triangles that do not lie in one plane. */
export function meshGeometry(key: string, mesh: Mesh, origin: Vec2): Geometry {
  const facets = new Map<string, number>()
  const normals: [number, number, number][] = []
  const facetOf = new Uint32Array(mesh.triangles.length / 3)
  for (let t = 0; t < facetOf.length; t++) {
    const n = normalOf(mesh.positions, mesh.triangles, t)
    const a = (mesh.triangles[t * 3] ?? 0) * 3
    const d = n[0] * ((mesh.positions[a] ?? 0) - origin[0]) + n[1] * ((mesh.positions[a + 1] ?? 0) - origin[1]) + n[2] * (mesh.positions[a + 2] ?? 0)
    const name = [...n.map((c) => Math.round(c * 1000)), Math.round(d * 200)].join(',')
    let f = facets.get(name)
    if (f === undefined) { facets.set(name, f = normals.length); normals.push(n) }
    facetOf[t] = f
  }
  const solid: Solid = { ...mesh, facetOf, facets: normals.map((n, i) => ({ name: String(i), plane: { n, d: 0 } })) }
  const edges: number[] = []
  for (const face of facesOf(solid)) for (const loop of face.loops) loop.points.forEach((a, i) => {
    const b = loop.points[(i + 1) % loop.points.length] ?? a
    if (Number(face.name.split('~')[0]) < Number(loop.beyond[i])) edges.push(a[0] - origin[0], a[1] - origin[1], a[2], b[0] - origin[0], b[1] - origin[1], b[2])
  })
  return { key, ...flatTriangles(mesh.positions, mesh.triangles, origin), edges: Float32Array.from(edges) }
}

/** Several geometries as one. */
export function merged(key: string, all: Geometry[]): Geometry {
  const join = (pick: (g: Geometry) => Float32Array) => {
    const out = new Float32Array(all.reduce((n, g) => n + pick(g).length, 0))
    let at = 0
    for (const g of all) { out.set(pick(g), at); at += pick(g).length }
    return out
  }
  return { key, positions: join((g) => g.positions), normals: join((g) => g.normals), edges: join((g) => g.edges) }
}

function flatTriangles(p: Float64Array, triangles: Uint32Array, [ox, oy]: Vec2): { positions: Float32Array; normals: Float32Array } {
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
  const [ux, uy, uz, wx, wy, wz] = [at(b, 0) - at(a, 0), at(b, 1) - at(a, 1), at(b, 2) - at(a, 2), at(c, 0) - at(a, 0), at(c, 1) - at(a, 1), at(c, 2) - at(a, 2)]
  const n: [number, number, number] = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx]
  const length = Math.hypot(...n) || 1
  return [n[0] / length, n[1] / length, n[2] / length]
}
