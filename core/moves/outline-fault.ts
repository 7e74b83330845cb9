import { orient2d } from 'robust-predicates'
import { loopArea, type Vec2, TOLERANCE, gapOf } from '../solid'

/** What is wrong with a closed outline, and what to do about it. */
export interface OutlineFault {
  what: string
  remedy: string
}

/**
 * What is wrong with a closed outline (m), or null: too few corners, doubles, crossings, no area. With `second` the points are two
 * closed lines, the second from that point on, and only their meeting is a fault. `arcs`: the points are facets, not corners.
 */
export function outlineFault(
  points: readonly Vec2[],
  second: number | null = null,
  least = 3,
  arcs?: 'arcs',
): OutlineFault | null {
  // The same outline is asked for at every edit: what was found of it stays.
  const plain = second === null && least === 3 && arcs === undefined
  if (plain && known.has(points)) return known.get(points) ?? null
  const found =
    second !== null
      ? linesMeet(points.slice(0, second), points.slice(second))
        ? { what: 'meets another line', remedy: 'Move one of them.' }
        : null
      : faultOf(points, least, arcs)
  if (plain) known.set(points, found)
  return found
}
const known = new WeakMap<readonly Vec2[], OutlineFault | null>()

function faultOf(points: readonly Vec2[], least: number, arcs?: 'arcs'): OutlineFault | null {
  const n = points.length
  if (n < least) return { what: 'has fewer than three corners', remedy: 'Draw at least three corners.' }
  const at = (i: number) => points[(i + n) % n] as Vec2
  if (!arcs)
    for (let i = 0; i < n; i++) {
      if (gapOf(at(i), at(i + 1)) < TOLERANCE.touch)
        return {
          what: `has two corners at one place (corner ${i + 1} and corner ${((i + 1) % n) + 1})`,
          remedy: 'Remove one of them.',
        }
    }
  if (n === 2) return null
  const sides = points.map((a, i): Side => ({ i, a, b: at(i + 1) }))
  const neighbours = (i: number, j: number) =>
    j === i + 1 ? foldsBack(at(i), at(j), at(j + 1)) : i === 0 && j === n - 1 ? foldsBack(at(j), at(0), at(1)) : null
  const hit = firstMeeting(sides, (s, o) => neighbours(s.i, o.i) ?? cross(s.a, s.b, o.a, o.b))
  if (hit)
    return arcs
      ? { what: 'crosses itself: an arc meets another side', remedy: 'Make the arc flatter, or move a corner.' }
      : {
          what: `crosses itself: side ${hit[0] + 1} meets side ${hit[1] + 1}`,
          remedy: 'Move a corner so that the sides no longer meet.',
        }
  return Math.abs(loopArea(points)) < TOLERANCE.point && least === 3
    ? { what: 'encloses no area', remedy: 'Move a corner off the line.' }
    : null
}

/** Whether two closed lines meet. */
function linesMeet(a: readonly Vec2[], b: readonly Vec2[]): boolean {
  const sides = [a, b].flatMap((loop, l) =>
    loop.map((p, i): Side & { loop: number } => ({ i, a: p, b: loop[(i + 1) % loop.length] as Vec2, loop: l })),
  )
  return (
    firstMeeting(
      sides,
      (s, o) =>
        (s as Side & { loop: number }).loop !== (o as Side & { loop: number }).loop && cross(s.a, s.b, o.a, o.b),
    ) !== null
  )
}

/** A side with its number. */
interface Side {
  i: number
  a: Vec2
  b: Vec2
}

/** The lowest-numbered pair of sides that meet, by a sweep along one axis: only those that lie beside one another are compared. */
function firstMeeting(sides: Side[], meet: (s: Side, o: Side) => boolean): [number, number] | null {
  const n = sides.length
  const [x0, x1, y0, y1] = [0, 1, 2, 3].map(() => new Float64Array(n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ]
  let [wide, high] = [0, 0]
  sides.forEach(({ a, b }, k) => {
    x0[k] = Math.min(a[0], b[0])
    x1[k] = Math.max(a[0], b[0])
    y0[k] = Math.min(a[1], b[1])
    y1[k] = Math.max(a[1], b[1])
    wide += Math.abs(a[0] - b[0])
    high += Math.abs(a[1] - b[1])
  })
  // Along the way in which sides are shorter there are fewer beside one another.
  const [from, to, low, top] = wide <= high ? [x0, x1, y0, y1] : [y0, y1, x0, x1]
  const order = Uint32Array.from({ length: n }, (_, k) => k).sort((s, o) => (from[s] as number) - (from[o] as number))
  const active = new Uint32Array(n)
  let count = 0
  let best: [number, number] | null = null
  for (const k of order) {
    const [start, under, over] = [(from[k] as number) - NEAR, (low[k] as number) - NEAR, (top[k] as number) + NEAR]
    let kept = 0
    for (let c = 0; c < count; c++) {
      const o = active[c] as number
      if ((to[o] as number) < start) continue
      active[kept++] = o
      if ((top[o] as number) < under || (low[o] as number) > over) continue
      const [s, t] = k < o ? [k, o] : [o, k]
      if (best && (s > best[0] || (s === best[0] && t >= best[1]))) continue
      if (meet(sides[s] as Side, sides[t] as Side)) best = [s, t]
    }
    count = kept
    active[count++] = k
  }
  return best && [(sides[best[0]] as Side).i, (sides[best[1]] as Side).i]
}

/** m: what comes closer touches */
const NEAR = TOLERANCE.rounding

/** Twice the area of a triangle, its sign exact. */
const side = (a: Vec2, b: Vec2, c: Vec2) => -orient2d(a[0], a[1], b[0], b[1], c[0], c[1])
const within = (a: Vec2, b: Vec2, p: Vec2) =>
  Math.min(a[0], b[0]) - NEAR <= p[0] &&
  p[0] <= Math.max(a[0], b[0]) + NEAR &&
  Math.min(a[1], b[1]) - NEAR <= p[1] &&
  p[1] <= Math.max(a[1], b[1]) + NEAR

function cross(a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean {
  if (Math.max(a[0], b[0]) < Math.min(c[0], d[0]) - NEAR || Math.max(c[0], d[0]) < Math.min(a[0], b[0]) - NEAR)
    return false
  const eps = NEAR * (gapOf(a, b) + gapOf(c, d))
  const sign = (x: number) => (x > eps ? 1 : x < -eps ? -1 : 0)
  const [s1, s2] = [sign(side(a, b, c)), sign(side(a, b, d))]
  if (s1 * s2 > 0) return false
  const [s3, s4] = [sign(side(c, d, a)), sign(side(c, d, b))]
  if (s1 * s2 < 0 && s3 * s4 < 0) return true
  return (
    (s1 === 0 && within(a, b, c)) ||
    (s2 === 0 && within(a, b, d)) ||
    (s3 === 0 && within(c, d, a)) ||
    (s4 === 0 && within(c, d, b))
  )
}

/** Whether the side q-r runs back over the side p-q. */
function foldsBack(p: Vec2, q: Vec2, r: Vec2): boolean {
  const [ux, uy, wx, wy] = [q[0] - p[0], q[1] - p[1], r[0] - q[0], r[1] - q[1]]
  return (
    Math.abs(ux * wy - uy * wx) < NEAR * Math.sqrt((ux * ux + uy * uy) * (wx * wx + wy * wy)) && ux * wx + uy * wy < 0
  )
}
