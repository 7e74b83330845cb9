import { loopArea, type Vec2 } from '../solid'

/**
 * What is wrong with a closed outline (m), or null: too few corners, doubles, crossings, no area. With `second` the points are two
 * closed lines, the second from that point on, and only their meeting is a fault. `arcs`: the points are facets, not corners.
 */
export function outlineFault(points: readonly Vec2[], second: number | null = null, least = 3, arcs?: 'arcs'): { what: string; remedy: string } | null {
  const n = points.length
  if (second !== null) return linesMeet(points.slice(0, second), points.slice(second)) ? { what: 'meets another line', remedy: 'Move one of them.' } : null
  if (n < least) return { what: 'has fewer than three corners', remedy: 'Draw at least three corners.' }
  const at = (i: number) => points[(i + n) % n] as Vec2
  if (!arcs) for (let i = 0; i < n; i++) {
    if (Math.hypot(at(i)[0] - at(i + 1)[0], at(i)[1] - at(i + 1)[1]) < 1e-4) return { what: `has two corners at one place (corner ${i + 1} and corner ${((i + 1) % n) + 1})`, remedy: 'Remove one of them.' }
  }
  if (n === 2) return null
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) {
    const meets = j === i + 1 ? foldsBack(at(i), at(j), at(j + 1)) : i === 0 && j === n - 1 ? foldsBack(at(j), at(0), at(1)) : cross(at(i), at(i + 1), at(j), at(j + 1))
    if (meets) return arcs ? { what: 'crosses itself: an arc meets another side', remedy: 'Make the arc flatter, or move a corner.' } : { what: `crosses itself: side ${i + 1} meets side ${j + 1}`, remedy: 'Move a corner so that the sides no longer meet.' }
  }
  return Math.abs(loopArea(points)) < 1e-6 && least === 3 ? { what: 'encloses no area', remedy: 'Move a corner off the line.' } : null
}

function linesMeet(a: readonly Vec2[], b: readonly Vec2[]): boolean {
  return a.some((p, i) => b.some((q, j) => cross(p, a[(i + 1) % a.length] as Vec2, q, b[(j + 1) % b.length] as Vec2)))
}

const side = (a: Vec2, b: Vec2, c: Vec2) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
const within = (a: Vec2, b: Vec2, p: Vec2) => Math.min(a[0], b[0]) - 1e-9 <= p[0] && p[0] <= Math.max(a[0], b[0]) + 1e-9 && Math.min(a[1], b[1]) - 1e-9 <= p[1] && p[1] <= Math.max(a[1], b[1]) + 1e-9

function cross(a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean {
  if (Math.max(a[0], b[0]) < Math.min(c[0], d[0]) - 1e-9 || Math.max(c[0], d[0]) < Math.min(a[0], b[0]) - 1e-9) return false
  const eps = 1e-9 * (Math.hypot(b[0] - a[0], b[1] - a[1]) + Math.hypot(d[0] - c[0], d[1] - c[1]))
  const sign = (x: number) => (x > eps ? 1 : x < -eps ? -1 : 0)
  const [s1, s2, s3, s4] = [sign(side(a, b, c)), sign(side(a, b, d)), sign(side(c, d, a)), sign(side(c, d, b))]
  if (s1 * s2 < 0 && s3 * s4 < 0) return true
  return (s1 === 0 && within(a, b, c)) || (s2 === 0 && within(a, b, d)) || (s3 === 0 && within(c, d, a)) || (s4 === 0 && within(c, d, b))
}

/** Whether the side q-r runs back over the side p-q. */
function foldsBack(p: Vec2, q: Vec2, r: Vec2): boolean {
  const [ux, uy, wx, wy] = [q[0] - p[0], q[1] - p[1], r[0] - q[0], r[1] - q[1]]
  return Math.abs(ux * wy - uy * wx) < 1e-9 * Math.hypot(ux, uy) * Math.hypot(wx, wy) && ux * wx + uy * wy < 0
}
