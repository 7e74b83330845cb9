import { TOLERANCE } from '../values'
import type { Plane, Vec3 } from './solid'

/** The scalar product. */
export const dotOf = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
/** The vector product. */
export const crossOf = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
/** The vector from b to a. */
export const lessOf = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

/** Two directions of length 1 within a plane (by its normal), square to one another. */
export function planeAxes(n: Vec3): { u: Vec3; v: Vec3 } {
  const across = crossOf(Math.abs(n[2]) > 0.9 ? [1, 0, 0] : [0, 0, 1], n)
  const long = Math.hypot(...across)
  const u: Vec3 = [across[0] / long, across[1] / long, across[2] / long]
  return { u, v: crossOf(n, u) }
}

/** The plane of three corners that run counter-clockwise seen against its normal; of corners in one line, some plane through the first. */
export function planeThrough(a: Vec3, b: Vec3, c: Vec3): Plane {
  const n = crossOf(lessOf(b, a), lessOf(c, a))
  const length = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2])
  const unit: Vec3 = length > TOLERANCE.zero ? [n[0] / length + 0, n[1] / length + 0, n[2] / length + 0] : [0, 0, 1]
  return { n: unit, d: dotOf(unit, a) }
}

/** A corner of a mesh, m. */
export const cornerAt = (positions: ArrayLike<number>, v: number): Vec3 => [
  positions[v * 3] ?? 0,
  positions[v * 3 + 1] ?? 0,
  positions[v * 3 + 2] ?? 0,
]
