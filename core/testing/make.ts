import type { MassForm } from '../form'
import { placePoint, type Region } from '../solid'
import { applyEdit, batch, type Edit, type SingleEdit } from '../edits'
import { propose, partsFrom, addParts, howOf, usualChoices, type Choices } from '../fabric'
import { changeRecipe, newMass, type DrawnShape } from '../form'
import type { Move } from '../moves'
import { blankProject, inOrder, type BuildUp, type Mass, type Project, type Scheme } from '../project'
import { firstScheme, studyScheme, type Study } from '../study'
import type { Vec2 } from '../solid'

/** Ids that count up, so that a test's project is the same on every run. */
export function minter(prefix = 'id'): () => string {
  let n = 0
  return () => `${prefix}-${++n}`
}

/**
 * A project with storeys at the given heights (stacked, the first one at its own height) and no masses. Before its scheme lies
 * another one with levels of the same ids, as after duplicating: what takes the first scheme that has an id shows itself.
 */
export function projectWith(heights: number[], mint = minter()): Project {
  const blank = blankProject(mint, 'Test', 'm', null)
  const scheme = firstScheme(blank)
  const levels = Object.fromEntries(
    heights.map((h, i) => {
      const tie =
        i === 0
          ? { kind: 'fixed' as const, height: h }
          : { kind: 'stacked' as const, on: `L${i - 1}`, above: h - (heights[i - 1] ?? 0) }
      return [`L${i}`, { id: `L${i}`, name: `Level ${i}`, kind: 'storey' as const, tie, floorBuildUp: 0, slab: 0 }]
    }),
  )
  const aside: Scheme = {
    ...scheme,
    id: 'aside',
    name: 'Put aside',
    order: -1,
    levels: Object.fromEntries(
      Object.values(levels).map((l) => [
        l.id,
        l.tie.kind === 'fixed' ? { ...l, tie: { ...l.tie, height: l.tie.height + 0.7 } } : l,
      ]),
    ),
  }
  return { ...blank, schemes: { aside, [scheme.id]: { ...scheme, levels } } }
}

/** The scheme that is worked on: the last one. */
export const schemeOf = (project: Project): Scheme => inOrder(project.schemes).at(-1) ?? firstScheme(project)
export const apply = (project: Project, ...edits: Edit[]): Project =>
  edits.reduce((p, e) => applyEdit(p, e).project, project)
/** The plan of a mass where it stands, m. */
export const standingPlan = (form: MassForm): Region =>
  form.body.plan().map((l) => l.map((p) => placePoint(p, form.at)))
export const studied = (project: Project): Study => studyScheme(project, schemeOf(project).id)

/** Adds a mass drawn at world points. */
export function withMass(
  project: Project,
  drawn: {
    name?: string
    use?: string
    level?: string
    height: number
    upTo?: string
    points?: Vec2[]
    bulges?: number[]
    circle?: [number, number, number]
    box?: [number, number, number, number]
  },
  more: (mass: Mass) => Mass = (m) => m,
): Project {
  const scheme = schemeOf(project)
  const name = drawn.name ?? `Mass ${Object.keys(scheme.masses).length + 1}`
  const use = inOrder(project.uses).find((u) => u.name === (drawn.use ?? 'homes'))?.id ?? ''
  const [x, y, w, d] = drawn.box ?? [0, 0, 0, 0]
  const shape: DrawnShape = drawn.circle
    ? { kind: 'circle', centre: [drawn.circle[0], drawn.circle[1]], radius: drawn.circle[2] }
    : drawn.points
      ? { kind: 'polygon' as const, points: drawn.points, ...(drawn.bulges ? { bulges: drawn.bulges } : {}) }
      : { kind: 'rectangle' as const, from: [x, y] as Vec2, to: [x + w, y + d] as Vec2 }
  const mass = newMass(scheme, minter(name.replace(/\W/g, '')), {
    name,
    use,
    level: drawn.level ?? 'L0',
    height: drawn.height,
    upTo: drawn.upTo ? { level: drawn.upTo, above: 0 } : null,
    shape,
  })
  return apply(project, { edit: 'mass.add', scheme: scheme.id, thing: more(mass) })
}

export const massNamed = (project: Project, name: string): Mass => {
  const mass = Object.values(schemeOf(project).masses).find((m) => m.name === name)
  if (!mass) throw new Error(`no mass ${name}`)
  return mass
}

/** Changes a mass by its name. */
export const changeMass = (project: Project, name: string, set: Partial<Mass>): Project =>
  apply(project, { edit: 'mass.change', scheme: schemeOf(project).id, id: massNamed(project, name).id, set })

/** The project with the first build-up of each kind as thick as is said, m. */
export const thick = (project: Project, by: Partial<Record<BuildUp['for'], number>>): Project =>
  apply(
    project,
    ...Object.entries(by).map(([kind, thickness]): Edit => ({
      edit: 'build-up.change',
      id: inOrder(project.buildUps).find((b) => b.for === kind)?.id ?? '',
      set: { layers: [{ id: 'only', name: 'layer', material: 'clay', thickness }] },
    })),
  )

/** The usual choices, without terraces, so that every flat top is a roof. */
export const choicesOf = (project: Project, overhang = 0): Choices => ({
  ...usualChoices(project),
  terrace: null,
  parapet: null,
  overhang,
})

/** The project with everything converted that its preview offers. */
export function converted(project: Project, overhang = 0, mint = minter('part'), more: Partial<Choices> = {}): Project {
  const { context } = studied(project)
  const choices = { ...choicesOf(project, overhang), ...more }
  return apply(
    project,
    addParts(context, partsFrom(context, mint, propose(context, undefined, howOf(choices)).candidates, choices)),
  )
}

export const changeLevel = (
  project: Project,
  id: string,
  set: Extract<SingleEdit, { edit: 'level.change' }>['set'],
): Project => apply(project, batch([{ edit: 'level.change', scheme: schemeOf(project).id, id, set }]))

/** The mass with moves behind its raise. */
export const withMoves = (project: Project, name: string, ...moves: Move[]): Project => {
  const mass = massNamed(project, name)
  return apply(
    project,
    changeRecipe(schemeOf(project), mass, (r) => [...r.slice(0, 2), ...moves, ...r.slice(2)]),
  )
}
