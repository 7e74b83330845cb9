import Module from 'manifold-3d/manifold'
import { applyEdit, type Edit } from '@geotome/core/edits'
import { usualChoices, addParts, partsFrom, propose } from '@geotome/core/fabric'
import { moveMasses } from '@geotome/core/form'
import { moveLevel } from '@geotome/core/levels'
import { inOrder, type Project } from '@geotome/core/project'
import { openKernel, placePoint, placeSolid, type Solid, type Vec2 } from '@geotome/core/solid'
import { firstScheme, StudyCache, studyScheme, type Study } from '@geotome/core/study'
import { table } from '../../cli/src/reports'
import { town } from './projects'

/**
 * Measures the study against the bare kernel on the same data: a body from each mass, its slice at each level it takes, and
 * one union a level. Each row is the best of three runs in one process.
 */
await openKernel()
const kernel = await Module()
kernel.setup()
const rows: string[][] = []
const MASSES = 200
const LEVELS = 100

const project = town(MASSES, LEVELS)
const id = firstScheme(project).id
const small = town(10, 10)
studyScheme(small, firstScheme(small).id) // the first run pays for the compiler

const study = studyScheme(project, id)
const bare = best(3, () => bareKernel(study, study.floors.map((_, i) => i), study.forms.map((_, i) => i)))
const cold = best(3, () => { studyScheme(project, id, new StudyCache()) })
row(`cold: ${MASSES} masses x ${LEVELS} levels`, cold, bare, cold)

const cache = new StudyCache()
studyScheme(project, id, cache)
const middle = study.levels[Math.floor(LEVELS / 2)]?.id ?? ''
const oneLevel = again((n) => moveLevel(project, firstScheme(project), middle, LEVELS / 2 * 3 + 0.1 * n, 'held'))
row('  one level moved, those above held', oneLevel, best(3, () => bareKernel(study, [Math.floor(LEVELS / 2)], study.forms.map((_, i) => i))), cold)
const tower = inOrder(firstScheme(project).masses)[77]?.id ?? ''
const oneMass = again((n) => moveMasses(project, firstScheme(project), [tower], [0.1 * n, 0]))
row('  one mass moved', oneMass, best(3, () => bareKernel(study, study.floors.map((_, i) => i), [77])), cold)
row('  nothing changed', again(() => ({ edit: 'project.change', set: { name: 'Town' } })), null, cold)

const houses = town(40, 12)
const housesId = firstScheme(houses).id
const shown = studyScheme(houses, housesId)
let n = 0
const offer = best(3, () => { propose(shown.context) })
const parts = partsFrom(shown.context, () => `part-${++n}`, propose(shown.context).candidates, { ...usualChoices(houses), overhang: 0.5 })
const made = applyEdit(houses, addParts(shown.context, parts)).project
const warm = new StudyCache()
studyScheme(houses, housesId, warm)
row('preview of a building: 40 masses x 12 levels', offer, null, null)
row(`fabric of ${parts.length} parts, joined and bonded`, best(3, () => { studyScheme(made, housesId, warm) }), null, null)

process.stdout.write(`${table(['study', 'ms', 'bare kernel ms', 'times the kernel', 'share of cold'], rows)}\n`)

function row(what: string, ms: number, kernelMs: number | null, whole: number | null): void {
  rows.push([what, ms.toFixed(1), kernelMs?.toFixed(1) ?? '', kernelMs ? (ms / kernelMs).toFixed(2) : '', whole ? `${((100 * ms) / whole).toFixed(1)} %` : ''])
}

function best(times: number, work: () => void): number {
  let least = Infinity
  for (let i = 0; i < times; i++) { const started = performance.now(); work(); least = Math.min(least, performance.now() - started) }
  return least
}

/** Studies after an edit on the warm cache; each run edits to a new place, so that nothing is known already. */
function again(edit: (n: number) => Edit): number {
  let least = Infinity
  for (let i = 1; i <= 4; i++) {
    const changed: Project = applyEdit(project, edit(i)).project
    const started = performance.now()
    studyScheme(changed, id, cache)
    least = Math.min(least, performance.now() - started)
  }
  return least
}

/** The calls to the kernel that the same result needs: bodies of the given masses, their slices, one union for each given level. */
function bareKernel(of: Study, levels: number[], masses: number[]): void {
  const touched = new Set(masses)
  const bodies = of.forms.map((f, i) => {
    if (!touched.has(i)) return null
    const mesh = placeSolid(f.body.solid, f.at)
    const body = kernel.Manifold.ofMesh(meshOf(mesh))
    return body
  })
  for (const level of levels) {
    const floor = of.floors[level]
    if (!floor) continue
    const sections = floor.plates.flatMap((plate) => {
      const i = of.forms.findIndex((f) => f.id === plate.mass)
      const body = bodies[i]
      return body ? [body.slice(floor.level.height + 1e-5)] : [new kernel.CrossSection(plate.region.map((l) => l.map((p): Vec2 => placePoint(p, { x: 0, y: 0, z: 0, turn: 0 }))), 'Positive')]
    })
    if (sections.length === 0) continue
    const union = kernel.CrossSection.union(sections)
    union.area()
    union.delete()
    for (const section of sections) section.delete()
  }
  for (const body of bodies) body?.delete()
}

function meshOf(solid: Solid): InstanceType<typeof kernel.Mesh> {
  return new kernel.Mesh({ numProp: 3, vertProperties: Float32Array.from(solid.positions), triVerts: solid.triangles.slice() })
}
