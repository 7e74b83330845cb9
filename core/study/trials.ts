import { groupsThatMeet } from '../solid'
import { numbersOf, Refusal, refuse, ruleRun, type Dial, type Id, type Project, type Scheme } from '../project'
import type { SingleEdit } from '../edits'
import { StudyCache } from './cache'
import { NO_ASSETS, type Assets } from './ground'
import { studySteps } from './study'
import type { Study } from './types'

/** A dial that is tried: so many values from one to another, in SI units. */
export interface TrialDial {
  dial: Id
  from: number
  to: number
  count: number
}

/** What of a scheme is compared: m, m2, m3, 1/m. */
export interface TrialFigures {
  area: number
  ratio: number | null
  /** of the highest top above the datum */ height: number
  /** m2 of floor that lies in two masses, over all pairs */ overlap: number
  /** outer surface over volume */ compact: number | null
  volume: number
  footprint: number
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
 * Studies a scheme with some of its dials at given values (SI units), one list of them after the other. Yields how much is done, 0 to 1, and each
 * trial as soon as it is known. The project stays as it is; what cannot be made is told with its trial. Errors: 'unknown-id'.
 */
export function* trialSteps(
  project: Project,
  schemeId: Id,
  dials: readonly Id[],
  all: readonly (readonly number[])[],
  cache = new StudyCache(),
  assets: Assets = NO_ASSETS,
): Generator<{ done: number; trial: Trial | null }, Trial[]> {
  const scheme = project.schemes[schemeId] ?? refuse('unknown-id', 'That scheme is not there.', 'Choose another one.')
  for (const dial of dials)
    if (!scheme.dials[dial]) refuse('unknown-id', 'That dial is not there any more.', 'Choose another one.')
  const trials: Trial[] = []
  for (const values of all) {
    const { steps, tried } = begun(project, scheme, dials, values, cache, assets)
    let trial: Trial | null = null
    while (!trial) {
      try {
        const failed = failedIn(tried, schemeId)
        if (failed) {
          trial = { values: [...values], figures: null, say: failed }
          break
        }
        const step = steps.next()
        if (step.done) trial = { values: [...values], figures: figuresOf(step.value, cache), say: null }
        else yield { done: (trials.length + step.value) / all.length, trial: null }
      } catch (e) {
        if (!(e instanceof Refusal)) throw e
        trial = { values: [...values], figures: null, say: e.message }
      }
    }
    trials.push(trial)
    yield { done: trials.length / all.length, trial }
  }
  return trials
}

/** The study of a trial, to be run. */
function begun(
  project: Project,
  scheme: Scheme,
  dials: readonly Id[],
  values: readonly number[],
  cache: StudyCache,
  assets: Assets,
) {
  const set = Object.fromEntries(
    dials.map((dial, i) => [dial, { ...(scheme.dials[dial] as Dial), value: values[i] ?? 0 }]),
  )
  const tried: Project = {
    ...project,
    schemes: { ...project.schemes, [scheme.id]: { ...scheme, parts: {}, dials: { ...scheme.dials, ...set } } },
  }
  return { tried, steps: studySteps(tried, scheme.id, cache, assets, true, []) }
}

/** Why a rule of the scheme cannot be grown at these values; null where all can. */
function failedIn(project: Project, schemeId: Id): string | null {
  const scheme = project.schemes[schemeId] as Scheme
  for (const rule of Object.values(scheme.rules)) {
    if (rule.frozen) continue
    const { failed } = ruleRun(project, scheme, rule)
    if (failed) return `${failed.say} ${failed.remedy}`
  }
  return null
}

/** The figures that trials are compared by. */
export function figuresOf(study: Omit<Study, 'findings' | 'muted'>, cache: StudyCache): TrialFigures {
  const { totals, floors, scheme } = study
  const built = study.forms.filter((f) => !scheme.masses[f.id]?.projecting)
  const surface = groupsThatMeet(
    built,
    (f) => f.rect,
    (a, b) => a.base < b.top && b.base < a.top,
  ).reduce((sum, group) => sum + cache.groupSurface(group), 0)
  const overlap = floors.reduce(
    (sum, f) => sum + f.islands.reduce((part, i) => part + i.overlaps.reduce((all, o) => all + o.area, 0), 0),
    0,
  )
  return {
    area: totals.area,
    ratio: totals.ratio,
    height: Math.max(0, ...built.map((f) => f.top)),
    overlap,
    compact: totals.volume > 0 ? surface / totals.volume : null,
    volume: totals.volume,
    footprint: totals.footprint,
  }
}

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
