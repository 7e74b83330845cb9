import { TOLERANCE } from '../values'
import { bulgeAlong } from './arc'
import type { Vec2 } from './place'
import { gapOf, minus, wayOf } from './vec2'

/** A line of corners (m) and the bulges of the sides behind them. */
export interface BulgedLine {
  points: Vec2[]
  bulges: number[]
}

/**
 * A closed or open line whose `curved` sides are a free curve through their ends: each becomes two arcs, so that the curve is smooth and
 * stays one of arcs (biarcs of equal tangents). In a corner between curved sides it runs as the circle through that corner and its two
 * neighbours does; at the ends of a run so that its first and last side are an arc each.
 */
export function freeCurve(line: BulgedLine, curved: readonly boolean[], closed: boolean): BulgedLine {
  const { points } = line
  const n = points.length
  const sides = closed ? n : n - 1
  const isCurved = (i: number) => (closed || (i >= 0 && i < sides)) && (curved[(i + n) % n] ?? false)
  const at = (i: number) => points[(i + n) % n] as Vec2
  /** the direction at a corner; where a run of curved sides begins or ends, that of a mere arc */
  const wayAt = (i: number): Vec2 | null =>
    isCurved(i - 1) && isCurved(i) ? throughThree(at(i - 1), at(i), at(i + 1)) : null
  const out: BulgedLine = { points: [], bulges: [] }
  for (let i = 0; i < n; i++) {
    out.points.push(at(i))
    if (!isCurved(i)) {
      out.bulges.push(i < sides ? (line.bulges[i] ?? 0) : 0)
      continue
    }
    const [a, b] = [at(i), at(i + 1)]
    const [from, to] = [wayAt(i), wayAt(i + 1)]
    if (!from && !to) {
      out.bulges.push(0)
      continue
    }
    if (!from || !to) {
      out.bulges.push(from ? bulgeAlong(a, from, b) : -bulgeAlong(b, turned(to as Vec2), a))
      continue
    }
    const middle = jointOf(a, from, b, to)
    out.points.push(middle)
    out.bulges.push(bulgeAlong(a, from, middle), -bulgeAlong(b, turned(to), middle))
  }
  return out
}

const turned = ([x, y]: Vec2): Vec2 => [-x, -y]

/** The direction, at the second of three points, of the circle through them (law of sines over their chords). */
function throughThree(p: Vec2, q: Vec2, r: Vec2): Vec2 {
  const [u, w, a, b] = [wayOf(p, q), wayOf(q, r), gapOf(p, q), gapOf(q, r)]
  return wayOf([0, 0], [u[0] * b + w[0] * a, u[1] * b + w[1] * a])
}

/** Where two arcs meet smoothly that leave a along one direction and reach b along another, both as far from it along their tangents. */
function jointOf(a: Vec2, from: Vec2, b: Vec2, to: Vec2): Vec2 {
  const v = minus(b, a)
  const dot = (p: Vec2, q: Vec2) => p[0] * q[0] + p[1] * q[1]
  const along = dot(v, [from[0] + to[0], from[1] + to[1]])
  const apart = 2 * (1 - dot(from, to))
  const square = dot(v, v)
  const d =
    apart < TOLERANCE.rounding
      ? square / (2 * along || 1)
      : (-along + Math.sqrt(along * along + apart * square)) / apart
  return [(a[0] + d * from[0] + b[0] - d * to[0]) / 2, (a[1] + d * from[1] + b[1] - d * to[1]) / 2]
}
