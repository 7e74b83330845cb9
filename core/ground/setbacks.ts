import { gapOf, lessRegions, loopArea, TOLERANCE, type Region, type Vec2 } from '../solid'

/** The directions of a ring's sides, without unit. */
export const directions = (ring: readonly Vec2[]): Vec2[] =>
  ring.map((p, i): Vec2 => {
    const q = ring[(i + 1) % ring.length] as Vec2
    const l = gapOf(q, p) || 1
    return [(q[0] - p[0]) / l, (q[1] - p[1]) / l]
  })

/**
 * What is left to build on: the site (m, counter-clockwise) less a strip along each side, as deep as its setback measured square to the
 * side. Strips of neighbouring sides go on to where their inner edges cross, at corners that look in as at others; where that is far off,
 * since the sides nearly run on straight, there is a step.
 */
export function buildable(ring: Vec2[], setbacks: number[]): Region {
  const n = ring.length
  const dir = directions(ring)
  const off = (p: Vec2, [x, y]: Vec2, d: number): Vec2 => [p[0] - y * d, p[1] + x * d]
  const strips = ring.flatMap((p, i): Region[] => {
    const before = (i + n - 1) % n
    const [d, last] = [setbacks[i] ?? 0, setbacks[before] ?? 0]
    const [q, along, came] = [ring[(i + 1) % n] as Vec2, dir[i] as Vec2, dir[before] as Vec2]
    const strip: Vec2[][] = d > 0 ? [[p, q, off(q, along, d), off(p, along, d)]] : []
    return [...strip, ...mitreAt(p, came, along, off(p, came, last), off(p, along, d))].map((loop) => [
      loopArea(loop) < 0 ? loop.reverse() : loop,
    ])
  })
  return setbacks.some((d) => d > 0) ? lessRegions([ring], strips) : [ring]
}

/**
 * What the strips of two sides take at their corner beyond their own lengths. `a`, `b`: the directions of the sides that come to the corner
 * and leave it; `pa`, `pb`: where the inner edges of their strips end and begin.
 */
function mitreAt(p: Vec2, a: Vec2, b: Vec2, pa: Vec2, pb: Vec2): Vec2[][] {
  const cross = a[0] * b[1] - a[1] * b[0]
  const deepest = Math.max(gapOf(pa, p), gapOf(pb, p))
  if (Math.abs(cross) < TOLERANCE.point || deepest === 0) return []
  const [dx, dy] = [pb[0] - pa[0], pb[1] - pa[1]]
  /** m along each inner edge, from its end at the corner */
  const [ta, tb] = [(dx * b[1] - dy * b[0]) / cross, (dx * a[1] - dy * a[0]) / cross]
  const tip: Vec2 = [pa[0] + ta * a[0], pa[1] + ta * a[1]]
  if (gapOf(tip, p) > LONGEST_MITRE * deepest) return cross < 0 ? [[p, pb, pa]] : []
  return [...(ta > 0 ? [[p, tip, pa]] : []), ...(tb < 0 ? [[p, pb, tip]] : [])]
}
/** of the deeper setback: how far a mitre reaches at most */
const LONGEST_MITRE = 4
