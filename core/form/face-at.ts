import {
  faceLabel,
  frameOfFace,
  placePoint,
  rawName,
  TOLERANCE,
  turnOf,
  type Frame,
  type Region,
  type Vec2,
  type Vec3,
} from '../solid'
import { refuse } from '../values'
import { faceTitle } from './face-titles'
import type { MassForm } from './mass-form'

/** A face of a mass as it stands, for whoever draws on it or asks of it. World coordinates, m. */
export interface FaceAt {
  mass: string
  /** by its name; its pieces are told together */
  face: string
  label: string
  /** m2 */ area: number
  /** degrees from level: 0 looks up, 90 aside, 180 down */ tilt: number
  /** degrees from east to north of where it looks; null: up or down */ looks: number | null
  /** flat faces only: along it to the right as seen from outside, up it, and out of it, from the corner of its extent */
  frame: Frame | null
  /** its outline in that frame */ region: Region
}

/** What there is to say of a face. Errors: 'unknown-id' where the mass has none of that name. */
export function faceAt(form: MassForm, face: string): FaceAt {
  const faces = form.body.faces().filter((f) => rawName(f.name) === rawName(face))
  const [first] = faces
  if (!first)
    return refuse('unknown-id', `"${form.name}" has no face "${faceLabel(face)}" any more.`, 'Pick another one.')
  const { c, s } = turnOf(form.at.turn)
  const turned = ([x, y, z]: Vec3): Vec3 => [c * x - s * y, s * x + c * y, z]
  const [x, y, z] = turned(first.plane.n)
  const own = first.surface ? null : frameOfFace(form.body.solid, face)
  const within = own ? faces.filter((f) => isIn(f.plane.n, own.w)) : []
  return {
    mass: form.id,
    face: rawName(face),
    label: faceTitle(form, rawName(face)),
    area: faces.reduce((sum, f) => sum + f.area, 0),
    tilt: (Math.acos(Math.max(-1, Math.min(1, z))) * 180) / Math.PI,
    looks: Math.hypot(x, y) < TOLERANCE.slope ? null : (Math.atan2(y, x) * 180) / Math.PI,
    frame: own && {
      origin: [...placePoint([own.origin[0], own.origin[1]], form.at), own.origin[2] + form.at.z],
      u: turned(own.u),
      v: turned(own.v),
      w: turned(own.w),
    },
    region: own ? within.flatMap((f) => f.loops.map((l) => l.points.map((p) => inPlane(p, own)))) : [],
  }
}

const isIn = (n: Vec3, w: Vec3) => n[0] * w[0] + n[1] * w[1] + n[2] * w[2] > 1 - TOLERANCE.rounding

/** A point in a frame's plane, by its two axes. */
function inPlane(p: Vec3, { origin, u, v }: Frame): Vec2 {
  const d: Vec3 = [p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]]
  return [u[0] * d[0] + u[1] * d[1] + u[2] * d[2], v[0] * d[0] + v[1] * d[1] + v[2] * d[2]]
}
