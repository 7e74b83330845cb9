import { TOLERANCE } from '../values'
import type { Vec2 } from './place'

/** Points and directions in plan; what more a point has (its height) is not looked at. Lengths in m. */
type InPlan = readonly [number, number, ...number[]]

/** The vector from b to a. */
export const minus = (a: InPlan, b: InPlan): Vec2 => [a[0] - b[0], a[1] - b[1]]

/** How far apart two points lie. */
export const gapOf = (a: InPlan, b: InPlan): number => Math.hypot(a[0] - b[0], a[1] - b[1])

/** The direction from a to b, of length 1; [0, 0] where they are one point. */
export function wayOf(a: InPlan, b: InPlan): Vec2 {
  const length = gapOf(a, b) || 1
  return [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
}

/** The area that two directions span, above zero where the second lies to the left of the first. */
export const spanned = (u: InPlan, w: InPlan): number => u[0] * w[1] - u[1] * w[0]

/** The point t times `way` from a. */
export const onLine = (a: InPlan, way: InPlan, t: number): Vec2 => [a[0] + way[0] * t, a[1] + way[1] * t]

/**
 * Where the line through a along u and the one through b along w meet: t times u from a, and s times w from b. Null where they are
 * parallel: where the area that u and w span is less than `parallel`.
 */
export function linesMeet(
  a: InPlan,
  u: InPlan,
  b: InPlan,
  w: InPlan,
  parallel: number = TOLERANCE.zero,
): { t: number; s: number } | null {
  const det = spanned(u, w)
  if (Math.abs(det) < parallel) return null
  const [x, y] = [b[0] - a[0], b[1] - a[1]]
  return { t: (x * w[1] - y * w[0]) / det, s: (x * u[1] - y * u[0]) / det }
}

/** The point where two such lines meet. */
export function meetingOf(a: InPlan, u: InPlan, b: InPlan, w: InPlan, parallel?: number): Vec2 | null {
  const met = linesMeet(a, u, b, w, parallel)
  return met && onLine(a, u, met.t)
}
