import { batch, type Edit, type SingleEdit } from '../edits'
import { nextOrder, refuse, type Id, type Num, type Part } from '../project'
import { hostFace } from './bond'
import { levelHeight, type FabricContext } from './context'
import type { PartStudy } from './parts'
import { facePrint, platePrint } from './print'
import type { Candidate } from './propose'

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
  const edits = parts.filter((p) => p.bond.status === 'drifted').map((study): SingleEdit => ({ edit: 'part.change', scheme: context.scheme.id, id: study.id, set: { print: freshPrint(context, study.part) } }))
  return edits.length ? batch(edits) : refuse('geometry', 'No part has drifted.', 'Nothing needs to be done.')
}

/** Removes parts; loose ones first of all. */
export const removeParts = (context: FabricContext, ids: Id[]): Edit =>
  batch(ids.map((id): SingleEdit => ({ edit: 'part.remove', scheme: context.scheme.id, id })))

/** What the part sees of its host now. */
function freshPrint(context: FabricContext, part: Part): Part['print'] {
  const form = context.forms.get(part.host.mass) ?? refuse('unknown-id', `The mass of "${part.name}" is gone.`, 'Remove the part, or undo the removal of the mass.')
  const baseLevel = context.scheme.masses[form.id]?.base.level ?? ''
  const height = levelHeight(context, baseLevel)
  if (part.print.kind === 'plate') {
    const plate = part.base ? context.plateAt(form, levelHeight(context, part.base.level)) : null
    return plate ? platePrint(form, height, plate.region) : refuse('geometry', `"${part.name}" has no floor to follow.`, 'Remove the part, or let the mass take the level again.')
  }
  const face = hostFace(form, part.host.face) ?? refuse('geometry', `The face of "${part.name}" is gone.`, 'Remove the part.')
  return facePrint(face, baseLevel, height)
}
