import { TOLERANCE } from '../values'
import { similarityAt, type Carry } from './carry'
import { carriedVolume, distinct } from './carried-volume'
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
  splitAt(mesh, distinct(rows))
  if (!isAffine) refine(mesh, by)
  return finished(mesh, solid, by, new Set([z0, z1, ...distinct(fixed)]))
}

/** A mesh that grows; `fresh` are the corners that the body did not have. */
interface Open {
  points: number[]
  triangles: number[]
  facetOf: number[]
  fresh: number
}

const opened = ({ positions, triangles, facetOf }: Solid): Open => ({
  points: Array.from(positions),
  triangles: Array.from(triangles),
  facetOf: Array.from(facetOf),
  fresh: positions.length / 3,
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

/** Divides the triangles that pass through heights (from the lowest up) there: each in bands from one to the next. */
function splitAt(mesh: Open, rows: readonly number[]): void {
  const { points } = mesh
  const made = new Map<string, number>()
  const height = (v: number) => points[v * 3 + 2] as number
  /** the corners at which an edge passes through rows, from its first end on */
  const cuts = (a: number, b: number): number[] => {
    const [low, high] = a < b ? [a, b] : [b, a]
    const [za, zb] = [height(low), height(high)]
    const [least, most] = za < zb ? [za, zb] : [zb, za]
    const found = rows.flatMap((z, r) => {
      if (z <= least + TOLERANCE.height || z >= most - TOLERANCE.height) return []
      const key = `${low}/${high}/${r}`
      let v = made.get(key)
      if (v === undefined) {
        const t = (z - za) / (zb - za)
        const along = (k: number) =>
          (points[low * 3 + k] as number) + t * ((points[high * 3 + k] as number) - (points[low * 3 + k] as number))
        made.set(key, (v = points.length / 3))
        points.push(along(0), along(1), z)
      }
      return [v]
    })
    return height(a) < height(b) ? found : found.reverse()
  }
  const [triangles, facetOf]: [number[], number[]] = [[], []]
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => mesh.triangles[t + k] as number)
    const ring = corners.flatMap((v, k) => [v, ...cuts(v, corners[(k + 1) % 3] as number)])
    const facet = mesh.facetOf[t / 3] as number
    const put = (loop: number[]) => {
      for (let k = 2; k < loop.length; k++) {
        triangles.push(loop[0] as number, loop[k - 1] as number, loop[k] as number)
        facetOf.push(facet)
      }
    }
    if (ring.length === 3) {
      put(ring)
      continue
    }
    const zs = ring.map(height)
    const [least, most] = [Math.min(...zs), Math.max(...zs)]
    const stops = [least, ...rows.filter((z) => z > least + TOLERANCE.height && z < most - TOLERANCE.height), most]
    for (let i = 1; i < stops.length; i++) {
      const [from, to] = [(stops[i - 1] as number) - TOLERANCE.height, (stops[i] as number) + TOLERANCE.height]
      put(ring.filter((_, k) => (zs[k] as number) >= from && (zs[k] as number) <= to))
    }
  }
  mesh.triangles = triangles
  mesh.facetOf = facetOf
}

/** Divides edges that are not level until each lies near its true curve: at a side of the form nearer than within it. */
function refine(mesh: Open, by: Carry): void {
  for (let round = 0; round < 6; round++) {
    const { points, triangles, facetOf } = mesh
    const count = points.length / 3
    const place = Array.from({ length: count }, (_, v) => mapped(by, points, v))
    const key = (a: number, b: number) => (a < b ? a * count + b : b * count + a)
    const facetsAt = new Map<number, number>()
    const isEdge = new Set<number>()
    triangles.forEach((a, i) => {
      const k = key(a, triangles[i % 3 === 2 ? i - 2 : i + 1] as number)
      const facet = facetOf[Math.floor(i / 3)] as number
      const other = facetsAt.get(k)
      if (other === undefined) facetsAt.set(k, facet)
      else if (other !== facet) isEdge.add(k)
    })
    const halves = new Map<number, number>()
    for (const k of facetsAt.keys()) {
      const [a, b] = [Math.floor(k / count), k % count]
      if (Math.abs((points[a * 3 + 2] as number) - (points[b * 3 + 2] as number)) < TOLERANCE.height) continue
      const mid = [0, 1, 2].map((i) => ((points[a * 3 + i] as number) + (points[b * 3 + i] as number)) / 2)
      const [p, q, m] = [place[a] as Vec3, place[b] as Vec3, mapped(by, mid, 0)]
      const off = Math.hypot(m[0] - (p[0] + q[0]) / 2, m[1] - (p[1] + q[1]) / 2)
      if (off < TOLERANCE.curve * (isEdge.has(k) ? 1.1 : 25)) continue
      halves.set(k, points.length / 3)
      points.push(...mid)
    }
    if (halves.size === 0) return
    mesh.triangles = []
    mesh.facetOf = []
    for (let t = 0; t < triangles.length; t += 3) {
      const ring = [0, 1, 2].map((i) => triangles[t + i] as number) as [number, number, number]
      const mids = ring.map((v, i) => halves.get(key(v, ring[(i + 1) % 3] as number)))
      for (const part of partsOf(ring, mids)) {
        mesh.triangles.push(...part)
        mesh.facetOf.push(facetOf[t / 3] as number)
      }
    }
  }
}

/** A triangle divided at the middles of some of its edges. */
function partsOf(ring: [number, number, number], mids: (number | undefined)[]): number[][] {
  const count = mids.filter((m) => m !== undefined).length
  if (count === 0) return [ring]
  // Turned so that the first edge is divided, and the last is not where one is not.
  const first = [0, 1, 2].find((i) => mids[i] !== undefined && (count === 3 || mids[(i + 2) % 3] === undefined)) ?? 0
  const [a, b, c] = [0, 1, 2].map((i) => ring[(first + i) % 3] as number) as [number, number, number]
  const [m, n, o] = [0, 1, 2].map((i) => mids[(first + i) % 3]) as [number, number | undefined, number | undefined]
  if (n === undefined)
    return [
      [a, m, c],
      [m, b, c],
    ]
  if (o === undefined)
    return [
      [a, m, c],
      [m, n, c],
      [m, b, n],
    ]
  return [
    [a, m, o],
    [m, b, n],
    [o, n, c],
    [m, n, o],
  ]
}

function mapped(by: Carry, p: ArrayLike<number>, v: number): Vec3 {
  const z = p[v * 3 + 2] as number
  const [x, y] = similarityAt(by, z).move([p[v * 3] as number, p[v * 3 + 1] as number])
  return [x, y, z]
}

function finished(mesh: Open, before: Solid, by: Carry, fixed: ReadonlySet<number>): Solid {
  const count = mesh.points.length / 3
  const positions = new Float64Array(mesh.points.length)
  for (let v = 0; v < count; v++) positions.set(mapped(by, mesh.points, v), v * 3)
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
    const moved = Array.from({ length: count - mesh.fresh }, (_, k) => k + mesh.fresh).filter(
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
