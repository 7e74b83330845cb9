import { gapOf, TOLERANCE, type Plane, type Vec2, type Vec3 } from '../solid'
import type { Numbers } from '../values'
import type { SiteCorner } from './schema'
import { directions } from './setbacks'

/** One side of an upright plane: n . p >= d in plan, m. */
export interface HalfPlane {
  n: Vec2
  d: number
}

/** A limit that rises from a side of the site: below `plane`, over what lies `within`; everywhere where nothing bounds it. */
export interface SlopeLimit {
  /** the number of the side in the ring */
  side: number
  plane: Plane
  from: number
  angle: number
  within: HalfPlane[]
}

/**
 * The sloping limits of a site (m, degrees; the ring counter-clockwise, `corners` in its order). Each is measured square to its side. On
 * a site with corners that look in, a limit holds behind its own side only: up to the line that halves such a corner.
 */
export function slopesOf(ring: Vec2[], corners: (SiteCorner | undefined)[], numbers: Numbers): SlopeLimit[] {
  const dir = directions(ring)
  return corners.flatMap((corner, i): SlopeLimit[] => {
    if (!corner?.slope) return []
    const a = ring[i] as Vec2
    const [dx, dy] = dir[i] as Vec2
    const inward: Vec2 = [-dy, dx]
    const [from, angle] = [numbers.length(corner.slope.from), numbers.angle(corner.slope.angle)]
    const t = Math.tan((angle * Math.PI) / 180)
    // z <= from + t * (distance inwards): -t * inward . p + z <= from - t * inward . a
    const l = Math.hypot(t, 1)
    const plane: Plane = {
      n: [(-t * inward[0]) / l, (-t * inward[1]) / l, 1 / l],
      d: (from - t * (inward[0] * a[0] + inward[1] * a[1])) / l,
    }
    const halves = [through(a, inward), ...halvedCorners(ring, dir, i)]
    const isBounded = ring.some((p) => !isWithin(p, halves))
    return [{ side: i, from, angle, plane, within: isBounded ? halves : [] }]
  })
}

const through = (p: Vec2, n: Vec2): HalfPlane => ({ n, d: n[0] * p[0] + n[1] * p[1] })

/** At the ends of a side that look in: this side of the line that halves the corner. */
function halvedCorners(ring: Vec2[], dir: Vec2[], i: number): HalfPlane[] {
  const n = ring.length
  return ([0, 1] as const).flatMap((end) => {
    const k = (i + end) % n
    const [a, b] = [dir[(k + n - 1) % n] as Vec2, dir[k] as Vec2]
    if (a[0] * b[1] - a[1] * b[0] > -TOLERANCE.slope) return []
    // The line runs along the sum of both inward directions; across it lies the way along the side.
    const across: Vec2 = [a[0] + b[0], a[1] + b[1]]
    return [through(ring[k] as Vec2, end === 0 ? across : [-across[0], -across[1]])]
  })
}

/** Whether a place in plan lies within all of some half planes. */
export const isWithin = (p: readonly number[], halves: readonly HalfPlane[]): boolean =>
  halves.every(({ n, d }) => n[0] * (p[0] as number) + n[1] * (p[1] as number) > d - TOLERANCE.point)

/** m above the datum: where a limit lies over a place in plan; null where it does not hold there. */
export function limitOver({ plane: { n, d }, within }: SlopeLimit, p: Vec2): number | null {
  return isWithin(p, within) ? (d - n[0] * p[0] - n[1] * p[1]) / n[2] : null
}

/** By how much (m, straight up) triangles pass a limit at most, of what stands above the datum; -Infinity where it does not hold. */
export function overSlope(
  { plane: { n, d }, within }: SlopeLimit,
  positions: ArrayLike<number>,
  triangles: ArrayLike<number>,
): number {
  let over = -Infinity
  const measure = (x: number, y: number, z: number) => {
    if (z >= TOLERANCE.rounding) over = Math.max(over, (n[0] * x + n[1] * y + n[2] * z - d) / n[2])
  }
  const at = (v: number): Vec3 => [
    positions[v * 3] as number,
    positions[v * 3 + 1] as number,
    positions[v * 3 + 2] as number,
  ]
  if (within.length === 0) {
    for (let v = 0; v < positions.length / 3; v++) measure(...at(v))
    return over
  }
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => at(triangles[t + k] as number))
    for (const p of within.reduce(clipped, corners)) measure(...p)
  }
  return over
}

/** The part of a flat loop within a half plane (Sutherland and Hodgman). */
function clipped(loop: Vec3[], { n, d }: HalfPlane): Vec3[] {
  const off = (p: Vec3) => n[0] * p[0] + n[1] * p[1] - d
  return loop.flatMap((a, i): Vec3[] => {
    const b = loop[(i + 1) % loop.length] as Vec3
    const [s, t] = [off(a), off(b)]
    const own: Vec3[] = s >= 0 ? [a] : []
    if (s < 0 === t < 0) return own
    const k = s / (s - t)
    return [...own, [a[0] + (b[0] - a[0]) * k, a[1] + (b[1] - a[1]) * k, a[2] + (b[2] - a[2]) * k]]
  })
}

/**
 * The greatest height (m above the datum) that the lowest of some limits leaves over an outline, and `most` at all: over its corners, or
 * where limits meet over its sides or within it.
 */
export function highestUnder(
  slopes: readonly SlopeLimit[],
  outline: Vec2[],
  isIn: (p: Vec2) => boolean,
  most: number,
): number {
  const lines = slopes.flatMap((s, i) => slopes.slice(i + 1).flatMap((t) => meetingLine(s, t)))
  const bounds = slopes.flatMap((s) => s.within)
  const sides = outline.map((p, i) => [p, outline[(i + 1) % outline.length] as Vec2] as const)
  const all = [...lines, ...bounds]
  const places = [
    ...outline,
    ...all.flatMap((line) => sides.flatMap(([p, q]) => crossing(line, p, q))),
    ...all.flatMap((line, i) => all.slice(i + 1).flatMap((other) => meetingOf(line, other))).filter(isIn),
  ]
  // At a bound of a limit it holds on one side only: a hair to either side tells both.
  const near = places.flatMap((p) => [
    p,
    ...(bounds.length ? AROUND.map(([x, y]): Vec2 => [p[0] + x, p[1] + y]).filter(isIn) : []),
  ])
  return Math.max(...near.map((p) => Math.min(most, ...slopes.flatMap((s) => limitOver(s, p) ?? []))))
}
const AROUND = [0, 1, 2, 3, 4, 5, 6, 7].map((k): Vec2 => [
  2 * TOLERANCE.touch * Math.cos((k * Math.PI) / 4 + 0.1),
  2 * TOLERANCE.touch * Math.sin((k * Math.PI) / 4 + 0.1),
])

/** In plan, where two limits are equally high. */
function meetingLine(a: SlopeLimit, b: SlopeLimit): HalfPlane[] {
  const n: Vec2 = [0, 1].map(
    (k) => (a.plane.n[k] as number) / a.plane.n[2] - (b.plane.n[k] as number) / b.plane.n[2],
  ) as Vec2
  const length = Math.hypot(...n)
  const d = a.plane.d / a.plane.n[2] - b.plane.d / b.plane.n[2]
  return length < TOLERANCE.slope ? [] : [{ n: [n[0] / length, n[1] / length], d: d / length }]
}

function crossing({ n, d }: HalfPlane, p: Vec2, q: Vec2): Vec2[] {
  const [s, t] = [n[0] * p[0] + n[1] * p[1] - d, n[0] * q[0] + n[1] * q[1] - d]
  if (s < 0 === t < 0 || gapOf(p, q) < TOLERANCE.point) return []
  const k = s / (s - t)
  return [[p[0] + (q[0] - p[0]) * k, p[1] + (q[1] - p[1]) * k]]
}

function meetingOf(a: HalfPlane, b: HalfPlane): Vec2[] {
  const det = a.n[0] * b.n[1] - a.n[1] * b.n[0]
  if (Math.abs(det) < TOLERANCE.slope) return []
  return [[(a.d * b.n[1] - b.d * a.n[1]) / det, (a.n[0] * b.d - b.n[0] * a.d) / det]]
}
