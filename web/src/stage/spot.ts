import { faceLabel } from '@geotome/core/solid'
import type { MassView } from '../worker/protocol'

/** What of a mass is picked: a face, an edge (by the faces that meet there: two) or a corner (three), by their names. */
export interface Spot {
  kind: 'face' | 'edge' | 'corner'
  mass: string
  faces: string[]
}

/** What a face of a mass is called: as the study says, or, where it has it no more, as it was drawn. */
export const calledFace = (mass: Pick<MassView, 'faces'> | undefined, face: string): string =>
  mass?.faces.find((f) => f.name === face)?.label ?? faceLabel(face)

export const sameSpot = (a: Spot, b: Spot): boolean =>
  a.kind === b.kind && a.mass === b.mass && a.faces.join() === b.faces.join()
