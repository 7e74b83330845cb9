import { TOLERANCE } from '../values'
import { pieceOfFace } from './face-name'
import type { Facet, Plane, Solid, Vec3 } from './solid'
import type { Surface } from './surfaces'
import { twinsOf } from './twins'

/**
 * One edge loop of a face, counter-clockwise seen from outside for outer loops; `beyond[i]` names the face across the edge from point i to
 * the next.
 */
export interface FaceLoop {
  points: Vec3[]
  beyond: string[]
}

/**
 * A connected face of a body. Pieces of a face that was split are told apart by the faces that border them. A curved one has its
 * true surface, its flat bits, and the plane that lies nearest to all of it.
 */
export interface Face {
  name: string
  plane: Plane
  loops: FaceLoop[]
  area: number
  surface: Surface | null
  flats: Flat[]
}

/** A flat bit of a curved face: its plane and its corners, m. */
export interface Flat {
  plane: Plane
  points: Vec3[]
}

/** The faces of a body, in the order of their first triangle. */
export function facesOf(solid: Solid): Face[] {
  const surfaces = new Map<Surface, number>()
  const key = solid.facets.map((f, i) => {
    if (!f.surface) return i
    const known = surfaces.get(f.surface) ?? i
    surfaces.set(f.surface, known)
    return known
  })
  return named(grouped(solid, key))
}

/** The flat bits of all faces, one for each facet: what is computed exactly of planes. */
export const flatsOf = (solid: Solid): Face[] => grouped(solid, null)

/** The same of some facets alone: what borders on them is not told. */
export function flatsAmong(solid: Solid, which: (facet: Facet) => boolean): Face[] {
  const among = solid.facets.map(which)
  const triangles: number[] = []
  const facetOf: number[] = []
  for (let t = 0; t < solid.facetOf.length; t++) {
    const f = solid.facetOf[t] as number
    if (!among[f]) continue
    facetOf.push(f)
    for (let k = 3 * t; k < 3 * t + 3; k++) triangles.push(solid.triangles[k] as number)
  }
  return flatsOf({ ...solid, triangles: Uint32Array.from(triangles), facetOf: Uint32Array.from(facetOf) })
}

/** Connected triangles of one key: that of their facet, by its number, or else the number itself. */
function grouped(solid: Solid, keyOf: number[] | null): Face[] {
  const { triangles, facets, positions } = solid
  const facetOf = keyOf ? solid.facetOf.map((f) => keyOf[f] as number) : solid.facetOf
  const twins = twinsOf(triangles, positions.length / 3)
  const twin = (i: number) => Math.floor((twins[i] as number) / 3)

  const group = new Int32Array(facetOf.length).fill(-1)
  const groups: number[][] = []
  for (let seed = 0; seed < facetOf.length; seed++) {
    if (group[seed] !== -1) continue
    const members = [seed]
    group[seed] = groups.length
    for (let k = 0; k < members.length; k++)
      for (let e = 0; e < 3; e++) {
        const other = twin((members[k] as number) * 3 + e)
        if (other >= 0 && group[other] === -1 && facetOf[other] === facetOf[seed]) {
          group[other] = groups.length
          members.push(other)
        }
      }
    groups.push(members)
  }

  return groups
    .map((members, g): Face => {
      const facet = facets[facetOf[members[0] as number] as number] as Facet
      const only = members.length === 1 ? members[0] : undefined
      if (only !== undefined) {
        const points = [0, 1, 2].map((e): Vec3 => {
          const v = (triangles[only * 3 + e] as number) * 3
          return [positions[v] as number, positions[v + 1] as number, positions[v + 2] as number]
        })
        const beyond = [0, 1, 2].map((e) => facets[solid.facetOf[twin(only * 3 + e)] ?? -1]?.name ?? '')
        return {
          name: facet.name,
          plane: facet.plane,
          loops: [{ points, beyond }],
          area: areaIn(facet.plane, points),
          surface: facet.surface ?? null,
          flats: [],
        }
      }
      const steps = new Map<number, { to: number; beyond: string }[]>()
      for (const t of members)
        for (let e = 0; e < 3; e++) {
          const other = twin(t * 3 + e)
          if (other >= 0 && group[other] === g) continue
          const from = triangles[t * 3 + e] as number
          const step = {
            to: triangles[after(t * 3 + e)] as number,
            beyond: facets[solid.facetOf[other] as number]?.name ?? '',
          }
          const list = steps.get(from)
          if (list) list.push(step)
          else steps.set(from, [step])
        }
      const loops = chained(steps, positions)
      const inner = members.filter((t) => solid.facetOf[t] !== solid.facetOf[members[0] as number])
      if (!facet.surface || inner.length === 0)
        return {
          name: facet.name,
          plane: facet.plane,
          loops,
          area: loops.reduce((sum, l) => sum + areaIn(facet.plane, l.points), 0),
          surface: facet.surface ?? null,
          flats: [],
        }
      const flats = members.map((t): Flat => ({
        plane: (facets[solid.facetOf[t] as number] as Facet).plane,
        points: [0, 1, 2].map((e) => {
          const v = (triangles[t * 3 + e] as number) * 3
          return [positions[v], positions[v + 1], positions[v + 2]] as Vec3
        }),
      }))
      const areas = flats.map((f) => areaIn(f.plane, f.points))
      return {
        name: facet.name,
        plane: meanPlane(flats, areas),
        loops,
        area: areas.reduce((a, b) => a + b, 0),
        surface: facet.surface,
        flats,
      }
    })
    .filter((face) => face.area > TOLERANCE.point)
}

/** The plane that a curved face lies about: its facets' normals and middles, weighed by their areas. */
function meanPlane(flats: Flat[], areas: number[]): Plane {
  const sum = [0, 1, 2].map((k) => flats.reduce((s, f, i) => s + (f.plane.n[k] as number) * (areas[i] as number), 0))
  const length = Math.hypot(...sum)
  if (length < TOLERANCE.rounding) return (flats[0] as Flat).plane
  const n = sum.map((x) => x / length) as Vec3
  const total = areas.reduce((a, b) => a + b, 0)
  const d =
    flats.reduce(
      (s, f, i) =>
        s +
        (f.points.reduce((t, p) => t + n[0] * p[0] + n[1] * p[1] + n[2] * p[2], 0) / f.points.length) *
          (areas[i] as number),
      0,
    ) / total
  return { n, d }
}

const after = (i: number) => (i % 3 === 2 ? i - 2 : i + 1)

function chained(steps: Map<number, { to: number; beyond: string }[]>, positions: Float64Array): FaceLoop[] {
  const loops: FaceLoop[] = []
  for (const start of steps.keys()) {
    while ((steps.get(start)?.length ?? 0) > 0) {
      const ring: { at: number; beyond: string }[] = []
      let at = start
      for (let step = steps.get(at)?.pop(); step; step = steps.get(at)?.pop()) {
        ring.push({ at, beyond: step.beyond })
        at = step.to
      }
      const point = (v: number): Vec3 => [
        positions[v * 3] as number,
        positions[v * 3 + 1] as number,
        positions[v * 3 + 2] as number,
      ]
      const points = ring.map((r) => point(r.at))
      const kept = ring
        .map((_, i) => i)
        .filter((i) => {
          const before = (i + ring.length - 1) % ring.length
          return (
            ring[i]?.beyond !== ring[before]?.beyond ||
            !straight(points[before] as Vec3, points[i] as Vec3, points[(i + 1) % ring.length] as Vec3)
          )
        })
      if (kept.length >= 3)
        loops.push({ points: kept.map((i) => points[i] as Vec3), beyond: kept.map((i) => ring[i]?.beyond ?? '') })
    }
  }
  return loops
}

/** m2, above zero for loops that run counter-clockwise seen against the plane's normal. */
export function areaIn({ n }: Plane, points: Vec3[]): number {
  const o = points[0] ?? [0, 0, 0]
  let twice = 0
  for (let i = 1; i + 1 < points.length; i++) {
    const [a, b] = [points[i] as Vec3, points[i + 1] as Vec3]
    const [ax, ay, az, bx, by, bz] = [a[0] - o[0], a[1] - o[1], a[2] - o[2], b[0] - o[0], b[1] - o[1], b[2] - o[2]]
    twice += n[0] * (ay * bz - az * by) + n[1] * (az * bx - ax * bz) + n[2] * (ax * by - ay * bx)
  }
  return twice / 2
}

function straight(a: Vec3, p: Vec3, b: Vec3): boolean {
  const [ux, uy, uz, wx, wy, wz] = [p[0] - a[0], p[1] - a[1], p[2] - a[2], b[0] - p[0], b[1] - p[1], b[2] - p[2]]
  const cross = Math.hypot(uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx)
  return (
    cross <= TOLERANCE.fine * Math.hypot(ux, uy, uz) * Math.hypot(wx, wy, wz) + TOLERANCE.zero &&
    ux * wx + uy * wy + uz * wz >= 0
  )
}

function named(faces: Face[]): Face[] {
  const count = new Map<string, number>()
  for (const f of faces) count.set(f.name, (count.get(f.name) ?? 0) + 1)
  return faces.map((f) =>
    (count.get(f.name) ?? 0) > 1
      ? {
          ...f,
          name: pieceOfFace(
            f.name,
            f.loops.flatMap((l) => l.beyond),
          ),
        }
      : f,
  )
}
