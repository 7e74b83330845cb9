import { placePoint, type Placement } from '../place'
import type { SurfaceKind } from './kind'

type Corner = [number, number, number]

/**
 * Between two straight edges at two heights that are not in one plane: it is cut along a straight line at every height. Its corners (m):
 * along the lower edge from left to right as seen from outside, then back along the upper one.
 */
export interface RuledSurface {
  kind: 'ruled'
  corners: [Corner, Corner, Corner, Corner]
}

export const ruled: SurfaceKind<RuledSurface> = {
  kinds: ['ruled'],
  called: () => 'warped',
  ruled: () => true,
  unrolls: () => false,
  arcAt: () => null,
  placed: ({ corners }, at) => ({
    kind: 'ruled',
    corners: corners.map((c) => placed(c, at)) as RuledSurface['corners'],
  }),
}

const placed = ([x, y, z]: Corner, at: Placement): Corner => [...placePoint([x, y], at), z + at.z]

/**
 * How far (m) a warped face is from flat, if it were folded along a diagonal: its left upper corner off the plane of the lower edge and the
 * diagonal that rises to the right; and its right upper corner off that of the lower edge and the one that rises to the left.
 */
export function warpOf({ corners: [a, b, c, d] }: RuledSurface): { right: number; left: number } {
  return { right: offPlane(d, a, b, c), left: offPlane(c, a, b, d) }
}

function offPlane(p: Corner, a: Corner, b: Corner, c: Corner): number {
  const [ux, uy, uz, wx, wy, wz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2], c[0] - a[0], c[1] - a[1], c[2] - a[2]]
  const n = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx] as const
  const long = Math.hypot(...n)
  return long === 0 ? 0 : Math.abs(n[0] * (p[0] - a[0]) + n[1] * (p[1] - a[1]) + n[2] * (p[2] - a[2])) / long
}
