import { areaOf, enclosed, subtractRegions, type Region, type Vec3 } from '../solid'
import type { PartBody } from './body'
import type { WorldFace } from './print'
import { widened } from './roofs'

/**
 * A parapet on the open edges of a flat top: as thick as its build-up, inside of the edge, as high as its rise (m) above the top.
 * `open` tells of each edge whether it falls away there. Length in m along the open edges.
 */
export function shapeParapet(face: WorldFace, thickness: number, rise: number, open: (beyond: string, a: Vec3, b: Vec3) => boolean): { body: PartBody; plan: Region; length: number; faceArea: number } | null {
  const z = face.plane.d / face.plane.n[2]
  const whole: Region = face.loops.map((l) => l.map(([x, y]) => [x, y]))
  let length = 0
  const inner = enclosed(face.loops.map((loop, l) => widened(loop, (i) => {
    const [a, b] = [loop[i] as Vec3, loop[(i + 1) % loop.length] as Vec3]
    if (!open(face.beyond[l]?.[i] ?? '', a, b)) return 0
    length += Math.hypot(b[0] - a[0], b[1] - a[1])
    return -thickness
  })))
  const plan = subtractRegions(whole, inner)
  if (areaOf(plan) < 1e-4 || rise <= 0) return null
  return { body: { kind: 'prism', region: plan, z0: z, z1: z + rise }, plan, length, faceArea: length * rise }
}
