import type { MassForm } from '../form'
import { cutAt, loopArea, placePoint, uniteRegions, intersectRegions, areaOf, rectOf, TOLERANCE, type CutLoop, type Face, type Rect, type Region, type Vec2, type Vec3 } from '../solid'

/** The cut of one mass at one height: its region in plan, and the face that each edge was cut from. */
export interface Plate { mass: string; z: number; loops: CutLoop[]; region: Region; area: number; rect: Rect }

/** The plate of a mass at a height (m above the datum), or null where the mass ends at or below it, or begins above. */
export function plateOf(form: MassForm, z: number): Plate | null {
  if (z < form.base - TOLERANCE.height || z > form.top - TOLERANCE.height) return null
  const loops = cutAt(form.body.solid, z - form.at.z).map((l): CutLoop => ({ ...l, points: l.points.map((p) => placePoint(p, form.at)) }))
  if (loops.length === 0) return null
  const region = loops.map((l) => l.points)
  return { mass: form.id, z, loops, region, area: areaOf(region), rect: rectOf(region) }
}

/**
 * The part of a plate without a clear vertical run of mass of `headroom` (m) above it. A point's run ends where a face that
 * looks up lies above it, so this is the plan of those faces between the plate and the headroom; exact for flat faces.
 */
export function lowRegion(form: MassForm, plate: Plate, headroom: number): Region {
  const from = plate.z - form.at.z
  const to = from + headroom
  const above = form.body.faces().filter((f) => f.plane.n[2] > 1e-6 && f.loops.some((l) => l.points.some((p) => p[2] > from + TOLERANCE.height)) && f.loops.some((l) => l.points.some((p) => p[2] < to - TOLERANCE.height)))
  if (above.length === 0) return []
  const plans = above.map((f) => planBetween(f, from, to)).filter((r) => r.length > 0)
  const placed = uniteRegions(plans).map((loop) => loop.map((p) => placePoint(p, form.at)))
  return intersectRegions(placed, plate.region)
}

/** The plan of the part of a flat face that lies between two heights: every loop clipped by both. */
function planBetween(face: Face, from: number, to: number): Region {
  return face.loops
    .map((l) => clipBelow(clipBelow(l.points, 1, to), -1, -from).map(([x, y]): Vec2 => [x, y]))
    .filter((loop) => loop.length >= 3 && Math.abs(loopArea(loop)) > 1e-9)
}

/** The part of a flat loop where sign * z <= limit (Sutherland and Hodgman, one plane). */
function clipBelow(points: Vec3[], sign: 1 | -1, limit: number): Vec3[] {
  const out: Vec3[] = []
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length] as Vec3
    const [ua, ub] = [sign * a[2] - limit, sign * b[2] - limit]
    if (ua <= 0) out.push(a)
    if ((ua < 0 && ub > 0) || (ua > 0 && ub < 0)) {
      const t = ua / (ua - ub)
      out.push([a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])])
    }
  })
  return out
}
