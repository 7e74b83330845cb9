import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import type { Memo, Numbers, Project, Scheme } from '../project'
import type { Plate } from '../slice'
import { worldFaces, type WorldFace } from './print'

/** What fabric is computed from: the scheme's numbers, levels and standing masses. */
export interface FabricContext {
  project: Project
  scheme: Scheme
  numbers: Numbers
  /** all levels, lowest first */
  levels: LevelHeight[]
  /** m above the datum by level */
  heights: ReadonlyMap<string, number>
  forms: Map<string, MassForm>
  /** the plate of a mass at any height, cached */
  plateAt(form: MassForm, z: number): Plate | null
  /** what was computed of a part, kept while nothing it was computed from changes */
  memo: Memo
}

/** The storeys that a mass takes: those that cut it, less the exceptions, or the chosen ones that cut it. */
export function takenStoreys(context: Pick<FabricContext, 'scheme' | 'levels' | 'plateAt'>, form: MassForm): LevelHeight[] {
  const takes = context.scheme.masses[form.id]?.takes
  if (!takes) return []
  const listed = new Set(takes.levels)
  return context.levels.filter((l) => l.kind === 'storey' && listed.has(l.id) === (takes.kind === 'only') && context.plateAt(form, l.height) !== null)
}

export const levelHeight = (context: Pick<FabricContext, 'heights'>, id: string): number => context.heights.get(id) ?? 0

/** The faces of a standing mass, kept as long as the mass stands as it does. */
export function facesOfForm(form: MassForm): WorldFace[] {
  let faces = known.get(form)
  if (!faces) known.set(form, faces = worldFaces(form))
  return faces
}
const known = new WeakMap<MassForm, WorldFace[]>()

/** What a face becomes by its slope: upright a wall, looking up a roof, looking down a soffit (or the base, where the mass stands). */
export function faceRole(face: WorldFace, form: MassForm, uprightLimit: number): 'wall' | 'roof' | 'soffit' | 'base' {
  const nz = face.plane.n[2]
  if (Math.abs(nz) < Math.sin(uprightLimit * Math.PI / 180)) return 'wall'
  if (nz > 0) return 'roof'
  const lowest = Math.min(...face.loops.flat().map((p) => p[2]))
  return lowest < form.base + 1e-5 ? 'base' : 'soffit'
}
