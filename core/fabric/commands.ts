import { batch, type Edit, type SingleEdit } from '../edits'
import { nextOrder, refuse, type Id, type Num, type Part } from '../project'
import { piecesBetween, type Piece } from './bands'
import { hostFace, wallBand } from './bond'
import { levelHeight, type FabricContext } from './context'
import type { PartStudy } from './parts'
import { facePrint, platePrint, printedFace, type FacePrint, type WorldFace } from './print'
import type { Candidate } from './propose'
import { wallPiece } from './walls'

/** The build-ups, wall side and overhang chosen in the preview. */
export interface Choices { wall: Id; slab: Id; roof: Id; wallSide: 'inside' | 'outside'; overhang: Num }

/** Candidates with the choices on them, as parts: what the preview draws, and what accepting stores. */
export function partsFrom(context: FabricContext, mint: () => Id, candidates: Candidate[], choices: Choices): Part[] {
  let order = nextOrder(context.scheme.parts)
  return candidates.map(({ part }): Part => ({
    ...part, id: mint(), order: order++, buildUp: choices[part.kind],
    side: part.kind === 'wall' ? choices.wallSide : part.side, overhang: part.kind === 'roof' ? choices.overhang : 0,
  }))
}

export const addParts = (context: FabricContext, parts: Part[]): Edit =>
  parts.length ? batch(parts.map((thing): SingleEdit => ({ edit: 'part.add', scheme: context.scheme.id, thing }))) : refuse('geometry', 'There is nothing to make: all faces have their parts.', 'Draw a mass, or pick another one.')

/** Brings drifted parts in line with their faces, in one gesture; kinds, names and build-ups stay. */
export function bringInLine(context: FabricContext, parts: PartStudy[]): Edit {
  const edits = parts.filter((p) => p.bond.status === 'drifted').map((study): SingleEdit => ({ edit: 'part.change', scheme: context.scheme.id, id: study.id, set: freshTie(context, study.part) }))
  return edits.length ? batch(edits) : refuse('geometry', 'No part has drifted.', 'Nothing needs to be done.')
}

/** Removes parts; loose ones first of all. */
export const removeParts = (context: FabricContext, ids: Id[]): Edit =>
  batch(ids.map((id): SingleEdit => ({ edit: 'part.remove', scheme: context.scheme.id, id })))

/** The part's tie to its host as it is now: what it sees of it, and, where the face was divided, which piece it stands on. */
function freshTie(context: FabricContext, part: Part): Pick<Part, 'print' | 'host'> {
  const form = context.forms.get(part.host.mass) ?? refuse('unknown-id', `The mass of "${part.name}" is gone.`, 'Remove the part, or undo the removal of the mass.')
  const baseLevel = context.scheme.masses[form.id]?.base.level ?? ''
  const height = levelHeight(context, baseLevel)
  if (part.print.kind === 'plate') {
    const plate = part.base ? context.plateAt(form, levelHeight(context, part.base.level)) : null
    return plate ? { print: platePrint(form, height, plate.region), host: part.host } : refuse('geometry', `"${part.name}" has no floor to follow.`, 'Remove the part, or let the mass take the level again.')
  }
  const { face } = hostFace(form, part.host.face) ?? refuse('geometry', `The face of "${part.name}" is gone.`, 'Remove the part.')
  const piece = part.kind === 'wall' ? pieceFor(context, part, part.print, face) : part.host.piece
  return { print: facePrint(face, baseLevel, height), host: { ...part.host, face: face.name, piece } }
}

/** The key of the piece of a face that a wall stands on: its own, or else the one that lies most where it lay. */
function pieceFor(context: FabricContext, part: Part, print: FacePrint, face: WorldFace): string {
  const { from, to } = wallBand(context, part)
  const pieces = piecesBetween(face, from, to)
  if (pieces.length <= 1) return ''
  if (pieces.some((p) => p.key === part.host.piece)) return part.host.piece
  const was = wallPiece(printedFace(print, levelHeight(context, print.zFrom), face.name), from, to, part.host.piece)
  const common = (p: Piece) => (was ? Math.min(p.to, was.to) - Math.max(p.from, was.from) : p.area)
  return [...pieces].sort((a, b) => common(b) - common(a))[0]?.key ?? ''
}
