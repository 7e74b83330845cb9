import { applyEdit, type Edit } from '@geotome/core/edits'
import { usualChoices, addParts, partsFrom, propose } from '@geotome/core/fabric'
import { changeRecipe, moveMasses } from '@geotome/core/form'
import { moveLevel } from '@geotome/core/levels'
import { inOrder, type Mass, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { firstScheme, StudyCache, studyScheme } from '@geotome/core/study'
import { table } from '../../cli/src/reports'
import { bareFigures, bareKernel } from './bare'
import { benchGround } from './ground'
import { benchRules } from './rules'
import { carriedBox, thirtyMoves, town, twistedTower } from './projects'

/**
 * Measures the study against the bare kernel on the same data: a body from each mass, its slice at each level it takes, and
 * one union a level. Each row is the best of three runs in one process, or of the moves of a short drag.
 */
await openKernel()
const rows: string[][] = []
const MASSES = 200
const LEVELS = 100
/** as many as a short drag has: the first few of them are those that the compiler has not seen */
const MOVES = 24

const project = town(MASSES, LEVELS)
const id = firstScheme(project).id
const small = town(10, 10)
studyScheme(small, firstScheme(small).id) // the first run pays for the compiler

const study = studyScheme(project, id)
const bare = best(3, () =>
  bareKernel(
    study,
    study.floors.map((_, i) => i),
    study.forms.map((_, i) => i),
  ),
)
const cold = best(3, fromNothing(project))
row(
  `cold: ${MASSES} masses x ${LEVELS} levels`,
  cold,
  bare,
  cold,
  best(2, () => bareFigures(study)),
)

const cache = new StudyCache()
studyScheme(project, id, cache)
const middle = study.levels[Math.floor(LEVELS / 2)]?.id ?? ''
const oneLevel = again((n) => moveLevel(project, firstScheme(project), middle, (LEVELS / 2) * 3 + 0.1 * n, 'held'))
row(
  '  one level moved, those above held',
  oneLevel,
  best(3, () =>
    bareKernel(
      study,
      [Math.floor(LEVELS / 2)],
      study.forms.map((_, i) => i),
    ),
  ),
  cold,
)
const tower = inOrder(firstScheme(project).masses)[77]?.id ?? ''
const oneMass = again((n) => moveMasses(project, firstScheme(project), [tower], [0.1 * n, 0]))
row(
  '  one mass moved',
  oneMass,
  best(3, () =>
    bareKernel(
      study,
      study.floors.map((_, i) => i),
      [77],
    ),
  ),
  cold,
)
row(
  '  nothing changed',
  again(() => ({ edit: 'project.change', set: { name: 'Town' } })),
  null,
  cold,
)

const houses = town(40, 12)
const housesId = firstScheme(houses).id
const shown = studyScheme(houses, housesId)
let n = 0
const offer = best(3, () => {
  propose(shown.context)
})
const parts = partsFrom(shown.context, () => `part-${++n}`, propose(shown.context).candidates, {
  ...usualChoices(houses),
  overhang: 0.5,
})
const made = applyEdit(houses, addParts(shown.context, parts)).project
const warm = new StudyCache()
studyScheme(houses, housesId, warm)
row('preview of a building: 40 masses x 12 levels', offer, null, null)
row(`fabric of ${parts.length} parts, joined and bonded`, best(3, fromNothing(made)), null, null)

const turned = twistedTower(60)
const turnedId = firstScheme(turned).id
const turnedStudy = studyScheme(turned, turnedId)
// Of other angles: what a twisted body has in common with the ones made lately is told once.
const others = [117, 118, 119].map((angle) => fromNothing(twistedTower(60, angle)))
const turnedCold = Math.min(...others.map((work) => best(1, work)))
row(
  'cold: twisted tower of 60 storeys',
  turnedCold,
  best(3, () =>
    bareKernel(
      turnedStudy,
      turnedStudy.floors.map((_, i) => i),
      [0],
    ),
  ),
  null,
  best(3, () => bareFigures(turnedStudy)),
)
const turnedCache = new StudyCache()
const tenth = turnedStudy.levels[10]?.id ?? ''
row(
  '  one level moved, those above held',
  again((k) => moveLevel(turned, firstScheme(turned), tenth, 35 + 0.1 * k, 'held'), turned, turnedCache),
  null,
  turnedCold,
)
row(
  '  twisted by another degree',
  again(
    (k) =>
      changeRecipe(firstScheme(turned), Object.values(firstScheme(turned).masses)[0] as Mass, (r) =>
        r.map((m) => (m.move === 'twist' ? { ...m, angle: 120 + k } : m)),
      ),
    turned,
    turnedCache,
  ),
  null,
  turnedCold,
)

const city = town(1000, 20)
const cityId = firstScheme(city).id
const cityStudy = studyScheme(city, cityId)
const cityCold = best(2, fromNothing(city))
row(
  'cold: 1,000 masses x 20 levels',
  cityCold,
  best(2, () =>
    bareKernel(
      cityStudy,
      cityStudy.floors.map((_, i) => i),
      cityStudy.forms.map((_, i) => i),
    ),
  ),
  cityCold,
  best(2, () => bareFigures(cityStudy)),
)
const cityCache = new StudyCache()
const house = inOrder(firstScheme(city).masses)[500]?.id ?? ''
row(
  '  one mass moved',
  again((k) => moveMasses(city, firstScheme(city), [house], [0.1 * k, 0]), city, cityCache),
  null,
  cityCold,
)

const quarter = town(200, 20)
const quarterId = firstScheme(quarter).id
const quarterStudy = studyScheme(quarter, quarterId)
row(
  'preview of a building: 200 masses x 20 storeys',
  best(2, () => {
    propose(quarterStudy.context)
  }),
  null,
  null,
)
const quarterParts = partsFrom(
  quarterStudy.context,
  () => `q-${++n}`,
  propose(quarterStudy.context).candidates,
  usualChoices(quarter),
)
const built = applyEdit(quarter, addParts(quarterStudy.context, quarterParts)).project
const quarterCache = new StudyCache()
row(
  `converting them: ${quarterParts.length} parts, joined and bonded`,
  best(1, () => {
    studyScheme(built, quarterId, quarterCache)
  }),
  null,
  null,
)
row(
  '  one mass moved, its parts drift',
  again(
    (k) => moveMasses(built, firstScheme(built), [inOrder(firstScheme(built).masses)[77]?.id ?? ''], [0.1 * k, 0]),
    built,
    quarterCache,
  ),
  null,
  null,
)

const shaped = thirtyMoves()
const shapedCold = best(3, fromNothing(shaped))
row('cold: a mass of 30 moves, 28 of them pulls', shapedCold, null, shapedCold)
for (const [what, k] of [
  ['its last side pulled farther', 29],
  ['its first side pulled farther, all that follows anew', 2],
] as const)
  row(
    `  ${what}`,
    again(
      (i) =>
        changeRecipe(firstScheme(shaped), Object.values(firstScheme(shaped).masses)[0] as Mass, (r) =>
          r.map((m, at) => (at === k && m.move === 'pull' ? { ...m, by: 1 + i / 50 } : m)),
        ),
      shaped,
      new StudyCache(),
    ),
    null,
    shapedCold,
  )

for (const [what, form, turn] of [
  ['cold: a box with two tapers and a twist of 60 degrees', 'tapers', 60],
  ['cold: a box with a bend, a twist of 300 degrees and a taper', 'bend', 300],
] as const)
  row(what, best(3, fromNothing(carriedBox(form, turn))), null, null)

benchRules(row, best)
await benchGround(row, best)

process.stdout.write(
  `${table(['study', 'ms', 'bare kernel ms', 'times the kernel', '... with volume and plan', 'share of cold'], rows)}\n`,
)

/** `figuresMs`: what the kernel needs for volume and plan, which a whole study tells besides the areas. */
function row(
  what: string,
  ms: number,
  kernelMs: number | null,
  whole: number | null,
  figuresMs: number | null = null,
): void {
  rows.push([
    what,
    ms.toFixed(1),
    kernelMs?.toFixed(1) ?? '',
    kernelMs ? (ms / kernelMs).toFixed(2) : '',
    kernelMs && figuresMs ? (ms / (kernelMs + figuresMs)).toFixed(2) : '',
    whole ? `${((100 * ms) / whole).toFixed(1)} %` : '',
  ])
}

/** A study with nothing known of it: what is kept with the project's own things is not there for a copy. Copied beforehand. */
function fromNothing(of: Project): () => void {
  const copies = Array.from({ length: 3 }, () => structuredClone(of))
  return () => {
    const copy = copies.pop() ?? of
    studyScheme(copy, firstScheme(copy).id, new StudyCache())
  }
}

function best(times: number, work: () => void): number {
  let least = Infinity
  for (let i = 0; i < times; i++) {
    const started = performance.now()
    work()
    least = Math.min(least, performance.now() - started)
  }
  return least
}

/** Studies after an edit on the warm cache; each run edits to a new place, so that nothing is known already. */
function again(edit: (n: number) => Edit, of: Project = project, kept: StudyCache = cache): number {
  let least = Infinity
  studyScheme(of, firstScheme(of).id, kept)
  for (let i = 1; i <= MOVES; i++) {
    const changed: Project = applyEdit(of, edit(i)).project
    const started = performance.now()
    studyScheme(changed, firstScheme(of).id, kept)
    least = Math.min(least, performance.now() - started)
  }
  return least
}
