import { batch, singles, applyEdit, type Edit } from '../../edits'
import {
  capital,
  Refusal,
  refuse,
  thingOf,
  showQuantity,
  quantityOf,
  type BriefOf,
  type Id,
  type Project,
  type Scheme,
} from '../../project'
import { TOLERANCE } from '../../values'
import { StudyCache } from '../cache'
import { figureOf, sayFigure, showFigure, type Figured } from '../areas'
import { NO_ASSETS, studyGround } from '../ground'
import { floorSteps, type Floored } from '../floors'
import { totalsOf } from '../totals'
import { failedIn, siteAreaOf } from '../trials'
import { ratioOf } from '../ratio'
import { studyWings } from '../wings'
import type { Mover } from './mover'
import { search, type Searched, type Sought, type Tried } from './search'

/** A figure that is to come out, SI units. */
export interface Target {
  of: BriefOf
  bound: Sought['bound']
  value: number
}
/** What is moved, from where to where; for one target. */
export interface Move {
  mover: Mover
  target: Target
  from?: number
  to?: number
}

/** What became of a target: the value that the mover is given, the figure with it, and a sentence. */
export interface Met extends Searched {
  label: string
  before: { at: number; figure: number | null }
  say: string
}
/** What became of the targets, and the edit that gives the movers their values; null where nothing is to be changed. */
export interface Meeting {
  met: Met[]
  edit: Edit | null
}

/** m2 and the like: a figure this near to what is wanted is the same */
const NEAR: Record<string, number> = { area: 0.005, length: 0.0005, number: 0.0005 }

/**
 * Seeks the values of one or two movers at which one or two figures come out. Nothing is changed: the edit does it.
 * Yields how much is done, 0 to 1. Errors: 'size' for a figure that hangs on nothing that is moved, for two that hang on one another; 'unknown-id'.
 */
export function* meetSteps(
  project: Project,
  schemeId: Id,
  moves: readonly Move[],
  mint: () => Id,
  cache = new StudyCache(),
): Generator<number, Meeting> {
  if (moves.length === 0 || moves.length > 2)
    return refuse('size', `${moves.length} figures are sought at once.`, 'Seek one, or two.')
  if (moves[0]?.mover.key === moves[1]?.mover.key)
    refuse('size', 'One thing cannot be moved for two figures.', 'Choose another thing to move for the second one.')
  let now = project
  const met: Met[] = []
  const edits: Edit[] = []
  for (const [i, move] of moves.entries()) {
    const steps = meetOne(now, schemeId, move, mint, cache)
    for (;;) {
      const step = steps.next()
      if (step.done) {
        met.push(step.value.met)
        if (step.value.edit) {
          edits.push(step.value.edit)
          now = applyEdit(now, step.value.edit).project
        }
        break
      }
      yield (i + step.value) / moves.length
    }
  }
  const [first, second] = moves
  if (first && second && edits.length === 2) {
    const after = figureAt(now, schemeId, first.target.of, cache)
    const was = met[0]?.best?.figure ?? 0
    if (after !== null && Math.abs(after - was) > toleranceOf(first.target.of)) {
      const { of } = first.target
      const [from, to] = [was, after].map((v) => showFigure(project, of, v))
      refuse(
        'size',
        `The two hang on one another: moving ${second.mover.label} changes ${sayFigure(project, of)} from ${from} to ${to}.`,
        'Seek one after the other.',
      )
    }
  }
  return { met, edit: edits.length ? batch(edits.flatMap(singles)) : null }
}

function* meetOne(
  project: Project,
  schemeId: Id,
  { mover, target, from = mover.from, to = mover.to }: Move,
  mint: () => Id,
  cache: StudyCache,
): Generator<number, { met: Met; edit: Edit | null }> {
  if (!(from < to))
    refuse('size', `From ${from} to ${to} there is nothing to try.`, 'Let the first value be below the last one.')
  const scheme = schemeIn(project, schemeId)
  const leftOut = leftOutIn(floored(project, scheme, cache))
  const figureWith = (value: number): Tried => {
    try {
      const tried = applyEdit(project, mover.edit(project, scheme, value, mint)).project
      const standing = floored(tried, schemeIn(tried, schemeId), cache)
      const news = [...leftOutIn(standing)].find(([key]) => !leftOut.has(key))
      const failed = failedIn(tried, schemeIn(tried, schemeId)) ?? news?.[1]
      if (failed) return { at: value, say: failed }
      const figure = figureOf(figured(tried, standing, target.of, cache), target.of)
      return figure === null ? { at: value, say: 'The figure is not known: nothing tells it.' } : { at: value, figure }
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      return { at: value, say: e.message }
    }
  }
  const before = figureAt(project, schemeId, target.of, cache)
  if (before === null)
    refuse(
      'size',
      `${capital(sayFigure(project, target.of))} is not known.`,
      target.of.kind === 'figure'
        ? 'Give the site an outline or an area.'
        : 'Say how thick outer walls are taken to be, or let walls stand.',
    )
  const now = Math.min(to, Math.max(from, mover.now))
  const found = yield* search(
    figureWith,
    { from, to, now, whole: mover.whole },
    { value: target.value, bound: target.bound, tolerance: toleranceOf(target.of) },
  )
  if (found.why === 'same') {
    const all = showFigure(project, target.of, found.best?.figure ?? 0)
    refuse(
      'size',
      `${capital(sayFigure(project, target.of))} does not hang on ${mover.label}: it is ${all} all the way.`,
      'Choose something else to move.',
    )
  }
  const met: Met = {
    ...found,
    label: mover.label,
    before: { at: mover.now, figure: before },
    say: sayMet(project, mover, target, found, [from, to]),
  }
  const moved = found.best && Math.abs(found.best.at - mover.now) > TOLERANCE.zero
  return { met, edit: moved && found.best ? mover.edit(project, scheme, found.best.at, mint) : null }
}

const schemeIn = (project: Project, id: Id): Scheme =>
  thingOf(project.schemes, id) ?? refuse('unknown-id', 'That scheme is not there.', 'Choose another one.')

/** How far a figure may be off what is sought, in its own unit. */
const toleranceOf = (of: BriefOf): number => NEAR[quantityOf(of)] ?? 0.0005

/** A figure of a scheme, computed by its floors; by all that stands where that is asked for. Null where it is not known. */
export function figureAt(project: Project, schemeId: Id, of: BriefOf, cache: StudyCache): number | null {
  return figureOf(figured(project, floored(project, schemeIn(project, schemeId), cache), of, cache), of)
}

function floored(project: Project, scheme: Scheme, cache: StudyCache): Floored {
  const steps = floorSteps(project, { ...scheme, parts: {} }, cache)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

function figured(project: Project, standing: Floored, of: BriefOf, cache: StudyCache): Figured {
  const { context, forms, floors, scheme: grown, numbers, ...rest } = standing
  const site = siteAreaOf(project, numbers)
  const whole = of.kind === 'figure' && ['coverage', 'volume', 'footprint'].includes(of.figure)
  const totals = whole
    ? totalsOf(context, cache, floors, forms, studyGround(project, forms, numbers, cache, NO_ASSETS), false)
    : {
        area: floors.reduce((sum, f) => sum + f.area, 0),
        ratio: ratioOf(project, numbers, floors, site),
        ratios: [],
        low: 0,
        net: null,
        netUnknown: [],
        volume: 0,
        footprint: 0,
        projecting: null,
        site,
        coverage: null,
        pending: false,
      }
  const wings = studyWings(grown, forms, floors, cache)
  return { ...rest, project, context, forms, floors, scheme: grown, parts: [], wings, totals }
}

/** Moves that are left out of their forms, and masses that could not be built, by their keys and what is said. */
function leftOutIn({ forms, unbuilt }: Floored): Map<string, string> {
  return new Map([
    ...forms.flatMap((f) => f.body.leftOut.map((l): [string, string] => [`${f.id} ${l.id}`, l.say])),
    ...unbuilt.map((u): [string, string] => [u.mass.id, u.say]),
  ])
}
/** Where a figure jumps, the numbers before and after are the same to all digits that are shown. */
const besideBest = (best: number, beside: number, at: (x: number) => string): string =>
  at(beside) === at(best) ? `a hair ${beside > best ? 'more' : 'less'}` : at(beside)
function sayMet(
  project: Project,
  mover: Mover,
  { of, bound, value }: Target,
  found: Searched,
  range: [number, number],
): string {
  const at = (x: number) => (mover.whole ? String(Math.round(x)) : showQuantity(x, mover.quantity, project))
  const wanted = `${{ about: '', least: 'at least ', most: 'at most ' }[bound]}${showFigure(project, of, value)}`
  const figure = sayFigure(project, of)
  if (!found.best) return `It can be tried nowhere. ${found.refused ?? ''}`.trim()
  const best = `${capital(mover.label)} ${at(found.best.at)} gives ${showFigure(project, of, found.best.figure)}`
  const beside = found.beside
    ? `; ${besideBest(found.best.at, found.beside.at, at)} gives ${showFigure(project, of, found.beside.figure)}`
    : ''
  if (found.reached) return `${best}${beside}.`
  const why = {
    end: `from ${at(range[0])} to ${at(range[1])} it comes no nearer`,
    jump: 'there the figure jumps',
    refused: `beyond it cannot be made: ${found.refused ?? ''}`.replace(/\.$/, ''),
    turns: 'farther on it turns back',
    same: '',
  }[found.why ?? 'end']
  return `${capital(figure)} of ${wanted} is out of reach. ${best}${beside}; ${why}.`
}
