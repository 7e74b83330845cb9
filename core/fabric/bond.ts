import type { MassForm } from '../form'
import type { Part } from '../project'
import { areaIn, type Vec3 } from '../solid'
import { piecesBetween } from './bands'
import { facesOfForm, levelHeight, takenStoreys, type FabricContext } from './context'
import { formPrint, printedFace, sameCorners, samePlane, type FacePrint, type PlatePrint, type WorldFace } from './print'
import { wallPiece } from './walls'

/** A part's tie to its face: in line; the form has changed since; its face is gone. `why` says what changed. */
export interface Bond { status: 'bonded' | 'drifted' | 'loose'; why: string | null }

const BONDED: Bond = { status: 'bonded', why: null }
const drifted = (why: string): Bond => ({ status: 'drifted', why })
const loose = (why: string): Bond => ({ status: 'loose', why })

/** Compares what the part saw of its host with the host as it is: surface and boundary, never the area alone. */
export function bondOf(context: FabricContext, part: Part): Bond {
  const { print } = part
  const form = context.forms.get(part.host.mass)
  if (!form) return GONE
  if (print.kind === 'plate') {
    const level = context.levels.find((l) => l.id === part.base?.level)
    const takes = context.scheme.masses[form.id]?.takes
    return context.memo.of(part, 'bond', [form, level?.height, level?.kind, takes, levelHeight(context, context.scheme.masses[form.id]?.base.level ?? '')], () => plateBond(context, part, print, form))
  }
  const { from, to } = wallBand(context, part)
  return context.memo.of(part, 'bond', [form, levelHeight(context, print.zFrom), from, to], () => {
    const now = hostFace(form, part.host.face)
    if (!now) return loose('its face is gone')
    return now.split ? drifted('its face is in several pieces now') : faceBond(context, part, print, now.face)
  })
}
const GONE = loose('its mass is gone')

/** The face that a part names, as it is now; of a face that has been split since, the largest piece, with `split` saying so. */
export function hostFace(form: MassForm, name: string): { face: WorldFace; split: boolean } | null {
  const faces = facesOfForm(form)
  const exact = faces.find((f) => f.name === name)
  if (exact) return { face: exact, split: false }
  const pieces = faces.filter((f) => rawName(f.name) === rawName(name)).sort((a, b) => faceArea(b) - faceArea(a))
  return pieces[0] ? { face: pieces[0], split: pieces.length > 1 } : null
}

/** m2 */
export const faceArea = (face: WorldFace): number => face.loops.reduce((sum, loop) => sum + areaIn(face.plane, loop), 0)

/** A face's name without what tells its pieces apart. */
export const rawName = (name: string): string => name.split('~')[0] ?? name

/** The heights (m) between which a wall belongs to its storey: from its level to the next it reaches, or to the top of its face. */
export function wallBand(context: FabricContext, part: Part): { from: number; to: number } {
  const at = (tie: Part['base']) => (tie ? levelHeight(context, tie.level) + context.numbers.length(tie.above) : null)
  return { from: at(part.base) ?? -Infinity, to: at(part.top) ?? Infinity }
}

function faceBond(context: FabricContext, part: Part, print: FacePrint, now: WorldFace): Bond {
  const then = printedFace(print, levelHeight(context, print.zFrom), part.host.face)
  const corners: Vec3[] = now.loops.flat()
  const inPlane = samePlane(now.plane, then.plane, corners)
  if (inPlane && sameCorners(then.loops.flat(), corners)) return BONDED
  if (!inPlane) {
    const dot = now.plane.n[0] * then.plane.n[0] + now.plane.n[1] * then.plane.n[1] + now.plane.n[2] * then.plane.n[2]
    return drifted(dot > 1 - 1e-9 ? 'its face has moved' : 'its face has turned')
  }
  if (part.kind !== 'wall') return drifted('its face is reshaped')
  const { from, to } = wallBand(context, part)
  const [was, is] = [wallPiece(then, from, to, part.host.piece), wallPiece(now, from, to, part.host.piece)]
  if (!is) return piecesBetween(now, from, to).length ? drifted('its face is divided in another way') : loose('its face no longer reaches this storey')
  return was && sameCorners(was.region.flat(), is.region.flat()) ? BONDED : drifted('its face is reshaped')
}

function plateBond(context: FabricContext, part: Part, print: PlatePrint, form: MassForm): Bond {
  const level = part.base?.level
  if (!level || !takenStoreys(context, form).some((l) => l.id === level)) return loose('its mass gives no floor at this level any more')
  const baseLevel = context.scheme.masses[form.id]?.base.level ?? ''
  if (formPrint(form, levelHeight(context, baseLevel)) === print.form) return BONDED
  const plate = context.plateAt(form, levelHeight(context, level))
  return plate && sameCorners(print.loops.flat(), plate.region.flat()) ? BONDED : drifted('the outline of its floor has changed')
}
