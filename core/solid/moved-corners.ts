import { capital, refuse, TOLERANCE } from '../values'
import { faceLabel, rawName } from './face-name'
import { capOf } from './kernel'
import { cornerAt, crossOf, dotOf, planeAxes, planeThrough } from './plane'
import type { Vec2 } from './place'
import type { Facet, Plane, Solid, Vec3 } from './solid'
import { linesMeet, minus } from './vec2'

/** Moves of corners by their numbers, m. */
export type CornerMoves = ReadonlyMap<number, Vec3>

/** The body with corners moved, and which of its faces could not stay flat. */
export interface Moved {
  solid: Solid
  folded: string[]
}

/**
 * The body with some of its corners moved; the faces at them go along and keep their names. A face that stays flat is laid out anew, one
 * that does not is folded along the lines that divide it. Errors: 'geometry' where a face is bent there, or would fold over or cross itself.
 */
export function withCornersMoved(solid: Solid, moves: CornerMoves, name: string): Moved {
  const { triangles, facetOf } = solid
  const positions = Float64Array.from(solid.positions)
  for (const [v, by] of moves)
    for (const k of [0, 1, 2] as const) positions[v * 3 + k] = (positions[v * 3 + k] as number) + by[k]
  const bitsOf = new Map<number, number[]>()
  for (let t = 0; t < facetOf.length; t++) {
    const bits = bitsOf.get(facetOf[t] as number)
    if (bits) bits.push(t)
    else bitsOf.set(facetOf[t] as number, [t])
  }
  const facets = [...solid.facets]
  const laid: number[] = []
  const laidOf: number[] = []
  const lay = (corners: Iterable<number>, facet: number) => {
    for (const v of corners) laid.push(v)
    while (laidOf.length * 3 < laid.length) laidOf.push(facet)
  }
  const folded = new Set<string>()
  for (const [f, bits] of bitsOf) {
    const facet = facets[f] as Facet
    const isMoved = bits.some((t) => [0, 1, 2].some((k) => moves.has(triangles[t * 3 + k] as number)))
    const isIn = isMoved && staysIn(facet, bits, solid, moves)
    if (!isMoved || (isIn && facet.surface)) {
      for (const t of bits) lay(triangles.subarray(t * 3, t * 3 + 3), f)
      continue
    }
    if (facet.surface)
      refuse(
        'geometry',
        `${capital(faceLabel(facet.name))} of "${name}" is curved where it would have to go along.`,
        'Move a face or a corner that only flat faces meet at.',
      )
    const loops = loopsOf(triangles, bits)
    const plane = isIn ? facet.plane : planeOf(loops, positions)
    const isFlat = loops
      .flat()
      .every((v) => Math.abs(dotOf(plane.n, cornerAt(positions, v)) - plane.d) < TOLERANCE.fine)
    if (isFlat) {
      if (dotOf(plane.n, facet.plane.n) <= 0) turnedOver(facet, name)
      const flat = laidIn(plane.n, loops, positions)
      checkLaid(flat, facet, name)
      const corners = loops.flat()
      facets[f] = { ...facet, plane }
      lay(
        capOf(flat).map((i) => corners[i] as number),
        f,
      )
      continue
    }
    folded.add(rawName(facet.name))
    bits.forEach((t, i) => {
      const corners = triangles.subarray(t * 3, t * 3 + 3)
      const [a, b, c] = [...corners].map((v) => cornerAt(positions, v)) as [Vec3, Vec3, Vec3]
      const bit = planeThrough(a, b, c)
      if (dotOf(bit.n, facet.plane.n) <= 0) turnedOver(facet, name)
      const number = i === 0 ? f : facets.length
      facets[number] = { name: facet.name, plane: bit }
      lay(corners, number)
    })
  }
  return {
    solid: { positions, triangles: Uint32Array.from(laid), facetOf: Uint32Array.from(laidOf), facets },
    folded: [...folded],
  }
}

const turnedOver = (facet: Facet, name: string): never =>
  refuse('geometry', `${capital(faceLabel(facet.name))} of "${name}" would be turned over.`, 'Move it by less.')

/** Whether all corners of a facet stay in its plane. */
const staysIn = ({ plane }: Facet, own: number[], { triangles }: Solid, moves: CornerMoves): boolean =>
  own.every((t) =>
    [0, 1, 2].every((k) => {
      const by = moves.get(triangles[t * 3 + k] as number)
      return !by || Math.abs(dotOf(plane.n, by)) < TOLERANCE.rounding
    }),
  )

/** Loops of corner numbers in the plane of a normal, from their first corner. */
function laidIn(n: Vec3, loops: number[][], positions: Float64Array): Vec2[][] {
  const { u, v } = planeAxes(n)
  const [ox, oy, oz] = cornerAt(positions, loops[0]?.[0] ?? 0)
  return loops.map((l) =>
    l.map((c): Vec2 => {
      const [x, y, z] = cornerAt(positions, c)
      const d: Vec3 = [x - ox, y - oy, z - oz]
      return [dotOf(u, d), dotOf(v, d)]
    }),
  )
}

/** Refuses a face whose sides would cross, or that would be turned over in its own plane. */
function checkLaid(laid: Vec2[][], facet: Facet, name: string): void {
  const area = laid.reduce((sum, l) => sum + areaOfLoop(l), 0)
  if (area < TOLERANCE.area * TOLERANCE.least) turnedOver(facet, name)
  const sides = laid.flatMap((l, i) => l.map((a, k) => ({ a, b: l[(k + 1) % l.length] as Vec2, l: i, k, n: l.length })))
  for (const [i, s] of sides.entries())
    for (const o of sides.slice(0, i)) {
      const isNext = s.l === o.l && ((s.k + 1) % s.n === o.k || (o.k + 1) % o.n === s.k)
      if (isNext) continue
      const met = linesMeet(s.a, minus(s.b, s.a), o.a, minus(o.b, o.a))
      if (met && met.t > 0 && met.t < 1 && met.s > 0 && met.s < 1)
        refuse('geometry', `${capital(faceLabel(facet.name))} of "${name}" would cross itself.`, 'Move it by less.')
    }
}

const areaOfLoop = (l: Vec2[]): number =>
  l.reduce((sum, p, i) => {
    const q = l[(i + 1) % l.length] as Vec2
    return sum + (p[0] * q[1] - p[1] * q[0]) / 2
  }, 0)

/** The plane of loops by all their corners (Newell's normal), through their middle. */
function planeOf(loops: number[][], positions: Float64Array): Plane {
  let n: Vec3 = [0, 0, 0]
  const middle: Vec3 = [0, 0, 0]
  const count = loops.reduce((sum, l) => sum + l.length, 0)
  const [ox, oy, oz] = cornerAt(positions, loops[0]?.[0] ?? 0)
  for (const l of loops)
    l.forEach((v, i) => {
      const p = cornerAt(positions, v)
      const q = cornerAt(positions, l[(i + 1) % l.length] as number)
      const c = crossOf([p[0] - ox, p[1] - oy, p[2] - oz], [q[0] - ox, q[1] - oy, q[2] - oz])
      n = [n[0] + c[0], n[1] + c[1], n[2] + c[2]]
      for (const k of [0, 1, 2] as const) middle[k] += p[k] / count
    })
  const long = Math.hypot(...n) || 1
  const unit: Vec3 = [n[0] / long + 0, n[1] / long + 0, n[2] / long + 0]
  return { n: unit, d: dotOf(unit, middle) }
}

/** The closed lines round some triangles, by the numbers of their corners: outer ones run counter-clockwise seen from outside. */
export function loopsOf(triangles: Uint32Array, own: readonly number[]): number[][] {
  const next = new Map<number, number[]>()
  const inner = new Set<string>()
  const step = (t: number, k: number) =>
    [triangles[t * 3 + k] as number, triangles[t * 3 + ((k + 1) % 3)] as number] as const
  for (const t of own) for (const k of [0, 1, 2]) inner.add(step(t, k).join())
  for (const t of own)
    for (const k of [0, 1, 2]) {
      const [a, b] = step(t, k)
      if (inner.has(`${b},${a}`)) continue
      const list = next.get(a)
      if (list) list.push(b)
      else next.set(a, [b])
    }
  const loops: number[][] = []
  for (const start of next.keys())
    while (next.get(start)?.length) {
      const loop: number[] = []
      for (let at = start; ;) {
        const to = next.get(at)?.shift()
        if (to === undefined) break
        loop.push(at)
        at = to
        if (at === start) break
      }
      if (loop.length > 2) loops.push(loop)
    }
  return loops
}

/** The corners that lie on all of some faces (by their names, pieces of a face together): those of a face, an edge or a corner. */
export function cornersOn({ triangles, facetOf, facets }: Solid, faces: readonly string[]): number[] {
  const on = faces.map(() => new Set<number>())
  const raw = faces.map(rawName)
  for (let i = 0; i < triangles.length; i++) {
    const own = rawName(facets[facetOf[Math.floor(i / 3)] as number]?.name ?? '')
    raw.forEach((name, k) => name === own && on[k]?.add(triangles[i] as number))
  }
  const [first, ...rest] = on
  return [...(first ?? [])].filter((v) => rest.every((s) => s.has(v)))
}

/**
 * What moves a flat face parallel to itself by so many m out, while the faces at its corners keep their planes. Errors: 'unknown-id' where
 * there is no such flat face, 'geometry' where three others or more meet at one of its corners, or one goes on in its plane.
 */
export function faceMoves(solid: Solid, face: string, by: number, name: string): Map<number, Vec3> {
  const { triangles, facetOf, facets } = solid
  const isOwn = facets.map((f) => rawName(f.name) === rawName(face) && !f.surface)
  const plane = facets[isOwn.indexOf(true)]?.plane
  const corners = new Set(cornersOn(solid, [face]))
  if (!plane || corners.size === 0)
    return refuse('unknown-id', `"${name}" has no flat face "${faceLabel(face)}" any more.`, 'Choose one of its faces.')
  const others = new Map<number, Vec3[]>()
  for (let i = 0; i < triangles.length; i++) {
    const [v, f] = [triangles[i] as number, facetOf[Math.floor(i / 3)] as number]
    if (!corners.has(v) || isOwn[f]) continue
    const n = facets[f]?.plane.n as Vec3
    const list = others.get(v)
    if (!list) others.set(v, [n])
    else if (!list.some((o) => dotOf(o, n) > 1 - TOLERANCE.zero)) list.push(n)
  }
  return new Map([...corners].map((v) => [v, along(plane.n, by, others.get(v) ?? [], face, name)]))
}

/** The shortest way that leads `by` out along n, and stays in all the other planes. */
function along(n: Vec3, by: number, others: Vec3[], face: string, name: string): Vec3 {
  const held: Vec3[] = []
  const free = (w: Vec3): Vec3 =>
    held.reduce<Vec3>((r, e) => {
      const d = dotOf(r, e)
      return [r[0] - d * e[0], r[1] - d * e[1], r[2] - d * e[2]]
    }, w)
  for (const o of others) {
    const rest = free(o)
    const long = Math.hypot(...rest)
    if (long > TOLERANCE.slope) held.push([rest[0] / long, rest[1] / long, rest[2] / long])
  }
  const way = free(n)
  const square = dotOf(way, way)
  if (square < TOLERANCE.slope)
    return refuse(
      'geometry',
      `${capital(faceLabel(face))} of "${name}" cannot go on: at one of its corners the faces beside it leave no way.`,
      'Move its corners instead, or draw a patch on it.',
    )
  return [(way[0] * by) / square, (way[1] * by) / square, (way[2] * by) / square]
}
