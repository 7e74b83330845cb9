import { areaOf, enclosed, subtractRegions, type Region, type Vec2, type Vec3, TOLERANCE, gapOf } from '../solid'
import type { PartBody } from './body'
import type { WorldFace } from './print'
import { widened } from './roofs'

/**
 * A parapet on the open edges of a flat top: as thick as its build-up, inside of the edge, as high as its rise (m) above the top. `open` gives
 * the stretches (from 0 to 1) of each edge that fall away there; `covered` is what stands on the top. Length in m along the open edges.
 */
export function shapeParapet(
  face: WorldFace,
  thickness: number,
  rise: number,
  open: (beyond: string, a: Vec3, b: Vec3) => [number, number][],
  covered: Region,
): { body: PartBody; plan: Region; length: number; faceArea: number } | null {
  const z = face.plane.d / face.plane.n[2]
  const whole: Region = face.loops.map((l) => l.map(([x, y]) => [x, y]))
  let length = 0
  const inner = enclosed(
    face.loops.map((loop, l) => {
      // Each edge is divided where it ceases to be open.
      const edges = loop.flatMap((a, i): { at: Vec2; open: boolean }[] => {
        const b = loop[(i + 1) % loop.length] as Vec3
        const stretches = open(face.beyond[l]?.[i] ?? '', a, b)
        length += stretches.reduce((sum, [from, to]) => sum + (to - from), 0) * gapOf(b, a)
        const at = (t: number): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
        const ends = [...new Set([0, ...stretches.flat()])]
          .filter((t) => t < 1 - TOLERANCE.rounding)
          .sort((s, t) => s - t)
        return ends.map((t) => ({
          at: at(t),
          open: stretches.some(([from, to]) => t > from - TOLERANCE.rounding && t < to - TOLERANCE.rounding),
        }))
      })
      return widened(
        edges.map((e) => e.at),
        (i) => (edges[i]?.open ? -thickness : 0),
      )
    }),
  )
  const plan = subtractRegions(subtractRegions(whole, inner), covered)
  if (areaOf(plan) < TOLERANCE.area || rise <= 0) return null
  return { body: { kind: 'prism', region: plan, z0: z, z1: z + rise }, plan, length, faceArea: length * rise }
}
