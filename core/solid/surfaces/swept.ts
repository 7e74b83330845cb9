import { placePoint, type Placement } from '../place'
import type { Rim, SurfaceKind } from './kind'

/** A turn about an upright axis, linear from one height (m) to another; degrees. */
export interface Twist {
  x: number
  y: number
  from: number
  to: number
  angle: number
}

/**
 * A side of an outline that is carried up: an upright cylinder; a cone (its edge is an arc that changes with the height); or a side that
 * is twisted as it rises. `rims` are the circles at its lower and upper height, null for a straight edge.
 */
export interface SweptSurface {
  kind: 'cylinder' | 'cone' | 'twisted'
  rims: { low: Rim; high: Rim; from: number; sweep: number; n: number } | null
  twist: Twist | null
}

/** radians turned at a height */
export const turnAt = (twist: Twist | null, z: number): number =>
  twist
    ? ((twist.angle * Math.PI) / 180) * Math.min(1, Math.max(0, (z - twist.from) / (twist.to - twist.from || 1)))
    : 0

export const swept: SurfaceKind<SweptSurface> = {
  kinds: ['cylinder', 'cone', 'twisted'],
  called: ({ kind }) => ({ cylinder: 'round', cone: 'round, leaning', twisted: 'twisted' })[kind],
  ruled: () => true,
  unrolls: ({ kind }) => kind === 'cylinder',
  arcAt: ({ rims, twist }, z) => {
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
  },
  placed: (surface, at) => {
    const { rims, twist } = surface
    const rim = (r: Rim): Rim => rimPlaced(r, at)
    const axis = twist && placePoint([twist.x, twist.y], at)
    return {
      kind: surface.kind,
      rims: rims && { ...rims, low: rim(rims.low), high: rim(rims.high), from: rims.from + (at.turn * Math.PI) / 180 },
      twist: twist && axis && { ...twist, x: axis[0], y: axis[1], from: twist.from + at.z, to: twist.to + at.z },
    }
  },
}

function rimPlaced({ x, y, r, z }: Rim, at: Placement): Rim {
  const [px, py] = placePoint([x, y], at)
  return { x: px, y: py, r, z: z + at.z }
}
