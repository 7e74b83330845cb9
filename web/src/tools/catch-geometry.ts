import { gapOf, TOLERANCE, linesMeet, minus, onLine, type Arc, type Vec2 } from '@geotome/core/solid'

/** An edge of what is there already, m: a straight side, or an arc. */
export type CatchEdge = (
  | { kind: 'side'; a: Vec2; b: Vec2; /** what it is called, where it is a line without ends */ word?: string }
  | { kind: 'arc'; arc: Arc }
) & {
  /** whose it is: said of its corners */ of?: string
  /** what it is called there: said of the side */ named?: string
}

/** A point without the last digits of its computation. */
export const clean = ([x, y]: Vec2): Vec2 => [Math.round(x * 1e6) / 1e6, Math.round(y * 1e6) / 1e6]

export function meetings(e: CatchEdge, f: CatchEdge): Vec2[] {
  if (e.kind === 'side' && f.kind === 'side') {
    const way = minus(e.b, e.a)
    const met = linesMeet(e.a, way, f.a, minus(f.b, f.a), TOLERANCE.rounding)
    return met && met.t >= 0 && met.t <= 1 && met.s >= 0 && met.s <= 1 ? [onLine(e.a, way, met.t)] : []
  }
  if (e.kind === 'arc' && f.kind === 'arc') return []
  const [side, arc] =
    e.kind === 'side' && f.kind === 'arc'
      ? [e, f.arc]
      : f.kind === 'side' && e.kind === 'arc'
        ? [f, e.arc]
        : [null, null]
  if (!side || !arc) return []
  const length = gapOf(side.a, side.b) || 1
  const d: Vec2 = [(side.b[0] - side.a[0]) / length, (side.b[1] - side.a[1]) / length]
  const [px, py] = [side.a[0] - arc.x, side.a[1] - arc.y]
  const b = px * d[0] + py * d[1]
  const root = b * b - (px * px + py * py - arc.r * arc.r)
  if (root < 0) return []
  return [-b - Math.sqrt(root), -b + Math.sqrt(root)]
    .filter((t) => t >= 0 && t <= length)
    .map((t): Vec2 => [side.a[0] + d[0] * t, side.a[1] + d[1] * t])
    .filter((p) => onSweep(arc, p))
}

export function projected(from: Vec2, direction: Vec2, p: Vec2): Vec2 {
  const t = (p[0] - from[0]) * direction[0] + (p[1] - from[1]) * direction[1]
  return [from[0] + direction[0] * t, from[1] + direction[1] * t]
}

export function onSweep(arc: Arc, p: Vec2): boolean {
  const turn = (Math.atan2(p[1] - arc.y, p[0] - arc.x) - arc.from) * Math.sign(arc.sweep)
  const whole = 2 * Math.PI
  return ((turn % whole) + whole) % whole <= Math.abs(arc.sweep) + 1e-9
}

/** The point of an edge that lies nearest to p, where p lies beside it. */
export function footOn(edge: CatchEdge, p: Vec2): Vec2 | null {
  if (edge.kind === 'arc') {
    const { arc } = edge
    const a = Math.atan2(p[1] - arc.y, p[0] - arc.x)
    const foot: Vec2 = [arc.x + arc.r * Math.cos(a), arc.y + arc.r * Math.sin(a)]
    return onSweep(arc, foot) ? foot : null
  }
  const length = gapOf(edge.a, edge.b)
  if (length < 1e-6) return null
  const foot = projected(edge.a, [(edge.b[0] - edge.a[0]) / length, (edge.b[1] - edge.a[1]) / length], p)
  return gapOf(edge.a, foot) <= length && gapOf(edge.b, foot) <= length ? foot : null
}

export function alongStride(a: Vec2, b: Vec2, foot: Vec2, stride: number): Vec2 {
  const length = gapOf(a, b)
  const t = Math.min(length, Math.round(gapOf(a, foot) / stride) * stride) / length
  return clean([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t])
}
