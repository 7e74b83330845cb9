import { applyEdit } from '@geotome/core/edits'
import { newMass, newRepeat, newRule } from '@geotome/core/form'
import { addStoreys } from '@geotome/core/levels'
import { blankProject, type Project, type Scheme } from '@geotome/core/project'
import { firstScheme, StudyCache, studyScheme, trialGrid, trialSteps } from '@geotome/core/study'

type Row = (what: string, ms: number, bareMs: number | null, whole: number | null) => void
type Best = (times: number, work: () => void) => number

let count = 0
const mint = () => `rules-${++count}`

/** A scheme of so many storeys; what is put into it is made by its first level and use. */
function blank(storeys: number, each: number): { project: Project; level: string; use: string } {
  const project = blankProject(mint, 'Rules', 'm', 10000)
  const level = Object.keys(firstScheme(project).levels)[0] as string
  const added = addStoreys(
    project,
    firstScheme(project),
    mint,
    { on: level, count: storeys - 1, each, pattern: 'Storey {n}', first: 1 },
    'carried',
  )
  return { project: applyEdit(project, added).project, level, use: Object.keys(project.uses)[0] as string }
}

/** The tower cluster with a dial turned, and its trials; a thousand copies of one body. */
export function benchRules(row: Row, best: Best): void {
  const { project, level, use } = blank(31, 3.5)
  const stands = { use, level, at: [0, 0] as const }
  const cluster = applyEdit(project, newRule(project, firstScheme(project), mint, stands, 'cluster')).project
  const scheme = firstScheme(cluster)
  const dial = (name: string) => Object.values(scheme.dials).find((d) => d.name === name)?.id ?? ''
  const turned = (name: string, value: number): Project =>
    applyEdit(cluster, { edit: 'dial.change', scheme: scheme.id, id: dial(name), set: { value } }).project
  const cache = new StudyCache()
  studyScheme(cluster, scheme.id, cache)
  let twist = 72
  row(
    'tower cluster, 6 towers of 31 storeys: its twist changed',
    best(5, () => void studyScheme(turned('twist', ++twist), scheme.id, cache)),
    null,
    null,
  )
  let inset = 0.8
  const narrowed = (trying: boolean) =>
    best(5, () => void studyScheme(turned('inset', (inset += 0.01)), scheme.id, cache, undefined, trying))
  row('  its inset changed, where the towers overlap: areas and picture', narrowed(true), null, null)
  row('    and the volume that they have in common', narrowed(false), null, null)
  row(
    '  100 trials of its twist',
    best(1, () => {
      const grid = trialGrid([{ dial: dial('twist'), from: 0, to: 120, count: 100 }])
      const steps = trialSteps(cluster, scheme.id, [dial('twist')], grid)
      while (!steps.next().done);
    }),
    null,
    null,
  )
  const copies = thousand()
  row(
    '1,000 copies of a round body of 332 triangles, from nothing',
    best(3, () => void studyScheme(copies, firstScheme(copies).id, new StudyCache())),
    null,
    null,
  )
}

function thousand(): Project {
  let { project } = blank(2, 3)
  const scheme = (): Scheme => firstScheme(project)
  const [use, level] = [Object.keys(project.uses)[0] as string, Object.keys(scheme().levels)[0] as string]
  const thing = newMass(scheme(), mint, {
    name: 'Round',
    use,
    level,
    height: 3,
    shape: { kind: 'circle', centre: [0, 0], radius: 2 },
  })
  project = applyEdit(project, { edit: 'mass.add', scheme: scheme().id, thing }).project
  const repeat = newRepeat(project, scheme(), mint, [thing.id], 'grid')
  const way = { way: 'grid' as const, columns: 40, rows: 25, apart: 6, between: 6, direction: 0 }
  return applyEdit(project, { ...repeat, thing: { ...repeat.thing, way } }).project
}
