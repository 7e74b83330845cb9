import { fingerprint } from '../values'
import type { MassForm } from '../form'
import type { Part } from '../project'
import { rawName, stripOf, type Vec3, TOLERANCE } from '../solid'
import { piecesBetween, pointAt, type Piece } from './pieces'
import { facesOfForm, formSign, levelHeight, sidesOf, takenStoreys, tiedHeight, type FabricContext } from './context'
import {
  faceArea,
  printedFace,
  sameArc,
  sameCorners,
  samePlane,
  type FacePrint,
  type PlatePrint,
  type WorldFace,
} from './print'
import { storeyFaces, type StoreyFace } from './storey-face'
import { closedOver } from './roof-space'
import { wallPiece } from './walls'

/**
 * A part's tie to its face: in line; the form has changed since; its face is gone, or it was let go. `why` says what changed.
 * `left`: on purpose, kept as it is or let go, so that nothing needs to be done.
 */
export interface Bond {
  status: 'bonded' | 'drifted' | 'loose'
  why: string | null
  left: boolean
}

const BONDED: Bond = { status: 'bonded', why: null, left: false }
const drifted = (why: string): Bond => ({ status: 'drifted', why, left: false })
const loose = (why: string): Bond => ({ status: 'loose', why, left: false })
const GONE = loose('its mass is gone')
const UNBUILT = loose('its mass cannot be built')
const LET_GO: Bond = { status: 'loose', why: 'it was let go on purpose', left: true }

/** Compares what the part saw of its host with the host as it is: surface and boundary, never the area alone. */
export function bondOf(context: FabricContext, part: Part): Bond {
  if (part.letGo) return LET_GO
  const bond = plainBond(context, part)
  return bond.status !== 'bonded' && part.kept !== null && part.kept === hostState(context, part)
    ? { ...bond, left: true }
    : bond
}

function plainBond(context: FabricContext, part: Part): Bond {
  const { print } = part
  const form = context.forms.get(part.host.mass)
  if (!form) return context.scheme.masses[part.host.mass]?.context === false ? UNBUILT : GONE
  const sign = formSign(context, form)
  if (print.kind === 'plate') {
    const level = context.levels.find((l) => l.id === part.base?.level)
    const takes = context.scheme.masses[form.id]?.takes
    return context.memo.keep(part, 'bond', [form, sign, level?.height, level?.kind, takes], () =>
      plateBond(context, part, print, form, sign),
    )
  }
  const { from, to } = wallRange(context, part)
  const [low, high] = printHeights(context, part, print)
  return context.memo.keep(part, 'bond', [form, sign, low, high, from, to], () =>
    faceBond(context, part, print, form, sign),
  )
}

/** m: the heights of the levels that a print is measured from. */
export const printHeights = (
  context: FabricContext,
  part: Pick<Part, 'letGo' | 'stays'>,
  print: FacePrint,
): [number, number] => [
  tiedHeight(context, part, print.zFrom),
  print.zTo === null ? 0 : tiedHeight(context, part, print.zTo),
]

/** The face that a part names, as it is now; of a face that has been split since, the largest piece, with `split` saying so. */
export function hostFace(form: MassForm, name: string): { face: WorldFace; split: boolean } | null {
  const faces = facesOfForm(form)
  const exact = faces.find((f) => f.name === name)
  if (exact) return { face: exact, split: false }
  const pieces = faces.filter((f) => rawName(f.name) === rawName(name)).sort((a, b) => faceArea(b) - faceArea(a))
  return pieces[0] ? { face: pieces[0], split: pieces.length > 1 } : null
}

/** What a part that takes its bent face storey by storey stands on, as its face is now. */
export function hostInStorey(context: FabricContext, form: MassForm, part: Part): StoreyFace | null {
  const host = hostFace(form, part.host.face)
  if (!host?.face.bent || part.follow === 'face') return null
  const { from, to } = wallRange(context, part)
  const found = storeyFaces(context, form, host.face, from, to, part.follow)
  return (
    found.find((f) => f.key === stripOf(part.host.piece)) ??
    (found.length === 1 || stripOf(part.host.piece) === '' ? (found[0] ?? null) : null)
  )
}

/**
 * The face that a part is shaped by: as it is while the form is the one that the part saw, only levels having moved; as the part saw it
 * otherwise.
 */
export function shapingFace(
  context: FabricContext,
  part: Part,
  print: FacePrint,
): { face: WorldFace; rows: [Vec3[], Vec3[]] | null } {
  const form = context.forms.get(part.host.mass)
  const [low, high] = printHeights(context, part, print)
  if (form && !part.letGo && print.form !== '' && print.form === formSign(context, form)) {
    const { from, to } = wallRange(context, part)
    const now = context.memo.keep(part, 'shaping', [form, print, from, to, part.follow], () => {
      const storey = hostInStorey(context, form, part)
      const host = storey ? null : hostFace(form, part.host.face)
      return (
        storey ??
        (host && !host.split && !(host.face.bent && part.kind === 'wall') ? { face: host.face, rows: null } : null)
      )
    })
    if (now) return now
  }
  return context.memo.keep(part, 'printed', [print, low, high], () => {
    const place = ([x = 0, y = 0, z = 0, tied]: number[]): Vec3 => [x, y, z + (tied ? high : low)]
    return {
      face: printedFace(print, low, high, part.host.face),
      rows: print.rows && ([print.rows[0].map(place), print.rows[1].map(place)] as [Vec3[], Vec3[]]),
    }
  })
}

/** The heights (m) between which a wall belongs to its storey: from its level to the next it reaches, or to the top of its face. */
export function wallRange(
  context: FabricContext,
  part: Pick<Part, 'base' | 'top' | 'letGo' | 'stays'>,
): { from: number; to: number } {
  const at = (tie: Part['base']) =>
    tie ? tiedHeight(context, part, tie.level) + context.numbers.length(tie.above) : null
  return { from: at(part.base) ?? -Infinity, to: at(part.top) ?? Infinity }
}

/** The state of a part's host, by content: what "keep as it is" remembers. */
export function hostState(context: FabricContext, part: Part): string {
  const form = context.forms.get(part.host.mass)
  if (!form) return 'gone'
  const corners = (() => {
    if (part.print.kind === 'plate')
      return part.base ? context.plateAt(form, levelHeight(context, part.base.level))?.region.flat() : undefined
    return (hostInStorey(context, form, part)?.face ?? hostFace(form, part.host.face)?.face)?.loops.flat()
  })()
  return corners ? fingerprint(corners.map((p) => p.map((c) => (c + 0).toFixed(4)).join()).join(' ')) : 'gone'
}

function faceBond(context: FabricContext, part: Part, print: FacePrint, form: MassForm, sign: string): Bond {
  const host = hostFace(form, part.host.face)
  if (!host) return loose('its face is gone')
  if (print.form !== '' && print.form === sign)
    return part.kind === 'wall' && !stands(context, part, form, host.face)
      ? loose('its face no longer reaches this storey')
      : BONDED
  if (host.split) return drifted('its face is in several pieces now')
  const [low, high] = printHeights(context, part, print)
  const then = printedFace(print, low, high, part.host.face)
  const storey = part.kind === 'wall' && part.follow !== 'face' ? hostInStorey(context, form, part) : null
  if (part.kind === 'wall' && part.follow !== 'face' && host.face.bent && !storey)
    return loose('its face no longer reaches this storey')
  const now = storey?.face ?? host.face
  if (then.bent !== now.bent || (then.round === null) !== (now.round === null))
    return drifted('its face is curved in another way')
  if (now.round && then.round) {
    if (!sameArc(now.round, then.round))
      return drifted(
        Math.abs(now.round.r - then.round.r) < TOLERANCE.touch ? 'its face has moved' : 'its face has another radius',
      )
  } else if (now.bent) {
    return sameCorners(then.flats.flat(), now.flats.flat()) ? BONDED : drifted('its face is reshaped')
  } else if (!samePlane(now.plane, then.plane, now.loops.flat())) {
    const dot = now.plane.n[0] * then.plane.n[0] + now.plane.n[1] * then.plane.n[1] + now.plane.n[2] * then.plane.n[2]
    return drifted(dot > 1 - TOLERANCE.rounding ? 'its face has moved' : 'its face has turned')
  }
  if (storey?.rows && print.rows) {
    const [foot, head] = print.rows.map((row) =>
      row.map(([x = 0, y = 0, z = 0, tied]): Vec3 => [x, y, z + (tied ? high : low)]),
    ) as [Vec3[], Vec3[]]
    return sameCorners([...foot, ...head], storey.rows.flat()) ? BONDED : drifted('its face is reshaped')
  }
  if (sameCorners(then.loops.flat(), now.loops.flat())) return BONDED
  if (part.kind !== 'wall') return drifted('its face is reshaped')
  const { from, to } = wallRange(context, part)
  const [was, is] = [then, now].map((face) =>
    wallPiece(face, from, to, storey ? '' : stripOf(part.host.piece), closedOver(form, from)),
  ) as [Piece | null, Piece | null]
  if (!is)
    return piecesBetween(now, from, to).length
      ? drifted('its face is divided in another way')
      : loose('its face no longer reaches this storey')
  return was && sameCorners(cornersOf(then, was), cornersOf(now, is)) ? BONDED : drifted('its face is reshaped')
}

/** Whether a wall's face still has a piece in its storey. */
function stands(context: FabricContext, part: Part, form: MassForm, face: WorldFace): boolean {
  const { from, to } = wallRange(context, part)
  if (face.bent && part.follow !== 'face') return hostInStorey(context, form, part) !== null
  return face.bent || piecesBetween(face, from, to).length > 0
}

const cornersOf = (face: WorldFace, piece: Piece): Vec3[] =>
  piece.region.flat().map(([u, z]): Vec3 => [...pointAt(face, u, z), z])

function plateBond(context: FabricContext, part: Part, print: PlatePrint, form: MassForm, sign: string): Bond {
  const level = part.base?.level
  if (!level || !takenStoreys(context, form).some((l) => l.id === level))
    return loose('its mass gives no floor at this level any more')
  if (sign === print.form) return BONDED
  const plate = context.plateAt(form, levelHeight(context, level))
  if (!plate || !sameCorners(print.loops.flat(), plate.region.flat()))
    return drifted('the outline of its floor has changed')
  return print.sides === '' || print.sides === sidesOf(context, form, plate)
    ? BONDED
    : drifted('the faces around it are of another kind now')
}
