import { partSteps, type FabricContext, type PartStudy } from '../fabric'
import { grown, type MassForm } from '../form'
import { levelHeights, type LevelHeight } from '../levels'
import { inOrder, numbersOf, Refusal, refuse, sameList, type Numbers, type Project, type Scheme } from '../project'
import { TOLERANCE } from '../solid'
import { lowAbove, type Headroom, type Off } from '../slice'
import { netOf, wallsByLevel } from './areas/walls-on'
import { StudyCache } from './cache'
import type { Finding } from './finding'
import { CHECKS } from './findings'
import { NO_ASSETS, studyGround, type Assets } from './ground'
import { modelOf, studyPictures } from './pictures'
import { studyWings } from './wings'
import { totalsOf } from './totals'
import type { Check, Study } from './types'
import type { Floor } from './floor'
import { givesFloor, specials } from './special'

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
    project.schemes[schemeId] ??
    refuse('unknown-id', 'That scheme is not there.', 'Choose one of the schemes of the project.')
  const bytes = project.terrain?.kind === 'survey' ? assets(project.terrain.asset) : null
  const from = [bytes, ...whatCounts(project), ...whatCounts(stored)]
  const known = wholes.get(cache)
  if (known && sameList(known.from, from) && (!known.trying || trying)) {
    const scheme = { ...stored, masses: known.study.scheme.masses }
    return { ...known.study, project, scheme, context: { ...known.study.context, project, scheme } }
  }
  const floored = yield* floorSteps(project, stored, cache)
  const { numbers, levels, heights, growth, scheme, forms, around, unbuilt, context, floors } = floored
  const parts = yield* partsWithin(context, 0.4, 0.8)
  const walls = wallsByLevel(cache.memo, parts)
  const measured = floors.map((floor): Floor => ({
    ...floor,
    net: netOf(cache.memo, floor, walls.get(floor.level.id)),
  }))
  const ground = studyGround(project, forms, numbers, cache, assets)
  yield 0.85
  const totals = totalsOf(context, cache, measured, forms, ground, trying)
  yield 0.88
  const pictures = studyPictures(project, modelOf(project, forms, numbers, heights))
  const study = {
    project,
    scheme,
    context,
    levels,
    forms,
    around,
    unbuilt,
    growth,
    floors: measured,
    totals,
    parts,
    ground,
    pictures,
    wings: studyWings(scheme, forms, measured, cache),
  }
  const mutes = new Map(Object.values(scheme.mutes).map((m) => [m.finding, m]))
  const found: Finding[] = []
  for (const check of checks) {
    const findings = trying && check.afterwards ? (cache.found.get(check.kind) ?? []) : check.run(study)
    if (!trying && check.afterwards) cache.found.set(check.kind, findings)
    found.push(...findings)
    yield 0.9
  }
  const whole = {
    ...study,
    findings: found.filter((f) => !mutes.has(f.key)),
    muted: found.flatMap((f) => {
      const mute = mutes.get(f.key)
      return mute ? [{ ...f, mute }] : []
    }),
  }
  wholes.set(cache, { from, trying, study: whole })
  return whole
}

/** What a study begins with: all that grows, the standing masses and their floors. */
export interface Floored extends Pick<
  Study,
  'scheme' | 'growth' | 'context' | 'levels' | 'forms' | 'around' | 'unbuilt' | 'floors'
> {
  numbers: Numbers
  heights: ReadonlyMap<string, number>
}

/** The standing masses of a scheme and their floors, without net areas: what areas are known by. It yields how much is done, 0 to 0.4. */
export function* floorSteps(project: Project, stored: Scheme, cache: StudyCache): Generator<number, Floored> {
  cache.begin()
  // The very same objects while nothing that they hang on has changed.
  const { dials, measures, pictures, profiles, unit } = project
  const named = [dials, measures, pictures, profiles, unit, stored.dials, stored.levels]
  const { numbers, levels, heights } = cache.lately('numbers', named, () => numbersAndLevels(project, stored))
  // What grows by itself is like what was drawn, to all that reads masses from here on.
  const growth = cache.lately(
    'grown',
    [stored.masses, stored.repeats, stored.rules, project.site, numbers, levels],
    () => grown(project, stored, numbers),
  )
  const scheme = growth.masses === stored.masses ? stored : { ...stored, masses: growth.masses }
  const forms: MassForm[] = []
  const around: MassForm[] = []
  const unbuilt: Study['unbuilt'] = []
  const masses = inOrder(scheme.masses)
  for (const [i, mass] of masses.entries()) {
    try {
      ;(mass.context ? around : forms).push(cache.form(mass, numbers, heights, scheme.masses))
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      unbuilt.push({ mass, say: e.say, remedy: e.remedy })
    }
    yield (0.2 * i) / masses.length
  }
  const giving = forms.filter((f) => givesFloor(scheme, f))
  const gives = giving.length === forms.length ? () => true : (f: MassForm) => givesFloor(scheme, f)
  const context: FabricContext = {
    project,
    scheme,
    numbers,
    levels,
    heights,
    memo: cache.memo,
    forms: new Map(giving.map((f) => [f.id, f])),
    voids: new Map(forms.filter((f) => !givesFloor(scheme, f)).map((f) => [f.id, f])),
    plateAt: (form, z) => cache.plate(form, z),
    offAt: (mass, level) => offs.get(level)?.get(mass) ?? NONE,
  }
  const floors: Floor[] = []
  const offs = new Map<string, Floor['off']>()
  const headroom: Headroom = { height: numbers.length(project.headroom), wallLike: project.wallLike }
  const smallest = numbers.value(project.smallestArea, 'area')
  // What projects has no floor.
  const built = forms.filter((f) => !scheme.masses[f.id]?.projecting)
  const takes = built.map((f) => scheme.masses[f.id]?.takes)
  const takers = cache.lately('takers', [levels, ...built, null, ...takes], () => takersOf(scheme, built, levels))
  const special = specials(scheme, numbers, levels, built, takers, (...a) => cache.lately(...a))
  for (const level of levels) {
    if (level.kind !== 'storey') continue
    const here = (takers.get(level.id) ?? []).filter(gives)
    const over = here.some((form) => lowAbove(form, level.height, headroom))
      ? giving.filter((o) => o.base < level.height + headroom.height && o.top > level.height)
      : []
    const floor = cache.floor(level, here, over, headroom, smallest, special(level.id))
    floors.push(floor)
    offs.set(level.id, floor.off)
    yield 0.2 + (0.2 * floors.length) / levels.length
  }
  return { numbers, levels, heights, growth, scheme, forms, around, unbuilt, context, floors }
}

const NONE: readonly Off[] = []

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

function numbersAndLevels(project: Project, scheme: Scheme) {
  const numbers = numbersOf(project, scheme)
  const levels = levelHeights(project, scheme, numbers)
  return { numbers, levels, heights: new Map(levels.map((l) => [l.id, l.height])) }
}

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

function takersOf(scheme: Scheme, forms: MassForm[], levels: LevelHeight[]): Map<string, MassForm[]> {
  const lists = levels.map((): MassForm[] => [])
  for (const form of forms) {
    const takes = scheme.masses[form.id]?.takes
    const listed = takes?.levels.length ? new Set(takes.levels) : null
    const only = takes?.kind === 'only'
    for (const [i, { id, height }] of levels.entries()) {
      if (height >= form.top || height <= form.base - TOLERANCE.touch) continue
      if ((listed?.has(id) ?? false) === only) lists[i]?.push(form)
    }
  }
  return new Map(levels.map((l, i) => [l.id, lists[i] as MassForm[]]))
}
