import type { Arc } from './arc'
import { turnOf, type Placement } from './place'

/** A circle at a height, m. */
export interface Rim {
  x: number
  y: number
  r: number
  z: number
}

/** A turn about an upright axis, linear from one height (m) to another; degrees. */
export interface Twist {
  x: number
  y: number
  from: number
  to: number
  angle: number
}

/**
 * The true form of a curved face, for which its facets stand: an upright cylinder; a cone (its edge is an arc that changes with the
 * height); or a side that is twisted as it rises. `rims` are the circles at its lower and upper height, null for a straight edge.
 */
export interface Surface {
  kind: 'cylinder' | 'cone' | 'twisted'
  rims: { low: Rim; high: Rim; from: number; sweep: number; n: number } | null
  twist: Twist | null
}

/** radians turned at a height */
export const turnAt = (twist: Twist | null, z: number): number =>
  twist
    ? ((twist.angle * Math.PI) / 180) * Math.min(1, Math.max(0, (z - twist.from) / (twist.to - twist.from || 1)))
    : 0

/** The arc that a curved face is cut along at a height (m); null where its edge is straight. */
export function arcAt({ rims, twist }: Surface, z: number): Arc | null {
  if (!rims) return null
  const { low, high } = rims
  const t = high.z === low.z ? 0 : (z - low.z) / (high.z - low.z)
  const [x, y] = [low.x + (high.x - low.x) * t, low.y + (high.y - low.y) * t]
  const turn = turnAt(twist, z)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const [px, py] = twist
    ? [twist.x + c * (x - twist.x) - s * (y - twist.y), twist.y + s * (x - twist.x) + c * (y - twist.y)]
    : [x, y]
  return { x: px, y: py, r: low.r + (high.r - low.r) * t, from: rims.from + turn, sweep: rims.sweep, n: rims.n }
}

/** The surface placed with its body. */
export function placeSurface(surface: Surface, at: Placement): Surface {
  const { c, s } = turnOf(at.turn)
  const rim = (r: Rim): Rim => ({ x: at.x + c * r.x - s * r.y, y: at.y + s * r.x + c * r.y, r: r.r, z: r.z + at.z })
  const { rims, twist } = surface
  return {
    kind: surface.kind,
    rims: rims && { ...rims, low: rim(rims.low), high: rim(rims.high), from: rims.from + (at.turn * Math.PI) / 180 },
    twist: twist && {
      ...twist,
      x: at.x + c * twist.x - s * twist.y,
      y: at.y + s * twist.x + c * twist.y,
      from: twist.from + at.z,
      to: twist.to + at.z,
    },
  }
}
