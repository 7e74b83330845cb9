import { TOLERANCE } from '../values'
import type { Cage } from './soft'
import type { Vec3 } from './solid'

/**
 * A cage that reaches a plane from below (m along the x or y axis: 0 or 1), and its image beyond it, as one: what lies
 * on the plane is shared,
 * faces in the plane are none. Faces of the image are called by `image`. Null where it does not reach the plane.
 */
export function mirroredCage(half: Cage, axis: 0 | 1, at: number, image: (name: string) => string): Cage | null {
  const isOn = (p: Vec3) => Math.abs(p[axis] - at) < TOLERANCE.touch
  const points = half.points.map((p): Vec3 => (isOn(p) ? (p.with(axis, at) as Vec3) : p))
  const faces = half.faces.filter((f) => !f.corners.every((v) => isOn(points[v] as Vec3)))
  if (!points.some(isOn)) return null
  const of = points.map((p, v) => (isOn(p) ? v : -1))
  const all = [...points]
  points.forEach((p, v) => {
    if (of[v] !== -1) return
    of[v] = all.length
    all.push(p.with(axis, 2 * at - p[axis]) as Vec3)
  })
  return {
    points: all,
    faces: [
      ...faces,
      ...faces.map((f) => ({ name: image(f.name), corners: f.corners.map((v) => of[v] as number).reverse() })),
    ],
  }
}
