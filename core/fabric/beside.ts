import type { MassForm } from '../form'
import { inside, type Vec2 } from '../solid'
import { alongOf, pointAt, type Piece } from './pieces'
import { showQuantity } from '../project'
import { facesOfForm, type FabricContext } from './context'
import type { WorldFace } from './print'
import { nearTo } from './stands'

/** What another mass beside a piece means for it: why it gives no wall, or how much of its wall lies inside that mass. */
export interface Beside {
  why: string | null
  partly: string | null
}
export const NOTHING_BESIDE: Beside = { why: null, partly: null }

/** Whether a piece lies inside another mass, or against one that has the wall; sampled along it, half-way up. */
export function besideOthers(context: FabricContext, form: MassForm, face: WorldFace, piece: Piece): Beside {
  const z = (piece.z0 + piece.z1) / 2
  const others = nearTo(context, form).filter((o) => o.base < z && o.top > z)
  const plates = others.flatMap((o) => {
    const plate = context.plateAt(o, z)
    return plate ? [{ form: o, plate }] : []
  })
  if (plates.length === 0) return NOTHING_BESIDE
  const holds = (u: number, out: number) => {
    const [x, y] = pointAt(face, u, z)
    const [dx, dy] = alongOf(face, u)
    return plates.find(({ plate }) =>
      plate.region.reduce((odd, loop) => odd !== inside(loop, [x + dy * out, y - dx * out]), false),
    )
  }
  const steps = Math.max(3, Math.min(60, Math.ceil((piece.to - piece.from) / 0.5)))
  const us = Array.from({ length: steps }, (_, i) => piece.from + ((i + 0.5) / steps) * (piece.to - piece.from))
  const beside = us.map((u) => holds(u, 0.005))
  const within = us.filter((u, i) => beside[i] && holds(u, -0.005)).length
  const other = beside.find((b) => b)
  if (!other) return NOTHING_BESIDE
  if (within === steps) return { why: `lies inside ${other.form.name}`, partly: null }
  if (beside.some((b) => !b))
    return {
      why: null,
      partly: within
        ? `about ${showQuantity((within / steps) * (piece.to - piece.from), 'length', context.project)} of it lie inside ${other.form.name}, and are left out`
        : null,
    }
  // Against each other in full: the mass that comes first has the wall.
  const mutual =
    !face.round &&
    other.form.order > form.order &&
    facesOfForm(other.form).some(
      (f) => sameLine(f, face) && us.every((u) => spans(f, pointAt(face, u), z)) && covers(face, piece, f),
    )
  return mutual ? NOTHING_BESIDE : { why: `stands against ${other.form.name}, which has the wall`, partly: null }
}

const sameLine = (a: WorldFace, b: WorldFace) =>
  a.plane.n[0] * b.plane.n[0] + a.plane.n[1] * b.plane.n[1] < -0.999999 && Math.abs(a.plane.d + b.plane.d) < 0.01
const spans = (face: WorldFace, [x, y]: Vec2, z: number): boolean => {
  const [dx, dy] = [-face.plane.n[1], face.plane.n[0]]
  const u = dx * x + dy * y
  return face.loops.reduce(
    (odd, l) =>
      odd !==
      inside(
        l.map((p): Vec2 => [dx * p[0] + dy * p[1], p[2]]),
        [u, z],
      ),
    false,
  )
}
/** Whether a piece reaches as far as the other face does, so that either could stand for both. */
const covers = (face: WorldFace, piece: Piece, other: WorldFace): boolean => {
  const [dx, dy] = alongOf(face)
  const [ox, oy] = pointAt(face, 0)
  return other.loops.flat().every((p) => {
    const u = dx * (p[0] - ox) + dy * (p[1] - oy)
    return u > piece.from - 0.01 && u < piece.to + 0.01
  })
}
