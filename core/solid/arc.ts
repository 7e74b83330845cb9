import { gapOf } from './vec2'
import { TOLERANCE } from '../values'
import type { Vec2 } from './place'

/**
 * An arc of a circle in plan: centre and radius in metres, from an angle over a sweep (radians; above zero counter-clockwise),
 * drawn in `n` facets. A sweep of a whole turn is a circle.
 */
export interface Arc {
  x: number
  y: number
  r: number
  from: number
  sweep: number
  n: number
}

const WHOLE = 2 * Math.PI
/** Returns true when an arc goes all round. */
export const isCircle = (arc: Pick<Arc, 'sweep'>): boolean => Math.abs(Math.abs(arc.sweep) - WHOLE) < TOLERANCE.rounding

/** A whole circle of 20 km has as many within the tolerance of curves; larger ones are no building's. */
const MOST_FACETS = 8192

/** How many facets keep an arc within the tolerance of curves: equal-area facets lie off it by r * step^2 / 12 at most. */
export function facetsFor(r: number, sweep: number): number {
  const step = Math.sqrt((12 * TOLERANCE.curve) / Math.max(r, 0.01))
  const [whole, turn] = [isCircle({ sweep }), Math.abs(sweep)]
  const n = 4 * Math.ceil(Math.min(MOST_FACETS, Math.max(whole ? 24 : 4, turn / step)) / 4)
  // The ends of an arc lie on it, so that the few points between lie farther off for all of them.
  const off = whole ? 0 : ((r * (turn / n) ** 2) / 12) * (n / (n - 1))
  return off > TOLERANCE.curve ? n + 4 : n
}

/**
 * The arc's facets as points, its two ends included (a circle's first point is not repeated). The points between lie a hair off the
 * circle, so that the facets enclose exactly the arc's area: areas and volumes of faceted forms are those of the true ones.
 */
export function arcPoints(arc: Arc): Vec2[] {
  const { x, y, n, from, sweep } = arc
  const factor = equalAreaFactor(sweep, n)
  const last = isCircle(arc) ? n - 1 : n
  return Array.from({ length: last + 1 }, (_, i): Vec2 => {
    const r = arc.r * (!isCircle(arc) && (i === 0 || i === n) ? 1 : factor)
    const a = from + (sweep * i) / n
    return [x + r * Math.cos(a), y + r * Math.sin(a)]
  })
}

/** The place of a turn along the arc (0 at its beginning, 1 at its end) on its facets. */
export function onFacets(arc: Arc, along: number): Vec2 {
  const t = Math.min(1, Math.max(0, along)) * arc.n
  const i = Math.min(arc.n - 1, Math.floor(t + TOLERANCE.rounding))
  const at = (k: number): Vec2 => {
    const r = arc.r * (!isCircle(arc) && (k === 0 || k === arc.n) ? 1 : equalAreaFactor(arc.sweep, arc.n))
    const a = arc.from + (arc.sweep * k) / arc.n
    return [arc.x + r * Math.cos(a), arc.y + r * Math.sin(a)]
  }
  if (Math.abs(t - i) < TOLERANCE.rounding) return at(i)
  // Within a facet: where the ray from the centre crosses it.
  const [p, q] = [at(i), at(i + 1)]
  const a = arc.from + arc.sweep * Math.min(1, Math.max(0, along))
  const [dx, dy] = [Math.cos(a), Math.sin(a)]
  const [ex, ey] = [q[0] - p[0], q[1] - p[1]]
  const s = ((p[0] - arc.x) * dy - (p[1] - arc.y) * dx) / (ey * dx - ex * dy)
  return [p[0] + s * ex, p[1] + s * ey]
}

/**
 * The factor on the radius of the points between the ends. For a circle the polygon n/2 r^2 sin(2 pi/n) is to be pi r^2; for an arc
 * the fan r^2 sin(d)/2 (2 f + (n - 2) f^2) is to be the sector r^2 |sweep|/2, where d is one facet's angle.
 */
export function equalAreaFactor(sweep: number, n: number): number {
  const d = Math.abs(sweep) / n
  if (isCircle({ sweep })) return Math.sqrt(d / Math.sin(d))
  const c = Math.abs(sweep) / Math.sin(d)
  return n === 2 ? c / 2 : (-1 + Math.sqrt(1 + (n - 2) * c)) / (n - 2)
}

/**
 * The arc from a to b with a bulge: the tangent of a quarter of its sweep, above zero where it swells to the right of the way from
 * a to b (outwards, for an outline drawn counter-clockwise); 1 is a semicircle. Null for a straight line.
 */
export function arcBetween(a: Vec2, b: Vec2, bulge: number): Arc | null {
  const chord = gapOf(b, a)
  if (Math.abs(bulge) < TOLERANCE.rounding || chord < TOLERANCE.rounding) return null
  const sweep = 4 * Math.atan(bulge)
  const r = ((chord / 2) * (1 + bulge * bulge)) / (2 * Math.abs(bulge))
  // From the middle of the chord to the centre, to the left for outward arcs of less than half a circle.
  const off = ((chord / 2) * (1 - bulge * bulge)) / (2 * bulge)
  const [ux, uy] = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord]
  const [x, y] = [(a[0] + b[0]) / 2 - uy * off, (a[1] + b[1]) / 2 + ux * off]
  const from = Math.atan2(a[1] - y, a[0] - x)
  return { x, y, r, from, sweep, n: facetsFor(r, sweep) }
}

/** The bulge of the arc from a to b through p; 0 where the three lie on one line. */
export function bulgeThrough(a: Vec2, p: Vec2, b: Vec2): number {
  // The angle at p over the chord is half the rest of the circle.
  const [ax, ay, bx, by] = [a[0] - p[0], a[1] - p[1], b[0] - p[0], b[1] - p[1]]
  const [cross, dot] = [ax * by - ay * bx, ax * bx + ay * by]
  if (Math.abs(cross) < TOLERANCE.rounding * (Math.hypot(ax, ay) * Math.hypot(bx, by) + TOLERANCE.zero)) return 0
  const inner = Math.atan2(Math.abs(cross), dot)
  return Math.tan((Math.PI - inner) / 2) * (cross < 0 ? 1 : -1)
}

/** The bulge of the arc from a to b that leaves a in a direction (a vector). */
export function bulgeAlong(a: Vec2, direction: Vec2, b: Vec2): number {
  const [cx, cy] = [b[0] - a[0], b[1] - a[1]]
  const angle = Math.atan2(direction[0] * cy - direction[1] * cx, direction[0] * cx + direction[1] * cy)
  // Straight back there is no arc; close to it the arc is nearly a circle.
  return Math.abs(angle) > Math.PI - TOLERANCE.least ? 0 : Math.tan(angle / 2)
}

/** m */
export const arcLength = (arc: Arc): number => arc.r * Math.abs(arc.sweep)

/** Whether a segment (m) is, or is a bit of, one of the arc's facets. */
export function liesOn(arc: Arc, a: Vec2, b: Vec2): boolean {
  const off = (p: Vec2) => Math.abs(Math.hypot(p[0] - arc.x, p[1] - arc.y) - arc.r)
  const most = 2 * TOLERANCE.curve
  const step = (Math.abs(arc.sweep) / arc.n) * arc.r
  return (
    off(a) < most &&
    off(b) < most &&
    gapOf(b, a) < step * 1.02 + TOLERANCE.point &&
    off([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]) < most &&
    arc.r > 5 * TOLERANCE.curve
  )
}

/** The true length (m) of a segment that lies on an arc. */
export function lengthOn(arc: Arc, a: Vec2, b: Vec2): number {
  const [ax, ay, bx, by] = [a[0] - arc.x, a[1] - arc.y, b[0] - arc.x, b[1] - arc.y]
  return arc.r * Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by))
}

/** The concentric arc of another radius (m), in as many facets; null where there is none. */
export const arcAtRadius = (arc: Arc, r: number): Arc | null => (r > TOLERANCE.least ? { ...arc, r } : null)
