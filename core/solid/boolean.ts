import type { Manifold, Mesh } from 'manifold-3d/manifold'
import { Refusal, refuse } from '../values'
import { bodyFault } from './fault'
import { withKernel } from './kernel'
import { crossOf, dotOf } from './plane'
import { volumeOf, type Facet, type Plane, type Solid, type Vec3 } from './solid'
import { TOLERANCE } from './tolerance'

/** The union of two bodies in one frame; every facet of the result keeps its name. */
export const unite = (a: Solid, b: Solid): Solid => combine(a, b, 'union')

/** What two bodies have in common. */
export const intersect = (a: Solid, b: Solid): Solid => combine(a, b, 'intersection')

/** m3 of the union of many bodies in one frame, near the origin. An open body cannot be united: it counts by itself, and is a finding. */
export function unionVolume(solids: Solid[]): number {
  try { return volumeTogether(solids) } catch (e) {
    if (!(e instanceof Refusal)) throw e
    const open = solids.filter((s) => bodyFault(s, 'edges') !== null)
    if (open.length === 0) throw e
    const sound = solids.filter((s) => !open.includes(s))
    return open.reduce((sum, s) => sum + Math.abs(volumeOf(s)), 0) + (sound.length ? volumeTogether(sound) : 0)
  }
}

function volumeTogether(solids: Solid[]): number {
  return withKernel((kernel, own) => {
    const bodies = solids.map((s) => own(toKernel(s, kernel.Mesh, kernel.Manifold, 0)))
    return own(kernel.Manifold.union(bodies)).volume()
  })
}

function combine(a: Solid, b: Solid, how: 'union' | 'intersection'): Solid {
  return withKernel((kernel, own) => {
    const first = own(toKernel(a, kernel.Mesh, kernel.Manifold, 0))
    const second = own(toKernel(b, kernel.Mesh, kernel.Manifold, a.facets.length))
    const result = own(kernel.Manifold[how](first, second))
    if (result.isEmpty()) refuse('geometry', 'Nothing is left of the form.', 'Move the bodies so that they meet.')
    return fromKernel(result, [...a.facets, ...b.facets], [a, b])
  })
}

/** A body in the kernel's memory; the caller owns it. Facets are interned as face ids from `firstFacet` on. */
export function toKernel(solid: Solid, MeshType: new (o: ConstructorParameters<typeof Mesh>[0]) => Mesh, ManifoldType: typeof Manifold, firstFacet: number): Manifold {
  const mesh = new MeshType({
    numProp: 3,
    vertProperties: Float32Array.from(solid.positions),
    triVerts: solid.triangles.slice(),
    faceID: solid.facetOf.map((f) => f + firstFacet),
    runIndex: Uint32Array.of(0, solid.triangles.length),
    runOriginalID: Uint32Array.of(ManifoldType.reserveIDs(1)),
  })
  const open = () => refuse('geometry', 'The form is not a closed body.', 'Change the outline so that it does not touch itself, or keep a body from a file as context.')
  const body = closedBody(ManifoldType, mesh) ?? open()
  if (body.status() !== 'NoError') { body.delete(); open() }
  return body
}

/** null where the kernel finds an edge that has not two triangles. */
function closedBody(ManifoldType: typeof Manifold, mesh: Mesh): Manifold | null {
  try { return ManifoldType.ofMesh(mesh) } catch { return null }
}

/**
 * A body out of the kernel. Its vertices are single precision; each is set back in doubles: to the vertex that it was before, or to
 * where the planes of its facets meet, so that faces stay on the planes of the recipe.
 */
function fromKernel(body: Manifold, facets: Facet[], from: Solid[]): Solid {
  const mesh = body.getMesh()
  const facetOf = Uint32Array.from(mesh.faceID)
  const triangles = Uint32Array.from(mesh.triVerts)
  const around: Set<number>[] = Array.from({ length: mesh.vertProperties.length / mesh.numProp }, () => new Set())
  triangles.forEach((v, i) => around[v]?.add(facetOf[Math.floor(i / 3)] as number))
  const positions = new Float64Array(around.length * 3)
  const known = new Map<string, Vec3>()
  for (const { positions: p } of from) for (let i = 0; i < p.length; i += 3) {
    const exact = [p[i] as number, p[i + 1] as number, p[i + 2] as number] as Vec3
    known.set(exact.map(Math.fround).join(), exact)
  }
  around.forEach((set, v) => {
    const rough: Vec3 = [mesh.vertProperties[v * mesh.numProp] as number, mesh.vertProperties[v * mesh.numProp + 1] as number, mesh.vertProperties[v * mesh.numProp + 2] as number]
    positions.set(known.get(rough.join()) ?? meet(rough, distinct([...set].map((f) => (facets[f] as Facet).plane))), v * 3)
  })
  return { positions, triangles, facetOf, facets }
}

function distinct(planes: Plane[]): Plane[] {
  const kept: Plane[] = []
  for (const plane of planes) if (!kept.some((k) => Math.abs(dotOf(k.n, plane.n)) > 1 - 1e-12)) kept.push(plane)
  return kept
}

/** The point nearest to `rough` that lies on the planes: on three their crossing, on two their line, on one its foot. */
function meet(rough: Vec3, planes: Plane[]): Vec3 {
  let best: [Plane, Plane, Plane] | null = null
  let bestDet = 1e-3
  for (let i = 0; i < planes.length; i++) for (let j = i + 1; j < planes.length; j++) for (let k = j + 1; k < planes.length; k++) {
    const three = [planes[i], planes[j], planes[k]] as [Plane, Plane, Plane]
    const det = Math.abs(dotOf(three[0].n, crossOf(three[1].n, three[2].n)))
    if (det > bestDet) { bestDet = det; best = three }
  }
  let point = rough
  if (best) point = solve(best)
  else for (let round = 0; round < 3; round++) for (const { n, d } of planes.slice(0, 2)) {
    const off = dotOf(n, point) - d
    point = [point[0] - off * n[0], point[1] - off * n[1], point[2] - off * n[2]]
  }
  const moved = Math.hypot(point[0] - rough[0], point[1] - rough[1], point[2] - rough[2])
  return moved < 100 * TOLERANCE.height ? point : rough
}

function solve([a, b, c]: [Plane, Plane, Plane]): Vec3 {
  const [bc, ca, ab] = [crossOf(b.n, c.n), crossOf(c.n, a.n), crossOf(a.n, b.n)]
  const det = dotOf(a.n, bc)
  return [0, 1, 2].map((i) => (a.d * (bc[i] as number) + b.d * (ca[i] as number) + c.d * (ab[i] as number)) / det) as Vec3
}
