import { TOLERANCE } from '../../values'
import { placePoint } from '../place'
import type { SurfaceKind } from './kind'

/**
 * A bit of a profile turned about an upright axis (m, radians): straight from (r0, z0) to (r1, z1), or along a circle of a radius about
 * (r, z) in the profile's own plane, on the side away from the axis (1) or towards it (-1).
 */
export interface TurnedSurface {
  kind: 'turned'
  x: number
  y: number
  profile: {
    r0: number
    z0: number
    r1: number
    z1: number
    round: { r: number; z: number; radius: number; side: 1 | -1 } | null
  }
  from: number
  sweep: number
  n: number
}

export const turned: SurfaceKind<TurnedSurface> = {
  kinds: ['turned'],
  called: () => 'turned about an axis',
  ruled: () => false,
  unrolls: () => false,
  arcAt: ({ x, y, profile, from, sweep, n }, z) => {
    const r = radiusAt(profile, z)
    return r < TOLERANCE.point ? null : { x, y, r, from, sweep, n }
  },
  placed: (surface, at) => {
    const [x, y] = placePoint([surface.x, surface.y], at)
    const { profile } = surface
    return {
      ...surface,
      x,
      y,
      from: surface.from + (at.turn * Math.PI) / 180,
      profile: {
        ...profile,
        z0: profile.z0 + at.z,
        z1: profile.z1 + at.z,
        round: profile.round && { ...profile.round, z: profile.round.z + at.z },
      },
    }
  },
}

/** m from the axis at a height. */
export function radiusAt({ r0, z0, r1, z1, round }: TurnedSurface['profile'], z: number): number {
  if (round) {
    const off = Math.min(1, Math.max(-1, (z - round.z) / round.radius))
    return round.r + round.side * round.radius * Math.sqrt(1 - off * off)
  }
  return z1 === z0 ? r0 : r0 + ((r1 - r0) * (z - z0)) / (z1 - z0)
}
