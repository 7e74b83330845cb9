import { TOLERANCE } from '../values'
import type { Carrier } from './carry'
import type { OpenMesh } from './open-mesh'

/** times its edges' tolerance that a facet may lie off its true form within a face */
const WITHIN_FACES = 25
const ROUNDS = 6

/**
 * Divides edges that are not level until each lies near its true curve: at a side of the form nearer than within it. Only what the last
 * round has divided is looked at again.
 */
export function refine(mesh: OpenMesh, carry: Carrier): void {
  const places: number[] = []
  let looked = 0
  for (let round = 0; round < ROUNDS; round++) {
    const { points, triangles, facetOf } = mesh
    const count = points.length / 3
    while (places.length < points.length) carry(points, places.length, places)
    const halves = halvesOf(mesh, looked, carry, places)
    if (halves.size === 0) return
    const kept = { triangles: triangles.slice(0, looked * 3), facetOf: facetOf.slice(0, looked) }
    const fresh: typeof kept = { triangles: [], facetOf: [] }
    const mid = (a: number, b: number) => halves.get(a < b ? a * count + b : b * count + a)
    for (let t = looked * 3; t < triangles.length; t += 3) {
      const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number]
      const into = putParts(a, b, c, mid(a, b), mid(b, c), mid(c, a), fresh.triangles) ? fresh : kept
      if (into === kept) kept.triangles.push(a, b, c)
      while (into.facetOf.length * 3 < into.triangles.length) into.facetOf.push(facetOf[t / 3] as number)
    }
    looked = kept.facetOf.length
    mesh.triangles = kept.triangles.concat(fresh.triangles)
    mesh.facetOf = kept.facetOf.concat(fresh.facetOf)
  }
}

/** The new corners in the middle of edges of triangles from one on that lie too far off their curve, by edge (lower corner * count + higher). */
function halvesOf(mesh: OpenMesh, from: number, carry: Carrier, places: number[]): Map<number, number> {
  const { points, triangles, facetOf } = mesh
  const count = points.length / 3
  /** by edge: the facet at one side of it; below zero where another facet is at its other side */
  const facetsAt = new Map<number, number>()
  for (let t = from * 3; t < triangles.length; t += 3) {
    const facet = facetOf[t / 3] as number
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[t + k] as number, triangles[t + ((k + 1) % 3)] as number]
      const key = a < b ? a * count + b : b * count + a
      const other = facetsAt.get(key)
      if (other === undefined) facetsAt.set(key, facet)
      else if (other !== facet) facetsAt.set(key, -1)
    }
  }
  const halves = new Map<number, number>()
  const there: number[] = [0, 0, 0]
  for (const [key, facet] of facetsAt) {
    const [a, b] = [Math.floor(key / count) * 3, (key % count) * 3]
    const [za, zb] = [points[a + 2] as number, points[b + 2] as number]
    if (Math.abs(za - zb) < TOLERANCE.height) continue
    const x = ((points[a] as number) + (points[b] as number)) / 2
    const y = ((points[a + 1] as number) + (points[b + 1] as number)) / 2
    carry([x, y, (za + zb) / 2], 0, there)
    const dx = (there[0] as number) - ((places[a] as number) + (places[b] as number)) / 2
    const dy = (there[1] as number) - ((places[a + 1] as number) + (places[b + 1] as number)) / 2
    const may = TOLERANCE.curve * (facet < 0 ? 1.1 : WITHIN_FACES)
    if (dx * dx + dy * dy < may * may) continue
    halves.set(key, points.length / 3)
    points.push(x, y, (za + zb) / 2)
  }
  return halves
}

/** Adds the parts of a triangle that is divided at the middles of some of its edges; false where it has none. */
function putParts(
  a: number,
  b: number,
  c: number,
  ab: number | undefined,
  bc: number | undefined,
  ca: number | undefined,
  into: number[],
): boolean {
  if (ab === undefined && bc === undefined && ca === undefined) return false
  // Turned so that the first edge is divided, and the last is not where one is not.
  if (ab === undefined || (ca !== undefined && bc === undefined))
    return ab === undefined && bc !== undefined
      ? putParts(b, c, a, bc, ca, ab, into)
      : putParts(c, a, b, ca, ab, bc, into)
  if (bc === undefined) into.push(a, ab, c, ab, b, c)
  else if (ca === undefined) into.push(a, ab, c, ab, bc, c, ab, b, bc)
  else into.push(a, ab, ca, ab, b, bc, ca, bc, c, ab, bc, ca)
  return true
}
