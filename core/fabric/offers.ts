import type { Part } from '../project'
import type { FaceSlope } from './context'
import type { PartRole } from './part-shape'

/**
 * A part that a face could become; `part` has no id, build-up and overhang yet. `off`: how far (m) it lies off its face at most; null
 * where it is on it.
 */
export interface Candidate {
  key: string
  role: PartRole
  area: number
  off: number | null
  /** m that a flat facet of it lacks to be flat: a corner off the plane of the three others; null where that is not asked */ warp:
    number | null
  part: Omit<Part, 'id' | 'order' | 'buildUp' | 'overhang' | 'overhangs' | 'rise' | 'letGo' | 'stays' | 'kept'>
}

/** What is not made, and why. */
export interface LeftOut {
  mass: string
  what: string
  why: string
  area: number
}

/** What is made, but should be looked at. */
export interface Remark {
  mass: string
  what: string
  say: string
}

/** What a face can be taken as. */
export type FaceAs = 'wall' | 'upright walls' | 'facets' | 'roof' | 'soffit slab' | 'nothing'

/** A face with what it would become and what else it could; `off` m, of what it would become. */
export interface FaceOffer {
  mass: string
  face: string
  label: string
  slope: FaceSlope
  bent: boolean
  as: FaceAs
  choices: FaceAs[]
  area: number
  off: number | null
}

export interface Proposal {
  candidates: Candidate[]
  leftOut: LeftOut[]
  remarks: Remark[]
  faces: FaceOffer[]
}

/** How faces are to be taken, where there is a choice. `overrule` by mass and face, as `faceKey` writes them. */
export interface How {
  reach: 'storey' | 'through'
  bent: 'upright walls' | 'facets'
  terraces: boolean
  parapets: boolean
  overrule: Readonly<Record<string, FaceAs>>
}

export const USUAL: How = { reach: 'storey', bent: 'upright walls', terraces: false, parapets: false, overrule: {} }
/** The key by which choices for a face are kept. */
export const faceKey = (mass: string, face: string): string => `${mass}|${face}`

/** What tells one part of the building from another, whoever made it. A roof and a terrace are one place. */
export const partKey = (part: Pick<Part, 'kind' | 'host' | 'base'>): string =>
  part.kind === 'wall' || (part.kind === 'slab' && part.host.face === 'plate')
    ? `${part.kind}|${part.host.mass}|${part.host.face}|${part.base?.level ?? ''}|${part.host.piece}`
    : `${part.kind === 'terrace' ? 'roof' : part.kind}|${part.host.mass}|${part.host.face}`
