import { TOLERANCE } from '../values'
import { carrierOf, similarityAt, type Carrier, type Carry } from './carry'
import { carriedVolume, distinct } from './carried-volume'
import { divideAtRows, type OpenMesh } from './open-mesh'
import { refine } from './refined-mesh'
import type { Vec2 } from './place'
import { cornerAt, crossOf, dotOf, lessOf, planeThrough } from './plane'
import { boxOf, volumeOf, type Facet, type Plane, type Solid, type Vec3 } from './solid'
import { isRuled, type Surface } from './surfaces'

/**
 * A body whose level cuts are carried by their height. What stays flat is one facet as before; the rest is divided into facets that lie
 * near the true form (`TOLERANCE.curve` along edges that turn, 25 times as much within a face), with rows at the given heights (m, the
 * storeys), where its cut is exact. What lies between the rows is set a hair outwards, so that its volume is exact too.
 */
export function carryBody(solid: Solid, by: Carry, storeys: readonly number[] = []): Solid {
  const { z0, z1 } = boxOf(solid.positions)
  const isWithin = (z: number) => z > z0 + TOLERANCE.height && z < z1 - TOLERANCE.height
  const breaks = by.ranges.flat().filter(isWithin)
  const isAffine = by.turn === 0 && by.scale === 1 && !by.bows
  const fixed = isAffine ? breaks : [...breaks, ...storeys.filter(isWithin)]
  const rows = isAffine ? fixed : rowsBetween([z0, ...fixed, z1], solid, by)
  const mesh = opened(solid)
  const carry = carrierOf(by)
  divideAtRows(mesh, distinct(rows))
  if (!isAffine) refine(mesh, carry)
  return finished(mesh, solid, by, carry, new Set([z0, z1, ...distinct(fixed)]))
}

const opened = ({ positions, triangles, facetOf }: Solid): OpenMesh => ({
  points: Array.from(positions),
  triangles: Array.from(triangles),
  facetOf: Array.from(facetOf),
})

/** The heights of rows, so close that an upright edge between two of them lies near its true curve. */
function rowsBetween(ends: number[], solid: Solid, by: Carry): number[] {
  const p = solid.positions
  let radius = 0.01
  for (let i = 0; i < p.length; i += 3)
    radius = Math.max(radius, Math.hypot((p[i] as number) - by.x, (p[i + 1] as number) - by.y))
  const turnStep = Math.sqrt((8 * TOLERANCE.curve) / (radius * Math.max(1, by.scale)))
  const high = by.ranges.reduce((sum, [from, to]) => sum + to - from, 0)
  const bowRadius = by.bows ? high / Math.max(TOLERANCE.zero, Math.sin((Math.abs(by.bend) * Math.PI) / 180)) : Infinity
  const bowStep = Math.sqrt(8 * TOLERANCE.curve * bowRadius * Math.cos((by.bend * Math.PI) / 180) ** 3)
  const zs = distinct(ends)
  return zs.flatMap((z, i) => {
    const next = zs[i + 1]
    if (next === undefined) return [z]
    const turn = Math.abs(similarityAt(by, next).turn - similarityAt(by, z).turn)
    const isStill = by.ranges.every(([from, to]) => to <= z + TOLERANCE.height || from >= next - TOLERANCE.height)
    const count = isStill
      ? 1
      : Math.max(by.turn === 0 ? 1 : 2, Math.ceil(turn / turnStep), by.bows ? Math.ceil((next - z) / bowStep) : 1)
    return Array.from({ length: count }, (_, k) => z + ((next - z) * k) / count)
  })
}

function finished(mesh: OpenMesh, before: Solid, by: Carry, carry: Carrier, fixed: ReadonlySet<number>): Solid {
  const [count, fresh] = [mesh.points.length / 3, before.positions.length / 3]
  const positions = new Float64Array(mesh.points.length)
  for (let v = 0; v < count; v++) carry(mesh.points, v * 3, positions)
  const members = new Map<number, number[]>()
  mesh.facetOf.forEach((f, t) => {
    const list = members.get(f)
    if (list) list.push(t)
    else members.set(f, [t])
  })
  const facets: Facet[] = []
  const facetOf = new Uint32Array(mesh.facetOf.length)
  const surfaces = new Map<Surface | number, Surface>()
  const isCurved = new Uint8Array(count)
  const isFlat = new Uint8Array(count)
  const corners = (t: number) => [0, 1, 2].map((k) => mesh.triangles[t * 3 + k] as number)
  for (const [f, list] of members) {
    const { name, surface: under } = before.facets[f] as Facet
    const plane = under ? null : flatPlane(positions, list.flatMap(corners))
    if (plane) {
      facets.push({ name, plane })
      for (const t of list) {
        facetOf[t] = facets.length - 1
        for (const v of corners(t)) isFlat[v] = 1
      }
      continue
    }
    const key = under ?? f
    const surface: Surface = surfaces.get(key) ?? {
      kind: 'carried',
      under: under ?? null,
      by,
      ruled: under === undefined || isRuled(under),
    }
    surfaces.set(key, surface)
    for (const t of list) {
      facets.push({ name, plane: { n: [0, 0, 1], d: 0 }, surface })
      facetOf[t] = facets.length - 1
      for (const v of corners(t)) isCurved[v] = 1
    }
  }
  const body: Solid = { positions, triangles: Uint32Array.from(mesh.triangles), facetOf, facets }
  if (by.turn !== 0 || by.scale !== 1) {
    const moved = Array.from({ length: count - fresh }, (_, k) => k + fresh).filter(
      (v) => isCurved[v] === 1 && isFlat[v] === 0 && !fixed.has(positions[v * 3 + 2] as number),
    )
    setOut(body, by, moved, carriedVolume(before, by))
  }
  for (let t = 0; t < facetOf.length; t++) {
    const facet = facets[facetOf[t] as number] as Facet
    if (!facet.surface) continue
    const [a, b, c] = corners(t).map((v) => cornerAt(positions, v)) as [Vec3, Vec3, Vec3]
    facet.plane = planeThrough(a, b, c)
  }
  return body
}

/** The plane that corners lie on, looking the way of their triangles; null where they do not lie on one. */
function flatPlane(p: Float64Array, corners: number[]): Plane | null {
  let [n, size]: [Vec3, number] = [[0, 0, 1], 0]
  const at = (v: number) => cornerAt(p, v)
  for (let i = 0; i < corners.length; i += 3) {
    const [a, b, c] = [at(corners[i] as number), at(corners[i + 1] as number), at(corners[i + 2] as number)]
    const cross = crossOf(lessOf(b, a), lessOf(c, a))
    const length = Math.hypot(...cross)
    if (length > size) [n, size] = [[cross[0] / length + 0, cross[1] / length + 0, cross[2] / length + 0], length]
  }
  const offs = corners.map((v) => dotOf(n, at(v)))
  const d = offs.reduce((sum, o) => sum + o, 0) / offs.length
  return offs.every((o) => Math.abs(o - d) < TOLERANCE.fine) ? { n, d } : null
}

/** Moves corners away from the axis by one factor, so that the body has its volume (m3): by the secant method. */
function setOut(body: Solid, by: Carry, moved: readonly number[], want: number): void {
  const p = body.positions
  const plain = p.slice()
  const axis = moved.map((v): Vec2 => similarityAt(by, p[v * 3 + 2] as number).move([by.x, by.y]))
  const off = (g: number): number => {
    moved.forEach((v, i) => {
      const [x, y] = axis[i] as Vec2
      p[v * 3] = x + ((plain[v * 3] as number) - x) * (1 + g)
      p[v * 3 + 1] = y + ((plain[v * 3 + 1] as number) - y) * (1 + g)
    })
    return volumeOf(body) - want
  }
  let [g0, v0] = [0, off(0)]
  let [g1, v1]: [number, number] = [TOLERANCE.touch, off(TOLERANCE.touch)]
  for (let k = 0; k < 6 && Math.abs(v1) > TOLERANCE.zero * want && v1 !== v0; k++) {
    const g2 = g1 - (v1 * (g1 - g0)) / (v1 - v0)
    ;[g0, v0] = [g1, v1]
    ;[g1, v1] = [g2, off(g2)]
  }
  // Where too little can be moved for it, the form stays as it lies on its true surface.
  if (!(Math.abs(g1) < TOLERANCE.least * 50)) p.set(plain)
}
