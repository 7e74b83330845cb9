import { TOLERANCE } from '../values'
import type { Vec2 } from './place'
import type { Region } from './rect'
import { loopArea } from './solid'
import { gapOf, minus, spanned, wayOf } from './vec2'

/** A region whose pieces are convex loops of few corners, counter-clockwise, none of them on a straight side; null where it is another. */
export function convexOf(region: Region): Vec2[][] | null {
  return region.length > 0 && region.length <= MOST_PIECES && region.every(isConvex) ? region : null
}

function isConvex(loop: Vec2[]): boolean {
  if (loop.length < 3 || loop.length > MOST) return false
  for (let i = 0; i < loop.length; i++) {
    const [a, b, c] = [loop[i], loop[(i + 1) % loop.length], loop[(i + 2) % loop.length]] as [Vec2, Vec2, Vec2]
    const [u, w] = [minus(b, a), minus(c, b)]
    if (spanned(u, w) <= TOLERANCE.touch * (Math.hypot(u[0], u[1]) + Math.hypot(w[0], w[1]))) return false
  }
  // What turns left at each corner, and more than once round, is a star.
  return turnsOnce(loop)
}
const MOST_PIECES = 4
const MOST = 12

function turnsOnce(loop: Vec2[]): boolean {
  let turned = 0
  for (let i = 0; i < loop.length; i++) {
    const [a, b, c] = [loop[i], loop[(i + 1) % loop.length], loop[(i + 2) % loop.length]] as [Vec2, Vec2, Vec2]
    const [u, w] = [minus(b, a), minus(c, b)]
    turned += Math.atan2(spanned(u, w), u[0] * w[0] + u[1] * w[1])
  }
  return turned < 3 * Math.PI
}

/**
 * What the convex pieces of two regions have in common, or what the second leaves of the first (clipped side by side: Sutherland and
 * Hodgman). Null where what is left is not convex, or where corners and sides all but touch: that is for the kernel, which makes them meet.
 */
export function combinedConvex(a: Vec2[][], b: Vec2[][], how: 'intersect' | 'subtract'): Region | null {
  if (!a.every((one) => b.every((two) => isClear(one, two) && isClear(two, one)))) return null
  if (how === 'intersect')
    return a.flatMap((one) =>
      b.flatMap((two) => asRegion(sidesOf(two).reduce((left, side) => clipped(left, side, 1), one))),
    )
  let left: Region | null = a
  for (const two of b) {
    const parts: (Region | null)[] = left.map((one) => lessConvex(one, two))
    left = parts.flatMap((part) => part ?? [])
    if (parts.includes(null)) return null
  }
  return left
}

/** One convex loop less another one; null where what is left is not convex. */
function lessConvex(one: Vec2[], two: Vec2[]): Region | null {
  const beyond = sidesOf(two)
    .map((side) => ({ side, loop: clipped(one, side, -1) }))
    .filter((o) => asRegion(o.loop).length > 0)
  const isApart = beyond.every(({ loop }, i) =>
    beyond.slice(i + 1).every(({ side }) => asRegion(clipped(loop, side, -1)).length === 0),
  )
  if (isApart) return beyond.flatMap((o) => asRegion(o.loop))
  return areApart(one, two) ? [one] : null
}

/** Returns true when a side of one of two convex loops has the whole other one beyond it, by more than the tolerance of touch. */
export const areApart = (one: Vec2[], two: Vec2[]): boolean =>
  [[one, two] as const, [two, one] as const].some(([a, b]) =>
    sidesOf(a).some((side) => b.every((p) => leftOf(p, side) < -TOLERANCE.touch)),
  )

const sidesOf = (loop: Vec2[]): Side[] =>
  loop.map((from, i) => ({ from, way: wayOf(from, loop[(i + 1) % loop.length] as Vec2) }))

/** A side of a loop: what lies to the left of it is within. */
interface Side {
  from: Vec2
  way: Vec2
}

/** m that a point lies to the left of a side, or of the line that it lies on */
const leftOf = (p: Vec2, { from, way }: Side) => spanned(way, minus(p, from))

/** Whether each corner of the first lies either on a line of the second's sides or well off it. */
function isClear(a: Vec2[], b: Vec2[]): boolean {
  return sidesOf(b).every((side) =>
    a.every((p) => {
      const off = Math.abs(leftOf(p, side))
      return off < TOLERANCE.fine || off > 2 * TOLERANCE.touch
    }),
  )
}

/** The part of a convex loop to the left of a side (`sign` 1), or to its right (-1). */
function clipped(loop: Vec2[], side: Side, sign: 1 | -1): Vec2[] {
  const out: Vec2[] = []
  for (let i = 0; i < loop.length; i++) {
    const [p, q] = [loop[i], loop[(i + 1) % loop.length]] as [Vec2, Vec2]
    const [dp, dq] = [sign * leftOf(p, side), sign * leftOf(q, side)]
    if (dp > -TOLERANCE.fine) out.push(p)
    if ((dp > TOLERANCE.fine && dq < -TOLERANCE.fine) || (dp < -TOLERANCE.fine && dq > TOLERANCE.fine)) {
      const t = dp / (dp - dq)
      out.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t])
    }
  }
  return out
}

/** Without doubled corners; nothing where it has no area. */
function asRegion(loop: Vec2[]): Region {
  const single = loop.filter((p, i) => gapOf(p, loop[(i + loop.length - 1) % loop.length] as Vec2) > TOLERANCE.point)
  return single.length >= 3 && loopArea(single) > TOLERANCE.area ? [single] : []
}
