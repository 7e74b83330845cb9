import type { Body, MassForm } from '../form'
import { Memo } from '../values'
import {
  areaOf,
  flatsAmong,
  intersectRegions,
  loopArea,
  placePoint,
  subtractRegions,
  TOLERANCE,
  uniteRegions,
  wholeTilt,
  type Face,
  type Region,
  type Surface,
  type Vec2,
  type Vec3,
} from '../solid'
import type { Plate } from './plate'

/**
 * The rule of headroom: the clear height (m) of floor that counts, and the slope (degrees from upright) from which a face is roof-like.
 * Under wall-like faces that lean in, floor counts out to the mass face, as it does under upright ones.
 */
export interface Headroom {
  height: number
  wallLike: number
}

/** Whether the form ends, or a face that looks up lies, within the headroom (m) above a height, so that floor there may be low. */
export function lowAbove(form: MassForm, z: number, headroom: Headroom): boolean {
  if (form.top > z + TOLERANCE.height && form.top < z + headroom.height - TOLERANCE.height) return true
  const { lowest, faces } = roofsOf(form.body, headroom.wallLike)
  const [from, to] = [z - form.at.z + TOLERANCE.height, z - form.at.z + headroom.height - TOLERANCE.height]
  return lowest < to && faces.some((r) => r.high > from && r.low < to)
}

/**
 * The part of a plate without a clear vertical run of mass of `headroom` (m) above it. A point's run ends where a face that
 * looks up lies above it, so this is the plan of those faces between the plate and the headroom; exact for flat faces.
 */
export function lowRegion(form: MassForm, plate: Plate, z: number, headroom: Headroom): Region {
  // Where the whole form ends below the headroom, no run of it is long enough.
  if (form.top < z + headroom.height - TOLERANCE.height) return plate.region
  const from = z - form.at.z
  const to = from + headroom.height
  const above = roofsOf(form.body, headroom.wallLike).faces.filter(
    (r) => r.high > from + TOLERANCE.height && r.low < to - TOLERANCE.height,
  )
  const plans = above.map((r) => planBetween(r.face, from, to)).filter((r) => r.length > 0)
  if (plans.length === 0) return []
  return intersectRegions(
    uniteRegions(plans).map((loop) => loop.map((p) => placePoint(p, form.at))),
    plate.region,
  )
}

/** Low floor (of `form`, at z) less what lies under another mass that stands on the flat top above it: there the run of mass goes on. */
export function lessWhatGoesOn(
  low: Region,
  form: MassForm,
  z: number,
  headroom: Headroom,
  others: MassForm[],
  plateAt: (form: MassForm, z: number) => Plate | null,
): Region {
  const { top } = form
  if (low.length === 0 || top >= z + headroom.height) return low
  const flat = memo.keep(form, 'flat top', [], () => flatTop(form))
  if (flat.length === 0) return low
  return others
    .filter((o) => o !== form && o.base <= top + TOLERANCE.height && o.top > top + TOLERANCE.height)
    .reduce((left, other) => {
      const plate = plateAt(other, top)
      if (!plate) return left
      const over = lowRegion(other, plate, top, { ...headroom, height: z + headroom.height - top })
      const under = (goesOn: Region) => intersectRegions(goesOn, flat)
      // Most go on all the way: what lies under those is the same for every height.
      const covered = over.length
        ? under(subtractRegions(plate.region, over))
        : memo.keep(form, `under ${other.id}`, [plate], () => under(plate.region))
      return covered.length ? memo.keep(covered, 'leaves', [left], () => subtractRegions(left, covered)) : left
    }, low)
}
const memo = new Memo()

/** The flat top of a mass, in plan. */
function flatTop(form: MassForm): Region {
  const tops = form.body
    .flats()
    .filter(
      (f) => f.plane.n[2] > 1 - TOLERANCE.rounding && Math.abs(f.plane.d + form.at.z - form.top) < TOLERANCE.height,
    )
  const flat = tops.map((f): Region => f.loops.map((l) => l.points.map((p) => placePoint([p[0], p[1]], form.at))))
  return areaOf(flat.flat()) < TOLERANCE.area ? [] : uniteRegions(flat)
}

/** The roof-like faces of a body, each with its lowest and highest point; m above the mass's own zero. */
function roofsOf(body: Body, wallLike: number): Roofs {
  const kept = known.get(body)
  if (kept?.wallLike === wallLike) return kept
  const least = Math.sin((wallLike * Math.PI) / 180) - TOLERANCE.rounding
  const flats = bitsThatMayBe(body, least)
  // A curved surface is wall-like or roof-like as a whole, by its mean slope before anything was cut out of it; so is a groove, by the
  // surface that it is cut into.
  const ofGrooves = new Map(body.solid.facets.flatMap((f) => (f.tilt === undefined ? [] : [[f.name, f.tilt] as const])))
  const tilt = (f: Face) => (f.surface && wholeTilt(f.surface)) ?? ofGrooves.get(f.name) ?? f.plane.n[2]
  const faces = flats
    .filter((f) => f.plane.n[2] > TOLERANCE.slope && tilt(f) > least)
    .map((face) => {
      const zs = face.loops.flatMap((l) => l.points.map((p) => p[2]))
      return { face, low: Math.min(...zs), high: Math.max(...zs) }
    })
  const roofs = { wallLike, lowest: Math.min(...faces.map((f) => f.low)), faces }
  known.set(body, roofs)
  return roofs
}
/**
 * The flat bits that can be roof-like: those that look up that far, and those of one surface with them. The others are not even put
 * together.
 */
function bitsThatMayBe(body: Body, least: number): Face[] {
  const { solid } = body
  const up = new Set(solid.facets.filter((f) => f.plane.n[2] > least))
  const surfaces = new Set<Surface>()
  for (const { surface } of up) if (surface) surfaces.add(surface)
  if (surfaces.size > 0) for (const f of solid.facets) if (f.surface && surfaces.has(f.surface)) up.add(f)
  if (up.size * 4 > solid.facets.length) return body.flats()
  return flatsAmong(solid, (f) => up.has(f))
}
interface Roofs {
  wallLike: number
  lowest: number
  faces: { face: Face; low: number; high: number }[]
}
const known = new WeakMap<Body, Roofs>()

/** The plan of the part of a flat face that lies between two heights: every loop clipped by both. */
function planBetween(face: Face, from: number, to: number): Region {
  return face.loops
    .map((l) => clipBelow(clipBelow(l.points, 1, to), -1, -from).map(([x, y]): Vec2 => [x, y]))
    .filter((loop) => loop.length >= 3 && Math.abs(loopArea(loop)) > TOLERANCE.rounding)
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
