import type { FabricContext } from '../fabric'
import { grown, type MassForm } from '../form'
import { floorName, levelHeights, oneFloors, type LevelHeight } from '../levels'
import { inOrder, numbersOf, type Numbers, type Project, type Scheme } from '../project'
import { TOLERANCE } from '../solid'
import { lowAbove, type Headroom, type Off } from '../slice'
import type { StudyCache } from './cache'
import { emptyFloor, type Floor } from './floor'
import { givesFloor, PLAIN, specials } from './special'
import type { Study } from './types'

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
  const { attempts } = cache
  // The very same objects while nothing that they hang on has changed.
  const { dials, measures, pictures, profiles, unit } = project
  const named = [dials, measures, pictures, profiles, unit, stored.dials, stored.levels]
  const { numbers, levels, heights } = cache.lately('numbers', named, () => numbersAndLevels(project, stored))
  // What grows by itself is like what was drawn, to all that reads masses from here on.
  const growth = attempts.run(
    { what: 'repeats and rules', id: stored.id, name: stored.name },
    () =>
      cache.lately('grown', [stored.masses, stored.repeats, stored.rules, project.site, numbers, levels], () =>
        grown(project, stored, numbers),
      ),
    () => ({ masses: stored.masses, from: new Map(), remarks: [] }),
  )
  const scheme = growth.masses === stored.masses ? stored : { ...stored, masses: growth.masses }
  const { forms, around, unbuilt } = yield* standingSteps(scheme, numbers, heights, cache)
  const giving = forms.filter((f) => givesFloor(scheme, f))
  const offs = new Map<string, Floor['off']>()
  const context: FabricContext = {
    project,
    scheme,
    numbers,
    levels,
    heights,
    attempts,
    memo: cache.memo,
    forms: new Map(giving.map((f) => [f.id, f])),
    voids: new Map(forms.filter((f) => !givesFloor(scheme, f)).map((f) => [f.id, f])),
    plateAt: (form, z) => cache.plate(form, z),
    offAt: (mass, level) => offs.get(level)?.get(mass) ?? NONE,
  }
  const floors: Floor[] = []
  for (const floor of floorsFromTheTop(context, forms, giving, cache)) {
    floors.unshift(floor)
    offs.set(floor.level.id, floor.off)
    for (const same of floor.also) offs.set(same.id, floor.off)
    yield 0.2 + (0.2 * floors.length) / levels.length
  }
  return { numbers, levels, heights, growth, scheme, forms, around, unbuilt, context, floors }
}

/** The masses as they stand; one that cannot be built is listed with the reason. It yields how much is done, 0 to 0.2. */
function* standingSteps(
  scheme: Scheme,
  numbers: Numbers,
  heights: ReadonlyMap<string, number>,
  cache: StudyCache,
): Generator<number, Pick<Study, 'forms' | 'around' | 'unbuilt'>> {
  const forms: MassForm[] = []
  const around: MassForm[] = []
  const unbuilt: Study['unbuilt'] = []
  const masses = inOrder(scheme.masses)
  for (const [i, mass] of masses.entries()) {
    const form = cache.attempts.quiet<MassForm | null>(
      { what: 'body', id: mass.id, name: mass.name, masses: [mass.id] },
      () => cache.form(mass, numbers, heights, scheme.masses),
      ({ say, remedy }) => {
        unbuilt.push({ mass, say, remedy })
        return null
      },
    )
    if (form) (mass.context ? around : forms).push(form)
    yield (0.2 * i) / masses.length
  }
  return { forms, around, unbuilt }
}

/** The floors of all storeys, the highest first: what is counted above says how high a floor is in the clear. */
function* floorsFromTheTop(
  context: FabricContext,
  forms: MassForm[],
  giving: MassForm[],
  cache: StudyCache,
): Generator<Floor> {
  const { project, scheme, numbers, levels, attempts } = context
  const gives = giving.length === forms.length ? () => true : (f: MassForm) => givesFloor(scheme, f)
  const headroom: Headroom = { height: numbers.length(project.headroom), wallLike: project.wallLike }
  const smallest = numbers.value(project.smallestArea, 'area')
  // What projects has no floor.
  const built = forms.filter((f) => !scheme.masses[f.id]?.projecting)
  const takes = built.map((f) => scheme.masses[f.id]?.takes)
  const takers = cache.lately('takers', [levels, ...built, null, ...takes], () => takersOf(scheme, built, levels))
  const special = specials(scheme, numbers, levels, built, takers, (...a) => cache.lately(...a))
  const counted: Floor[] = []
  const floorAt = (level: LevelHeight, also: LevelHeight[]): Floor => {
    const ids = [level, ...also].map((l) => l.id)
    const taking = also.length ? orderedTakers(built, ids, takers) : (takers.get(level.id) ?? [])
    const here = taking.filter(gives)
    const over = here.some((form) => lowAbove(form, level.height, headroom))
      ? giving.filter((o) => o.base < level.height + headroom.height && o.top > level.height)
      : []
    const above = counted.filter((f) => f.level.height < level.height + headroom.height - TOLERANCE.height)
    const differs = attempts.run(
      { what: 'changes of the floor', id: level.id, name: level.name, level: level.id },
      () => ids.map(special).find((s) => s !== PLAIN) ?? PLAIN,
      () => PLAIN,
    )
    return cache.floor(level, here, { over, above }, headroom, smallest, differs)
  }
  for (const { level, also } of oneFloors(levels).reverse()) {
    const floor = attempts.run(
      { what: 'floor', id: level.id, name: floorName({ level, also }), level: level.id },
      () => floorAt(level, also),
      () => emptyFloor(level),
    )
    counted.push(floor)
    for (const same of [...also].reverse()) yield { ...emptyFloor(same), oneWith: level }
    yield also.length ? { ...floor, also } : floor
  }
}

/** The masses that take one of several storeys, in their order. */
const orderedTakers = (built: MassForm[], levels: string[], takers: ReadonlyMap<string, MassForm[]>): MassForm[] =>
  built.filter((form) => levels.some((id) => takers.get(id)?.includes(form)))

const NONE: readonly Off[] = []

function numbersAndLevels(project: Project, scheme: Scheme) {
  const numbers = numbersOf(project, scheme)
  const levels = levelHeights(project, scheme, numbers)
  return { numbers, levels, heights: new Map(levels.map((l) => [l.id, l.height])) }
}

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
