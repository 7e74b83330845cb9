import { partSteps, type FabricContext, type PartStudy } from '../fabric'
import type { LevelHeight } from '../levels'
import { inOrder, refuse, sameList, thingOf, type Project, type Scheme } from '../project'
import { netOf, wallsByLevel, type WallIndex } from './areas/walls-on'
import { StudyCache } from './cache'
import type { Finding } from './finding'
import { CHECKS, notComputed } from './findings'
import type { Floor } from './floor'
import { floorSteps } from './floors'
import { NO_ASSETS, studyGround, type Assets } from './ground'
import { modelOf, studyPictures } from './pictures'
import { totalsOf } from './totals'
import type { Check, Study } from './types'
import { studyWings, type WingStudy } from './wings'

/**
 * Everything computed of a scheme: levels, standing masses, floors, totals, fabric, findings. A generator, so that a worker
 * can pause and drop what has gone stale; it yields how much is done, 0 to 1; `studyScheme` runs it through. While something is only tried
 * (`trying`), checks that take long are left for afterwards.
 */
export function* studySteps(
  project: Project,
  schemeId: string,
  cache: StudyCache,
  assets: Assets = NO_ASSETS,
  trying = false,
  checks: readonly Check[] = CHECKS,
): Generator<number, Study> {
  const stored =
    thingOf(project.schemes, schemeId) ??
    refuse('unknown-id', 'That scheme is not there.', 'Choose one of the schemes of the project.')
  const bytes = project.terrain?.kind === 'survey' ? assets(project.terrain.asset) : null
  const from = [bytes, ...whatCounts(project), ...whatCounts(stored)]
  const known = wholes.get(cache)
  if (known && sameList(known.from, from) && (!known.trying || trying)) {
    const scheme = { ...stored, masses: known.study.scheme.masses }
    return { ...known.study, project, scheme, context: { ...known.study.context, project, scheme } }
  }
  const floored = yield* floorSteps(project, stored, cache)
  const { numbers, levels, heights, growth, scheme, forms, around, unbuilt, context } = floored
  const parts = yield* partsWithin(context, 0.4, 0.8)
  const floors = withNet(floored.floors, levels, parts, cache)
  const ground = studyGround(project, forms, numbers, cache, assets)
  yield 0.85
  const totals = totalsOf(context, cache, floors, forms, ground, trying)
  yield 0.88
  const model = modelOf(project, forms, numbers, heights)
  const node = { id: scheme.id, name: scheme.name }
  const study = {
    project,
    scheme,
    context,
    levels,
    forms,
    around,
    unbuilt,
    growth,
    floors,
    totals,
    parts,
    ground,
    pictures: studyPictures(project, model, cache.attempts),
    wings: cache.attempts.run<WingStudy>(
      { ...node, what: 'areas by wing' },
      () => studyWings(scheme, forms, floors, cache),
      () => ({ wings: [], of: new Map() }),
    ),
  }
  const whole = { ...study, ...(yield* checkSteps(study, cache, checks, trying)) }
  // A study with failures is not kept: what fails is tried again.
  if (cache.attempts.failures.length === 0) wholes.set(cache, { from, trying, study: whole })
  return whole
}

/** Runs the checks. A check that fails becomes a finding, as every node does that failed before. */
function* checkSteps(
  study: Omit<Study, 'findings' | 'muted'>,
  cache: StudyCache,
  checks: readonly Check[],
  trying: boolean,
): Generator<number, Pick<Study, 'findings' | 'muted'>> {
  const mutes = new Map(Object.values(study.scheme.mutes).map((m) => [m.finding, m]))
  const found: Finding[] = []
  for (const check of checks) {
    const findings =
      trying && check.afterwards
        ? (cache.found.get(check.kind) ?? [])
        : cache.attempts.run<Finding[]>(
            { what: 'check', id: check.kind, name: check.kind },
            () => check.run(study),
            () => [],
          )
    if (!trying && check.afterwards) cache.found.set(check.kind, findings)
    found.push(...findings)
    yield 0.9
  }
  found.unshift(...notComputed(cache.attempts.failures, study.project))
  return {
    findings: found.filter((f) => !mutes.has(f.key)),
    muted: found.flatMap((f) => {
      const mute = mutes.get(f.key)
      return mute ? [{ ...f, mute }] : []
    }),
  }
}

/** The floors with their net area, m2: null where no wall stands, or where it cannot be computed. */
function withNet(
  floors: readonly Floor[],
  levels: readonly LevelHeight[],
  parts: readonly PartStudy[],
  cache: StudyCache,
): Floor[] {
  const { attempts, memo } = cache
  const walls = attempts.run(
    { what: 'walls by level', id: 'walls', name: 'walls' },
    () => wallsByLevel(memo, parts, levels),
    () => new Map<string, WallIndex>(),
  )
  return floors.map((floor): Floor => {
    const { id, name } = floor.level
    const net = attempts.run<number | null>(
      { what: 'net floor', id, name, level: id },
      () => netOf(memo, floor, walls.get(id)),
      () => null,
    )
    return { ...floor, net }
  })
}

/** The parts, as a share of the whole from one number to another. */
function* partsWithin(context: FabricContext, from: number, to: number): Generator<number, PartStudy[]> {
  const steps = partSteps(context)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    yield from + (to - from) * step.value
  }
}

/** The last whole study of a cache, and what it was computed from. */
const wholes = new WeakMap<StudyCache, { from: unknown[]; trying: boolean; study: Study }>()

/** What a study is computed from, of a project or a scheme: names, facts, kept views and the like change nothing of it. */
function whatCounts(thing: Project | Scheme): unknown[] {
  return Object.entries(thing).flatMap(([key, value]) => (NOT_COUNTED.has(key) ? [] : [value as unknown]))
}
const NOT_COUNTED = new Set(['name', 'order', 'facts', 'precision', 'stride', 'views', 'schemes', 'givesWay'])

/** The study of a scheme in one go. */
export function studyScheme(
  project: Project,
  schemeId: string,
  cache = new StudyCache(),
  assets: Assets = NO_ASSETS,
  trying = false,
): Study {
  const steps = studySteps(project, schemeId, cache, assets, trying)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/** The scheme that is meant when none is named: the first. */
export const firstScheme = (project: Project): Scheme =>
  inOrder(project.schemes)[0] ?? refuse('unknown-id', 'The project has no scheme.', 'Add a scheme.')
