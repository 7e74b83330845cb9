import fc from 'fast-check'
import { beforeAll, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { levelHeights, moveLevel } from '../levels'
import type { Mass, Project } from '../project'
import { openKernel, type Region } from '../solid'
import { converted, massNamed, projectWith, schemeOf, withMass } from '../testing/make'
import { busyProject, grownProject, WORK, workOf } from '../testing/work'
import { AREA_STEPS } from '../testing/work-areas'
import { GROWN_STEPS } from '../testing/work-grown'
import { BACK_STEP, NAME_STEPS } from '../testing/work-names'
import { STEPS } from '../testing/work-steps'
import { briefOf, entriesOf, voidFigures } from './areas'
import { ledgerOf, StudyCache, studyScheme } from './index'

beforeAll(() => openKernel())

/** A region's corners, whichever of them comes first. */
const corners = (region: Region) =>
  region
    .flat()
    .map(([x, y]) => `${(x + 0).toFixed(4)} ${(y + 0).toFixed(4)}`.replaceAll('-0.0000', '0.0000'))
    .sort()

/** All that a person would see of a study, as plain data. */
function seen(project: Project, cache?: StudyCache) {
  const study = studyScheme(project, schemeOf(project).id, cache)
  return {
    ledger: ledgerOf(study),
    entries: entriesOf(study).map((e) => [
      e.level,
      e.use,
      e.gross.toFixed(5),
      e.internal?.toFixed(5),
      e.net?.toFixed(5),
    ]),
    brief: briefOf(study).map((b) => [b.line.id, b.now?.toFixed(4), b.state]),
    voids: voidFigures(study).map((v) => [v.mass, v.area.toFixed(5)]),
    forms: study.forms.map((f) => [f.name, f.use, f.order, f.base, f.top, f.at]),
    parts: study.parts.map((p) => [
      p.part.name,
      p.role,
      p.bond,
      p.thickness,
      p.area.toFixed(6),
      p.volume.toFixed(6),
      p.length?.toFixed(6),
      corners(p.plan),
    ]),
    findings: study.findings.map((f) => [f.key, f.say, f.area?.toFixed(4), f.fix?.label]),
  }
}

it.each([
  ['any work', busyProject, STEPS, 30],
  ['work on what grows', grownProject, GROWN_STEPS, 10],
  ['work on areas', busyProject, AREA_STEPS, 30],
  ['names and uses that are changed and changed back', busyProject, [...NAME_STEPS, BACK_STEP], 30],
] as const)(
  'a study that goes on from earlier ones sees what a study from nothing sees, after %s',
  (_, begun, steps, numRuns) => {
    const base = begun()
    fc.assert(
      fc.property(WORK, (work) => {
        const [next, cache] = [workOf(work, steps), new StudyCache()]
        let project = base
        seen(project, cache)
        for (let i = 0; i < work.length; i++) {
          try {
            const edit = next(project)
            if (edit) project = applyEdit(project, edit).project
          } catch (e) {
            if (!(e instanceof Error) || e.name !== 'Refusal') throw e
          }
          expect(seen(project, cache)).toEqual(seen(project))
        }
      }),
      { numRuns },
    )
  },
)

it('a mass whose numbers name a level, or that is raised up to one, follows that level in a study that goes on, and no other', () => {
  const base = busyProject()
  const scheme = schemeOf(base)
  const levels = levelHeights(base, scheme)
  const mass = Object.values(scheme.masses).find((m) => m.recipe.every((r) => ['outline', 'raise'].includes(r.move)))
  const named = levels.find((l) => l.id !== mass?.base.level)
  if (!mass || !named) throw new Error('There is no mass, or no second level.')
  const height = { formula: `{${named.id}}` }
  const ways: Partial<Mass>[] = [
    { place: { ...mass.place, x: height } },
    { base: { ...mass.base, above: height } },
    { recipe: mass.recipe.map((m) => (m.move === 'raise' ? { ...m, height: { formula: `{${named.id}} + 4` } } : m)) },
    { recipe: mass.recipe.map((m) => (m.move === 'raise' ? { ...m, upTo: { level: named.id, above: 5 } } : m)) },
  ]
  for (const set of ways) {
    const cache = new StudyCache()
    let project = applyEdit(base, { edit: 'mass.change', scheme: scheme.id, id: mass.id, set }).project
    seen(project, cache)
    for (const { id } of levels)
      for (const by of [0.4, -0.15]) {
        const now = schemeOf(project)
        const at = levelHeights(project, now).find((l) => l.id === id)?.height ?? 0
        project = applyEdit(project, moveLevel(project, now, id, at + by, 'held')).project
        expect(seen(project, cache)).toEqual(seen(project))
      }
  }
})

it('what masses take of one another follows their uses and their order in a study that goes on', () => {
  let project = projectWith([0, 3])
  for (const x of [0, 10]) project = withMass(project, { box: [x, x / 5, 10, 8], height: 6 })
  project = converted(project)
  const cache = new StudyCache()
  seen(project, cache)
  const { id, masses } = schemeOf(project)
  const other = Object.keys(project.uses).at(-1) ?? ''
  for (const mass of Object.values(masses))
    for (const set of [{ use: other }, { order: 50 }, { use: mass.use }, { order: mass.order }]) {
      project = applyEdit(project, { edit: 'mass.change', scheme: id, id: mass.id, set }).project
      expect(seen(project, cache)).toEqual(seen(project))
    }
})

it('floor under a low top is low or not by what stands on it, in a study that goes on', () => {
  // The lower mass ends a metre above the second level; what stands on it takes its run of height further.
  let project = projectWith([0, 3])
  project = withMass(project, { name: 'Foot', box: [0, 0, 12, 8], height: 4 })
  project = withMass(project, { name: 'Head', box: [0, 0, 12, 8], height: 6 }, (m) => ({
    ...m,
    base: { ...m.base, above: 4 },
  }))
  project = withMass(project, { name: 'Beside', box: [40, 0, 5, 5], height: 9 })
  const cache = new StudyCache()
  const low = () => studyScheme(project, schemeOf(project).id, cache).floors[1]?.low ?? 0
  const put = (name: string, by: [number, number], turn = 0) => {
    const { id, place } = massNamed(project, name)
    const at = { x: Number(place.x) + by[0], y: Number(place.y) + by[1], turn }
    project = applyEdit(project, { edit: 'mass.change', scheme: schemeOf(project).id, id, set: { place: at } }).project
  }
  expect(low()).toBeCloseTo(0, 3)
  put('Head', [6, 0])
  expect(low()).toBeCloseTo(6 * 8, 3)
  put('Beside', [0, 3], 12)
  expect(low()).toBeCloseTo(6 * 8, 3)
  put('Head', [-6, 0])
  expect(low()).toBeCloseTo(0, 3)
  put('Head', [60, 0])
  expect(low()).toBeCloseTo(12 * 8, 3)
})
