import { rawName, TOLERANCE } from '../solid'
import { massesRead, recipeText, type MassForm } from '../form'
import { oneFloors, type LevelHeight } from '../levels'
import { recipeTies, valuesKey } from '../moves'
import {
  canonical,
  type Attempts,
  type Memo,
  type Numbers,
  type Part,
  type Project,
  type Scheme,
  fingerprint,
} from '../project'
import type { Off, Plate } from '../slice'
import { exact, tiltOf, worldFaces, type Ties, type WorldFace } from './print'

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
  /** the masses that take floor off, which give no fabric */
  voids: ReadonlyMap<string, MassForm>
  /** the plate of a mass at any height, cached */
  plateAt(form: MassForm, z: number): Plate | null
  /** what was taken off the plate of a mass on a level: voids, and changes of the plate */
  offAt(mass: string, level: string): readonly Off[]
  /** what was computed of a part, kept while nothing it was computed from changes */
  memo: Memo
  /** runs the nodes of the study, and notes those that fail */
  attempts: Attempts
}

/** The storeys that a mass takes: those that cut it, less the exceptions, or the chosen ones that cut it; of several at one height the first. */
export function takenStoreys(
  context: Pick<FabricContext, 'scheme' | 'levels' | 'plateAt'>,
  form: MassForm,
): LevelHeight[] {
  const takes = context.scheme.masses[form.id]?.takes
  if (!takes) return []
  const listed = new Set(takes.levels)
  const taken = context.levels.filter(
    (l) =>
      l.kind === 'storey' && listed.has(l.id) === (takes.kind === 'only') && context.plateAt(form, l.height) !== null,
  )
  return oneFloors(taken).map((floor) => floor.level)
}

/** m above the datum; 0 for a level that is not there. */
export const levelHeight = (context: Pick<FabricContext, 'heights'>, id: string): number => context.heights.get(id) ?? 0

/** The height of a level as a part hangs on it, m: of one that was let go, as it was then. */
export const tiedHeight = (
  context: Pick<FabricContext, 'heights'>,
  part: Pick<Part, 'letGo' | 'stays'>,
  id: string,
): number => (part.letGo ? part.stays?.[id] : undefined) ?? levelHeight(context, id)

/** The faces of a standing mass, kept as long as the mass stands as it does. */
export function facesOfForm(form: MassForm): WorldFace[] {
  let faces = known.get(form)
  if (!faces) known.set(form, (faces = worldFaces(form)))
  return faces
}
const known = new WeakMap<MassForm, WorldFace[]>()

/** What a face is by its slope: wall-like (upright, or leaning), roof-like, soffit-like, or the base that the mass stands on. */
export type FaceSlope = 'upright' | 'leaning' | 'roof' | 'soffit' | 'base'

/**
 * By the project's two limits: within the first of upright, within the second wall-like; what looks down at the mass's foot is its base.
 */
export function faceSlope({ project }: Pick<FabricContext, 'project'>, face: WorldFace, form: MassForm): FaceSlope {
  const nz = tiltOf(face)
  const lean = Math.abs(nz)
  if (lean < Math.sin((project.upright * Math.PI) / 180)) return face.bent ? 'leaning' : 'upright'
  if (lean < Math.sin((project.wallLike * Math.PI) / 180)) return 'leaning'
  if (nz > 0) return 'roof'
  const lowest = Math.min(...face.loops.flat().map((p) => p[2]))
  return nz < -1 + TOLERANCE.slope && lowest < form.base + TOLERANCE.height ? 'base' : 'soffit'
}

/** The levels that a mass's faces hang on, and its form told apart from where the levels are. */
export function tiesOf(context: FabricContext, form: MassForm): Ties {
  const mass = context.scheme.masses[form.id]
  const zFrom = mass?.base.level ?? ''
  const up = mass ? recipeTies(mass.recipe.filter((m) => m.move === 'raise'))[0] : undefined
  const to = up ? levelHeight(context, up.level) : 0
  return {
    zFrom,
    from: levelHeight(context, zFrom),
    zTo: up?.level ?? null,
    to,
    top: up ? to + context.numbers.length(up.above) : 0,
    above: !mass?.recipe.some((m) => m.move === 'join'),
    form: formSign(context, form),
  }
}

/** A form by its content, without the heights of levels: equal as long as nothing but levels has moved. */
export function formSign(context: FabricContext, form: MassForm): string {
  // All parts of a mass ask for it.
  let told = signs.get(context)
  if (!told) signs.set(context, (told = new Map()))
  let sign = told.get(form)
  if (sign === undefined) told.set(form, (sign = signOf(context, form)))
  return sign
}
const signs = new WeakMap<FabricContext, Map<MassForm, string>>()

function signOf(context: FabricContext, form: MassForm): string {
  const mass = context.scheme.masses[form.id]
  if (!mass) return ''
  const { at } = form
  const values = `${valuesKey(mass.recipe, context.numbers)}@${exact(at.x)},${exact(at.y)},${exact(at.turn)},${mass.base.level}+${context.numbers.length(mass.base.above)}`
  // What other masses make of it counts as its own: none for nearly all.
  const read = massesRead(mass.recipe, context.scheme.masses)
  const theirs = read.map((m) => (m ? valuesKey(m.recipe, context.numbers) : ''))
  return context.memo.keep(form, 'sign', [mass.recipe, values, ...read, ...theirs], () =>
    fingerprint(
      `${recipeText(mass.recipe)}|${values}${read.map((m, i) => (m ? `|${canonical([m.recipe, m.place, m.base])}${theirs[i]}` : '|')).join('')}`,
    ),
  )
}

/** By what kinds of face a floor is bounded: upright, leaning, round or bent ones. */
export function sidesOf(context: FabricContext, form: MassForm, plate: Plate): string {
  const faces = new Map(facesOfForm(form).map((f) => [rawName(f.name), f]))
  const kind = (name: string) => {
    const face = faces.get(name)
    return face ? `${name} ${face.round ? 'round' : face.bent ? 'bent' : faceSlope(context, face, form)}` : name
  }
  return fingerprint([...new Set(plate.loops.flatMap((l) => l.faces))].sort().map(kind).join())
}
