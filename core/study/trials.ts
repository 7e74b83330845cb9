import type { SingleEdit } from '../edits'
import type { MassForm } from '../form'
import { groupsThatMeet } from '../solid'
import {
  numbersOf,
  Refusal,
  refuse,
  thingOf,
  ruleRun,
  siteFigures,
  siteRing,
  type Dial,
  type Id,
  type Numbers,
  type Project,
  type Scheme,
} from '../project'
import { StudyCache } from './cache'
import { floorSteps, type Floored } from './floors'
import { givesFloor } from './special'
import { ratioOf } from './ratio'

/** A dial that is tried: so many values from one to another, in SI units. */
export interface TrialDial {
  dial: Id
  from: number
  to: number
  count: number
}

/** What of a scheme is compared: m, m2, 1/m. */
export interface TrialFigures {
  area: number
  ratio: number | null
  /** of the highest top above the datum */ height: number
  /** m2 of floor that lies in two masses, over all pairs */ overlap: number
  /** outer surface over volume; null while it is not known yet */ compact: number | null
}

/** One trial: the dials' values, and the figures, or why there are none. */
export interface Trial {
  values: number[]
  figures: TrialFigures | null
  say: string | null
}

/** what is tried in one go, at most */
const MOST = 2500

/** The values that a dial is tried at, evenly from one end to the other. */
export const trialValues = ({ from, to, count }: TrialDial): number[] =>
  Array.from({ length: count }, (_, i) =>
    count < 2 ? from : Math.round((from + ((to - from) * i) / (count - 1)) * 1e9) / 1e9,
  )

/** All values to be tried: those of one dial, or all pairs of those of two. Errors: 'size' where that is none, or too much. */
export function trialGrid(dials: readonly TrialDial[]): number[][] {
  if (dials.length === 0 || dials.length > 2)
    return refuse('size', `${dials.length} dials are to be tried.`, 'Choose one, or two.')
  for (const { count } of dials)
    if (!Number.isInteger(count) || count < 1)
      refuse('size', `${count} values are to be tried.`, 'Type a whole number above zero.')
  const many = dials.reduce((all, d) => all * d.count, 1)
  if (many > MOST)
    refuse('size', `${many.toLocaleString('en')} trials would take long.`, `Try at most ${MOST.toLocaleString('en')}.`)
  const [first, second] = dials.map(trialValues) as [number[], number[] | undefined]
  return first.flatMap((a) => (second ? second.map((b) => [a, b]) : [[a]]))
}

/**
 * Studies the floors of a scheme with some of its dials at given values (SI units), one list of them after the other.
 * Yields how much is done, 0 to
 * 1, and each trial as soon as its areas are known; then once more, with how compact it is. The project stays as it
 * is; what cannot be made is told with its trial. Errors: 'unknown-id'.
 */
export function* trialSteps(
  project: Project,
  schemeId: Id,
  dials: readonly Id[],
  all: readonly (readonly number[])[],
  cache = new StudyCache(),
): Generator<{ done: number; trial: Trial | null }, Trial[]> {
  const scheme =
    thingOf(project.schemes, schemeId) ?? refuse('unknown-id', 'That scheme is not there.', 'Choose another one.')
  for (const dial of dials)
    if (!scheme.dials[dial]) refuse('unknown-id', 'That dial is not there any more.', 'Choose another one.')
  const trials: Trial[] = []
  const standing: MassForm[][] = []
  const tell = (i: number, trial: Trial) => ({ done: (trials.length + i) / (2 * all.length), trial })
  for (const values of all) {
    const tried = withDials(project, scheme, dials, values)
    const { trial, built } = tryFloors(tried, values, cache)
    trials.push(trial)
    standing.push(built)
    yield tell(0, trial)
  }
  // What takes long comes last: areas are read meanwhile.
  for (const [i, trial] of trials.entries()) {
    if (trial.figures) {
      const whole = { ...trial, figures: { ...trial.figures, compact: compactOf(standing[i] ?? [], cache) } }
      trials[i] = whole
      yield tell(i + 1, whole)
    }
  }
  return trials
}

/** The floors of a trial, and the masses that stand in it. */
function tryFloors(
  project: Project,
  values: readonly number[],
  cache: StudyCache,
): { trial: Trial; built: MassForm[] } {
  const scheme = Object.values(project.schemes)[0] as Scheme
  const cannot = (say: string) => ({ trial: { values: [...values], figures: null, say }, built: [] })
  try {
    const failed = failedIn(project, scheme)
    if (failed) return cannot(failed)
    const steps = floorSteps(project, scheme, cache)
    for (;;) {
      const step = steps.next()
      if (!step.done) continue
      const { scheme: grown, forms } = step.value
      const built = forms.filter((f) => !grown.masses[f.id]?.projecting && givesFloor(grown, f))
      return { trial: { values: [...values], figures: figuresOf(project, step.value, built), say: null }, built }
    }
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return cannot(e.message)
  }
}

/** The project with nothing but the scheme, its dials at these values. */
function withDials(project: Project, scheme: Scheme, dials: readonly Id[], values: readonly number[]): Project {
  const set = Object.fromEntries(
    dials.map((dial, i) => [dial, { ...(scheme.dials[dial] as Dial), value: values[i] ?? 0 }]),
  )
  return { ...project, schemes: { [scheme.id]: { ...scheme, parts: {}, dials: { ...scheme.dials, ...set } } } }
}

/** Why a rule of the scheme cannot be grown at these values; null where all can. */
export function failedIn(project: Project, scheme: Scheme): string | null {
  for (const rule of Object.values(scheme.rules)) {
    if (rule.frozen) continue
    const { failed } = ruleRun(project, scheme, rule)
    if (failed) return `${failed.say} ${failed.remedy}`
  }
  return null
}

/** The figures that trials are compared by, but for how compact it is. */
function figuresOf(project: Project, { floors, numbers }: Floored, built: readonly MassForm[]): TrialFigures {
  const site = siteAreaOf(project, numbers)
  return {
    area: floors.reduce((sum, f) => sum + f.area, 0),
    ratio: ratioOf(project, numbers, floors, site),
    height: Math.max(0, ...built.map((f) => f.top)),
    overlap: floors.reduce(
      (sum, f) => sum + f.islands.reduce((part, i) => part + i.overlaps.reduce((all, o) => all + o.area, 0), 0),
      0,
    ),
    compact: null,
  }
}

/** 1/m: the outer surface of what stands over its volume; null where nothing does. */
function compactOf(built: MassForm[], cache: StudyCache): number | null {
  const figures = groupsThatMeet(
    built,
    (f) => f.rect,
    (a, b) => a.base < b.top && b.base < a.top,
  ).map((group) => cache.groups.figures(group))
  const volume = figures.reduce((sum, f) => sum + f.volume, 0)
  return volume > 0 ? figures.reduce((sum, f) => sum + f.surface, 0) / volume : null
}

/** m2 of the site; null where it is not known. */
export const siteAreaOf = (project: Project, numbers: Numbers): number | null =>
  project.site
    ? siteFigures(siteRing(project.site, numbers)).area
    : project.siteArea === null
      ? null
      : numbers.value(project.siteArea, 'area')

/** A dial of a scheme by its name, or id. Errors: 'unknown-id' with those that there are. */
export function dialNamed(scheme: Scheme, name: string): Dial {
  const all = Object.values(scheme.dials)
  return (
    all.find((d) => d.id === name || d.name.toLowerCase() === name.toLowerCase()) ??
    refuse(
      'unknown-id',
      `"${scheme.name}" has no dial "${name}".`,
      all.length ? `It has ${all.map((d) => d.name).join(', ')}.` : 'Add one first.',
    )
  )
}

/** The value of a dial, in SI units. */
export const dialValue = (project: Project, scheme: Scheme, dial: Dial): number =>
  numbersOf(project, scheme).value(dial.value, dial.quantity)

/** An edit that sets a dial to a value in SI units. */
export const setDial = (scheme: Scheme, dial: Id, value: number): SingleEdit => ({
  edit: 'dial.change',
  scheme: scheme.id,
  id: dial,
  set: { value },
})
