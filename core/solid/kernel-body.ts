import type { CrossSection, Manifold, ManifoldToplevel } from 'manifold-3d/manifold'
import { refuse } from '../values'
import { bodyFault } from './fault'
import { seamsAt, type Seam } from './meet-bodies'
import { crossOf, dotOf } from './plane'
import { volumeOf, type Facet, type Plane, type Solid, type Vec3 } from './solid'
import { TOLERANCE } from '../values'

type Own = <O extends CrossSection | Manifold>(object: O) => O

/**
 * A body in the kernel's memory, in doubles; facets are interned as face ids from `firstFacet` on. Nothing unchecked goes in: the kernel
 * would make a mere sum of a body that is not closed. Errors: 'geometry'.
 */
export function toKernel(solid: Solid, kernel: ManifoldToplevel, own: Own, firstFacet = 0): Manifold {
  const { positions, triangles, facetOf } = solid
  if (!positions.every((c) => Math.abs(c) < FARTHEST))
    refuse(
      'geometry',
      'The form reaches beyond what can be computed.',
      `Keep it within ${FARTHEST / 1000} km of the project's zero.`,
    )
  const fault = bodyFault(solid, 'edges')
  if (fault)
    refuse(
      'geometry',
      `The form is not a closed body, near ${fault.at.map((c) => `${c.toFixed(2)} m`).join(', ')}.`,
      REMEDY,
    )
  if (volumeOf(solid) < 0)
    refuse(
      'geometry',
      'The faces of the form look inwards.',
      'Import it again: bodies are turned outwards as they are read.',
    )
  const rough = Float32Array.from(positions)
  const mesh = new kernel.Mesh({
    numProp: 3,
    vertProperties: rough,
    triVerts: triangles.slice(),
    faceID: facetOf.map((f) => f + firstFacet),
    runIndex: Uint32Array.of(0, triangles.length),
    runOriginalID: Uint32Array.of(kernel.Manifold.reserveIDs(1)),
  })
  const body = own(closedBody(kernel, mesh) ?? refuse('geometry', 'The form is not a closed body.', REMEDY))
  if (body.status() !== 'NoError') refuse('geometry', 'The form is not a closed body.', REMEDY)
  const exact = byPlace(rough, positions)
  const set = own(
    body.warpBatch((verts, count) => {
      for (let v = 0; v < count * 3; v += 3) {
        const p = exact.get(placeKey(verts, v))
        if (p) verts.set(p, v)
      }
    }),
  )
  return set.status() === 'NoError' ? set : refuse('geometry', 'The form is not a closed body.', REMEDY)
}

/** m from the origin of the frame that bodies are computed in */
const FARTHEST = 1e6
const REMEDY = 'Change the outline so that it does not touch itself, or keep a body from a file as context.'

/** null where the kernel finds an edge that has not two triangles. */
function closedBody(kernel: ManifoldToplevel, mesh: InstanceType<ManifoldToplevel['Mesh']>): Manifold | null {
  try {
    return kernel.Manifold.ofMesh(mesh)
  } catch {
    return null
  }
}

/**
 * A body out of the kernel, in doubles. A vertex that was there before goes where `settled` says; a new one where the planes of its facets
 * meet, so that faces stay on the planes of the recipe. What falls together then is one.
 */
export function fromKernel(
  body: Manifold,
  own: Own,
  facets: Facet[],
  from: { body: Solid; settled: Float64Array }[],
  seams: Seam[],
): Solid {
  const mesh = body.getMesh()
  const count = mesh.vertProperties.length / mesh.numProp
  const exact = new Map<string, number[]>()
  own(
    body.warpBatch((verts, n) => {
      for (let v = 0; v < n * 3; v += 3)
        exact.set(placeKey(Float32Array.of(verts[v] ?? 0, verts[v + 1] ?? 0, verts[v + 2] ?? 0), 0), [
          verts[v] ?? 0,
          verts[v + 1] ?? 0,
          verts[v + 2] ?? 0,
        ])
    }),
  ).status()
  const known = from.map(({ body: b, settled }) => byPlace(b.positions, settled))
  const facetOf = Uint32Array.from(mesh.faceID)
  const triangles = Uint32Array.from(mesh.triVerts)
  const around: Set<number>[] = Array.from({ length: count }, () => new Set())
  triangles.forEach((v, i) => around[v]?.add(facetOf[Math.floor(i / 3)] as number))
  const positions = new Float64Array(count * 3)
  around.forEach((set, v) => {
    const read = [0, 1, 2].map((k) => mesh.vertProperties[v * mesh.numProp + k] as number)
    const rough = (exact.get(placeKey(read, 0)) ?? read) as Vec3
    const key = placeKey(rough, 0)
    const old = known.reduce<number[] | undefined>((found, places) => found ?? places.get(key), undefined)
    positions.set(
      old ??
        clean(meet(rough, distinct([...[...set].map((f) => (facets[f] as Facet).plane), ...seamsAt(seams, rough)]))),
      v * 3,
    )
  })
  return withoutNeedles({ positions, triangles, facetOf, facets })
}

/** Without the last digits, in which points that are at one height differ by rounding. */
const clean = (p: Vec3): number[] => p.map((c) => Math.round(c * 1e12) / 1e12 + 0)

const placeKey = (p: ArrayLike<number>, v: number): string => `${p[v]},${p[v + 1]},${p[v + 2]}`

function byPlace(places: ArrayLike<number>, then: Float64Array): Map<string, number[]> {
  const map = new Map<string, number[]>()
  for (let v = 0; v < places.length; v += 3)
    map.set(placeKey(places, v), [then[v] as number, then[v + 1] as number, then[v + 2] as number])
  return map
}

/** Without edges of no length: their two ends become one vertex, and the triangles on both sides go. */
function withoutNeedles(solid: Solid): Solid {
  const { positions: p, triangles, facetOf } = solid
  const same = Uint32Array.from({ length: p.length / 3 }, (_, v) => v)
  const root = (v: number): number => {
    let r = v
    while (same[r] !== r) r = same[r] as number
    return r
  }
  let found = false
  for (let i = 0; i < triangles.length; i++) {
    const [a, b] = [triangles[i] as number, triangles[i % 3 === 2 ? i - 2 : i + 1] as number]
    if (
      a > b ||
      Math.hypot(
        (p[a * 3] as number) - (p[b * 3] as number),
        (p[a * 3 + 1] as number) - (p[b * 3 + 1] as number),
        (p[a * 3 + 2] as number) - (p[b * 3 + 2] as number),
      ) > TOLERANCE.point
    )
      continue
    same[root(b)] = root(a)
    found = true
  }
  if (!found) return solid
  const [kept, facetsKept]: [number[], number[]] = [[], []]
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [root(triangles[t] as number), root(triangles[t + 1] as number), root(triangles[t + 2] as number)]
    if (a === b || b === c || c === a) continue
    kept.push(a, b, c)
    facetsKept.push(facetOf[t / 3] as number)
  }
  const merged = { ...solid, triangles: Uint32Array.from(kept), facetOf: Uint32Array.from(facetsKept) }
  return bodyFault(merged, 'edges') ? solid : merged
}

function distinct(planes: Plane[]): Plane[] {
  const kept: Plane[] = []
  for (const plane of planes)
    if (!kept.some((k) => Math.abs(dotOf(k.n, plane.n)) > 1 - TOLERANCE.zero)) kept.push(plane)
  return kept
}

/** Whether a body is closed and looks outwards: what the kernel would take. */
export const isWhole = (solid: Solid): boolean => bodyFault(solid, 'edges') === null && volumeOf(solid) >= 0

/** The point nearest to `rough` that lies on the planes: on three their crossing, on two their line, on one its foot. */
function meet(rough: Vec3, planes: Plane[]): Vec3 {
  let best: [Plane, Plane, Plane] | null = null
  let bestDet: number = TOLERANCE.least
  for (let i = 0; i < planes.length; i++)
    for (let j = i + 1; j < planes.length; j++)
      for (let k = j + 1; k < planes.length; k++) {
        const three = [planes[i], planes[j], planes[k]] as [Plane, Plane, Plane]
        const det = Math.abs(dotOf(three[0].n, crossOf(three[1].n, three[2].n)))
        if (det > bestDet) {
          bestDet = det
          best = three
        }
      }
  let point = rough
  if (best) point = solve(best)
  else point = onLineOf(planes, rough)
  const moved = Math.hypot(point[0] - rough[0], point[1] - rough[1], point[2] - rough[2])
  return moved < 50 * TOLERANCE.touch ? point : rough
}

/** The foot of a point on the line in which the first two planes meet, at whatever angle; on the plane, where there is one. */
function onLineOf([a, b]: Plane[], p: Vec3): Vec3 {
  if (!a) return p
  const off = a.d - dotOf(a.n, p)
  if (!b) return [p[0] + off * a.n[0], p[1] + off * a.n[1], p[2] + off * a.n[2]]
  const other = b.d - dotOf(b.n, p)
  const c = dotOf(a.n, b.n)
  const [s, t] = [(off - c * other) / (1 - c * c), (other - c * off) / (1 - c * c)]
  return [0, 1, 2].map((k) => (p[k] as number) + s * (a.n[k] as number) + t * (b.n[k] as number)) as Vec3
}

function solve([a, b, c]: [Plane, Plane, Plane]): Vec3 {
  const [bc, ca, ab] = [crossOf(b.n, c.n), crossOf(c.n, a.n), crossOf(a.n, b.n)]
  const det = dotOf(a.n, bc)
  return [0, 1, 2].map(
    (i) => (a.d * (bc[i] as number) + b.d * (ca[i] as number) + c.d * (ab[i] as number)) / det,
  ) as Vec3
}
