import { refuse, TOLERANCE } from '../values'
import { facesOf } from './faces'
import { rawName } from './face-name'
import { crossOf, dotOf, lessOf, planeThrough } from './plane'
import type { Facet, Solid, Vec3 } from './solid'

/** A mesh of faces with corners, each counter-clockwise seen from outside; it encloses a body, or has borders where faces are open. */
export interface Cage {
  points: Vec3[]
  faces: { name: string; corners: number[] }[]
}

/**
 * The cage that a body's flat faces are; one that was folded when a corner was shifted is one face again, and not
 * flat. Errors: 'geometry' where
 * one is curved, or has a hole.
 */
export function cageOf(solid: Solid, name: string): Cage {
  const points: Vec3[] = []
  const at = new Map<string, number>()
  const indexOf = (p: Vec3): number => {
    const key = p.map((v) => Math.round(v / TOLERANCE.touch)).join()
    const known = at.get(key)
    if (known !== undefined) return known
    at.set(key, points.length)
    points.push(p)
    return points.length - 1
  }
  const faces = facesOf(solid).map((f) => {
    if (f.surface || f.loops.length !== 1)
      refuse(
        'geometry',
        `"${name}" cannot be softened: one of its faces is ${f.surface ? 'curved already' : 'open round a hole'}.`,
        f.surface
          ? 'Soften it before it is twisted or rounded.'
          : 'Split that face, so that none goes all round a hole.',
      )
    return { name: f.name, corners: (f.loops[0]?.points ?? []).map(indexOf) }
  })
  return { points, faces: unfolded(faces.map((f) => ({ ...f, corners: withCornersBetween(f.corners, points) }))) }
}

/** Pieces of one face that border one another are that face again. */
function unfolded(faces: Cage['faces']): Cage['faces'] {
  const groups = new Map<string, Cage['faces']>()
  for (const f of faces) groups.set(rawName(f.name), [...(groups.get(rawName(f.name)) ?? []), f])
  return [...groups].flatMap(([name, pieces]) => {
    if (pieces.length === 1) return pieces
    const next = new Map<number, number>()
    const sides = pieces.flatMap(({ corners }) =>
      corners.map((a, i) => [a, corners[(i + 1) % corners.length] as number]),
    )
    const both = new Set(sides.map(([a, b]) => `${a} ${b}`))
    for (const [a, b] of sides as [number, number][]) if (!both.has(`${b} ${a}`)) next.set(a, b)
    const loops: number[][] = []
    while (next.size) {
      const loop: number[] = []
      for (let v = [...next.keys()][0]; v !== undefined && next.has(v);) {
        loop.push(v)
        const to = next.get(v)
        next.delete(v)
        v = to
      }
      loops.push(loop)
    }
    // Pieces that lie apart stay pieces.
    return loops.length === 1 ? [{ name, corners: loops[0] as number[] }] : pieces
  })
}

/** A loop with the corners of others that lie within its sides: where faces meet, they have the same corners. */
function withCornersBetween(loop: number[], points: readonly Vec3[]): number[] {
  return loop.flatMap((a, i) => {
    const b = loop[(i + 1) % loop.length] as number
    const [p, q] = [points[a] as Vec3, points[b] as Vec3]
    const way = lessOf(q, p)
    const long = Math.hypot(...way)
    const between = points.flatMap((x, k): { k: number; t: number }[] => {
      if (k === a || k === b) return []
      const d = lessOf(x, p)
      const t = dotOf(d, way) / (long * long)
      const off = Math.hypot(...crossOf(d, way)) / long
      return t > TOLERANCE.rounding && t < 1 - TOLERANCE.rounding && off < TOLERANCE.touch ? [{ k, t }] : []
    })
    return [a, ...between.sort((u, v) => u.t - v.t).map((u) => u.k)]
  })
}

/** An edge of a cage by its two corners, whichever comes first. */
const edgeKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`)

interface Edge {
  a: number
  b: number
  faces: number[]
  /** for how many more steps it stays sharp */ sharp: number
}

function edgesOf(cage: Cage, sharpOf: (edge: string, faces: number[]) => number): Map<string, Edge> {
  const edges = new Map<string, Edge>()
  cage.faces.forEach(({ corners }, f) =>
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % corners.length] as number
      const key = edgeKey(a, b)
      const known = edges.get(key)
      if (known) known.faces.push(f)
      else edges.set(key, { a, b, faces: [f], sharp: 0 })
    }),
  )
  for (const [key, edge] of edges) edge.sharp = edge.faces.length < 2 ? Infinity : sharpOf(key, edge.faces)
  return edges
}

const mean = (points: readonly Vec3[]): Vec3 =>
  [0, 1, 2].map((k) => points.reduce((sum, p) => sum + (p[k] as number), 0) / Math.max(1, points.length)) as Vec3
const mix = (a: Vec3, b: Vec3, t: number): Vec3 =>
  [0, 1, 2].map((k) => (a[k] as number) * (1 - t) + (b[k] as number) * t) as Vec3

/**
 * A cage refined by so many steps into quadrilaterals, by the rules of Catmull and Clark (1978), with edges that stay
 * sharp for a while or for
 * ever (DeRose, Kass and Truong 1998). `sharp` says of an edge, by the names of its two faces, for how many steps it
 * does. Borders stay sharp.
 */
export function softened(cage: Cage, steps: number, sharp: (a: string, b: string) => number): Cage {
  let edges = edgesOf(cage, (_, [f, g]) => sharp(nameAt(cage, f), nameAt(cage, g)))
  let now = cage
  for (let step = 0; step < steps; step++) {
    const next = refined(now, edges)
    edges = edgesOf(next.cage, (key) => next.sharp.get(key) ?? 0)
    now = next.cage
  }
  return now
}
const nameAt = (cage: Cage, f: number | undefined): string => cage.faces[f ?? -1]?.name ?? ''

function refined(cage: Cage, edges: Map<string, Edge>): { cage: Cage; sharp: Map<string, number> } {
  const { points: old, faces } = cage
  const at = (i: number) => old[i] as Vec3
  const middles = faces.map((f) => mean(f.corners.map(at)))
  const byCorner = new Map<number, Edge[]>()
  for (const e of edges.values()) for (const v of [e.a, e.b]) byCorner.set(v, [...(byCorner.get(v) ?? []), e])
  const facesAt = new Map<number, number[]>()
  faces.forEach((f, i) => f.corners.forEach((v) => facesAt.set(v, [...(facesAt.get(v) ?? []), i])))
  const corners = old.map((p, v) =>
    movedCorner(
      p,
      byCorner.get(v) ?? [],
      v,
      at,
      (facesAt.get(v) ?? []).map((f) => middles[f] as Vec3),
    ),
  )
  const points: Vec3[] = [...corners, ...middles]
  const edgeAt = new Map<string, number>()
  const sharp = new Map<string, number>()
  for (const [key, e] of edges) {
    const half = mix(at(e.a), at(e.b), 0.5)
    const soft =
      e.faces.length === 2
        ? mix(half, mix(middles[e.faces[0] as number] as Vec3, middles[e.faces[1] as number] as Vec3, 0.5), 0.5)
        : half
    edgeAt.set(key, points.length)
    points.push(mix(soft, half, Math.min(1, e.sharp)))
    if (e.sharp > 1) for (const v of [e.a, e.b]) sharp.set(edgeKey(v, points.length - 1), e.sharp - 1)
  }
  const quads = faces.flatMap(({ name, corners: loop }, f) =>
    loop.map((v, i) => {
      const [next, before] = [
        loop[(i + 1) % loop.length] as number,
        loop[(i - 1 + loop.length) % loop.length] as number,
      ]
      const [e, d] = [edgeAt.get(edgeKey(v, next)) as number, edgeAt.get(edgeKey(before, v)) as number]
      return { name, corners: [v, e, old.length + f, d] }
    }),
  )
  return { cage: { points, faces: quads }, sharp }
}

/** Where a corner goes: by its faces where it is smooth, along its edge where two are sharp, nowhere where more are. */
function movedCorner(p: Vec3, edges: Edge[], v: number, at: (i: number) => Vec3, middles: Vec3[]): Vec3 {
  const other = (e: Edge) => at(e.a === v ? e.b : e.a)
  const n = edges.length
  const halves = mean(edges.map((e) => mix(p, other(e), 0.5)))
  const faces = mean(middles)
  const smooth = [0, 1, 2].map(
    (k) => ((faces[k] as number) + 2 * (halves[k] as number) + (n - 3) * (p[k] as number)) / n,
  ) as Vec3
  const sharps = edges.filter((e) => e.sharp > 0)
  if (sharps.length < 2) return smooth
  const degree = Math.min(1, sharps.reduce((sum, e) => sum + Math.min(1, e.sharp), 0) / sharps.length)
  if (sharps.length > 2) return mix(smooth, p, degree)
  const along = mix(mean(sharps.map(other)), p, 0.75)
  return mix(smooth, along, degree)
}

/** How far (m) the next step would move the corners of a cage at most: what it lies off the surface that it tends to, about. */
export function stillToMove(cage: Cage, sharp: (a: string, b: string) => number): number {
  const next = softened(cage, 1, sharp)
  return cage.points.reduce((most, p, i) => Math.max(most, Math.hypot(...lessOf(next.points[i] as Vec3, p))), 0)
}

/**
 * A cage as a body: each quadrilateral as a fan about its middle, which encloses exactly what its bilinear patch does.
 * Faces keep their names; flat
 * ones stay flat.
 */
export function bodyOfCage(cage: Cage): Solid {
  const positions: number[] = cage.points.flatMap((p) => p)
  const triangles: number[] = []
  const facetOf: number[] = []
  const facets: Facet[] = []
  const surfaces = new Map<string, { kind: 'free' }>()
  const flat = flatNames(cage)
  const flatFacet = new Map<string, number>()
  const put = (a: number, b: number, c: number, name: string) => {
    const [p, q, r] = [a, b, c].map((v) => positions.slice(3 * v, 3 * v + 3) as Vec3) as [Vec3, Vec3, Vec3]
    triangles.push(a, b, c)
    const known = flatFacet.get(name)
    if (known !== undefined) {
      facetOf.push(known)
      return
    }
    const plane = flat.get(name) ?? planeThrough(p, q, r)
    if (flat.has(name)) flatFacet.set(name, facets.length)
    const raw = rawName(name)
    if (!flat.has(name) && !surfaces.has(raw)) surfaces.set(raw, { kind: 'free' })
    const surface = surfaces.get(raw)
    facetOf.push(facets.length)
    facets.push(flat.has(name) || !surface ? { name, plane } : { name, plane, surface })
  }
  for (const { name, corners } of cage.faces) {
    const middle = mean(corners.map((v) => cage.points[v] as Vec3))
    const m = positions.length / 3
    positions.push(...middle)
    corners.forEach((v, i) => put(v, corners[(i + 1) % corners.length] as number, m, name))
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: Uint32Array.from(facetOf),
    facets,
  }
}

/** The planes of those faces of which all bits lie in one. */
function flatNames(cage: Cage): Map<string, Facet['plane']> {
  const by = new Map<string, number[][]>()
  for (const f of cage.faces) by.set(f.name, [...(by.get(f.name) ?? []), f.corners])
  const flat = new Map<string, Facet['plane']>()
  for (const [name, loops] of by) {
    const points = loops.flat().map((v) => cage.points[v] as Vec3)
    const n = loops.reduce<Vec3>(
      (sum, loop) => {
        const [a, b, c, d] = loop.map((v) => cage.points[v] as Vec3) as [Vec3, Vec3, Vec3, Vec3 | undefined]
        const cross = crossOf(lessOf(c, a), lessOf(d ?? b, b))
        const side = d ? cross : crossOf(lessOf(b, a), lessOf(c, a))
        return [sum[0] + side[0], sum[1] + side[1], sum[2] + side[2]]
      },
      [0, 0, 0],
    )
    const long = Math.hypot(...n)
    if (long < TOLERANCE.zero) continue
    const unit = n.map((x) => x / long) as Vec3
    const d = dotOf(unit, points[0] as Vec3)
    if (points.every((p) => Math.abs(dotOf(unit, p) - d) < TOLERANCE.fine)) flat.set(name, { n: unit, d })
  }
  return flat
}

/**
 * A cage with open faces as a closed one: a second skin inside the first, so far (m) from it square to each of its faces, and rims between
 * them, named by `rim`.
 */
export function thickenedCage(cage: Cage, by: number, inside: (name: string) => string, rim: string): Cage {
  const normals = cage.points.map((): Vec3[] => [])
  for (const { corners } of cage.faces)
    corners.forEach((v, i) => {
      const n = corners.length
      const [p, a, b] = [v, corners[(i - 1 + n) % n], corners[(i + 1) % n]].map(
        (k) => cage.points[k as number] as Vec3,
      ) as [Vec3, Vec3, Vec3]
      const cross = crossOf(lessOf(b, p), lessOf(a, p))
      const long = Math.hypot(...cross)
      if (long > TOLERANCE.zero) normals[v]?.push([cross[0] / long, cross[1] / long, cross[2] / long])
    })
  const m = cage.points.length
  const inner = cage.points.map((p, i): Vec3 => {
    const [x, y, z] = insetOf(normals[i] ?? [])
    return [p[0] - x * by, p[1] - y * by, p[2] - z * by]
  })
  const rims = [...edgesOf(cage, () => 0).values()]
    .filter((e) => e.faces.length === 1)
    .map((e) => {
      const loop = cage.faces[e.faces[0] as number]?.corners ?? []
      const i = loop.indexOf(e.a)
      const [a, b] = loop[(i + 1) % loop.length] === e.b ? [e.a, e.b] : [e.b, e.a]
      return { name: rim, corners: [b, a, m + a, m + b] }
    })
  return {
    points: [...cage.points, ...inner],
    faces: [
      ...cage.faces,
      ...cage.faces.map((f) => ({ name: inside(f.name), corners: f.corners.map((v) => v + m).reverse() })),
      ...rims,
    ],
  }
}

/**
 * Where a corner goes that lies one further in, square to each face with these normals: where the planes meet that lie one further in, nearest
 * to the corner where they meet in a line; where they would meet far off, along the mean of the normals.
 */
function insetOf(normals: readonly Vec3[]): Vec3 {
  const mean = normals.reduce((sum, n): Vec3 => [sum[0] + n[0], sum[1] + n[1], sum[2] + n[2]], [0, 0, 0])
  const long = Math.hypot(...mean) || 1
  const along: Vec3 = [mean[0] / long, mean[1] / long, mean[2] / long]
  if (long > normals.length * (1 - TOLERANCE.slope)) return along
  // Least squares of n . x = 1, with a hair that makes it the shortest of several answers.
  const rows = [0, 1, 2].map((r) =>
    [0, 1, 2].map((c) =>
      normals.reduce((sum, n) => sum + (n[r] as number) * (n[c] as number), r === c ? TOLERANCE.fine : 0),
    ),
  ) as [Vec3, Vec3, Vec3]
  const [a, b, c] = rows
  const det = dotOf(a, crossOf(b, c))
  const x = [crossOf(b, c), crossOf(c, a), crossOf(a, b)].reduce(
    (sum, column, k): Vec3 => [
      sum[0] + (column[0] * (mean[k] as number)) / det,
      sum[1] + (column[1] * (mean[k] as number)) / det,
      sum[2] + (column[2] * (mean[k] as number)) / det,
    ],
    [0, 0, 0] as Vec3,
  )
  const length = Math.hypot(...x)
  return length > 0.5 && length < FARTHEST ? x : along
}
/** times the thickness that a corner goes in at most: the corner of a cube goes 1.7 */
const FARTHEST = 4
