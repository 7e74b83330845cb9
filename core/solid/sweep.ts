import { TOLERANCE } from '../values'
import type { Arc } from './arc'
import type { Vec2 } from './place'
import { loopArea } from './solid'
import { turnAt, type Twist } from './surfaces'

/**
 * A closed line in plan as points (m): per segment from a point to the next the name of the edge it belongs to, and the arc it is a
 * facet of. Outer loops run counter-clockwise, holes clockwise.
 */
export interface Outline {
  points: Vec2[]
  edges: string[]
  arcs: (Arc | null)[]
}

/**
 * An outline carried up: straight lines lead from the points of `low` at z0 to those of `high` at z1, and the whole turns about an
 * upright axis meanwhile. The loops of both have the same points and names, in the same order.
 */
export interface Sweep {
  low: Outline[]
  high: Outline[]
  z0: number
  z1: number
  twist: Twist | null
}

export interface SweepNames {
  base: string
  top: string
  side(edge: string): string
}

/** m2 of the cut at a height (m): a parabola over the height. */
export function sweptArea({ low, high, z0, z1 }: Sweep, z: number): number {
  const t = (z - z0) / (z1 - z0)
  return low.reduce(
    (sum, loop, l) => sum + loopArea(loop.points.map((p, i) => between(p, high[l]?.points[i] ?? p, t))),
    0,
  )
}

/** m3 of the sweep between two heights (m), all of it if none are given: by Simpson's rule, which is exact for a parabola. */
export function sweptVolume(sweep: Sweep, from = sweep.z0, to = sweep.z1): number {
  const area = (z: number) => sweptArea(sweep, z)
  return ((to - from) / 6) * (area(from) + 4 * area((from + to) / 2) + area(to))
}

/** Whether all of its high end is one point (m). */
export const endsInPoint = ({ high }: Sweep): boolean => {
  const [x, y] = high[0]?.points[0] ?? [0, 0]
  return high.every((l) => l.points.every((p) => Math.hypot(p[0] - x, p[1] - y) < TOLERANCE.point))
}

/** The outline of a sweep at a height (m), without its names. */
export function sweptAt(sweep: Sweep, z: number): Vec2[][] {
  const t = (z - sweep.z0) / (sweep.z1 - sweep.z0)
  return sweep.low.map((loop, l) =>
    loop.points.map((p, i) => turned(sweep.twist, between(p, sweep.high[l]?.points[i] ?? p, t), z)),
  )
}

/** The same with its names; arcs stay arcs where it is upright or turned, and nothing else. */
export function outlinesAt(sweep: Sweep, z: number): Outline[] {
  const loops = sweptAt(sweep, z)
  const { twist } = sweep
  const a = twist ? turnAt(twist, z) : 0
  const moved = new Map<Arc, Arc>()
  return sweep.low.map((line, l) => ({
    points: loops[l] ?? line.points,
    edges: line.edges,
    arcs: line.arcs.map((arc) => {
      if (!arc || sweep.low !== sweep.high) return null
      const known = moved.get(arc)
      if (known) return known
      const [x, y] = turned(twist, [arc.x, arc.y], z)
      const next = { ...arc, x, y, from: arc.from + a }
      moved.set(arc, next)
      return next
    }),
  }))
}

const between = (a: Vec2, b: Vec2, t: number): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]

function turned(twist: Twist | null, [x, y]: Vec2, z: number): Vec2 {
  if (!twist) return [x, y]
  const a = turnAt(twist, z)
  const [c, s] = [Math.cos(a), Math.sin(a)]
  return [twist.x + c * (x - twist.x) - s * (y - twist.y), twist.y + s * (x - twist.x) + c * (y - twist.y)]
}

/** A loop's points and edges, below and above. */
export interface DividedLoop {
  low: Vec2[]
  high: Vec2[]
  edges: string[]
  arcsLow: (Arc | null)[]
  arcsHigh: (Arc | null)[]
}

/** A loop with its straight segments divided, below and above alike. */
export function divided(low: Outline, high: Outline, parts: number): DividedLoop {
  const out: DividedLoop = { low: [], high: [], edges: [], arcsLow: [], arcsHigh: [] }
  low.points.forEach((p, i) => {
    const [q, j] = [high.points[i] as Vec2, (i + 1) % low.points.length]
    const steps = low.arcs[i] ? 1 : parts
    for (let k = 0; k < steps; k++) {
      out.low.push(between(p, low.points[j] as Vec2, k / steps))
      out.high.push(between(q, high.points[j] as Vec2, k / steps))
      out.edges.push(low.edges[i] ?? '')
      out.arcsLow.push(low.arcs[i] ?? null)
      out.arcsHigh.push(high.arcs[i] ?? null)
    }
  })
  return out
}
