import { boxOf, faceName, subtract, sweepBody, TOLERANCE, type Solid } from '../solid'
import { refuse, tidy, type AtLevel, type Num, type StandingNumbers } from '../values'
import { heightAtLevel } from './at-level'
import { moveKind } from './define'
import { length } from './fields'
import type { BodyForm, MoveBase } from './kind'
import { stripInside } from './strip'

export interface StepBackMove extends MoveBase {
  move: 'step-back'
  /** the side of the outline that steps back, by the name of its edge; null: all of them */
  side: string | null
  /** m inwards, at right angles */ by: Num
  /** m above the mass's base; at a level where one is given */ from: Num
  level: AtLevel | null
}

/** Where it acts on chosen heights or storeys, it steps back over all of them, and comes forward again above. */
const isFromAHeight = (m: StepBackMove) => !m.span

/**
 * From a height up a body stands back from a side of its outline, or from all: a terrace is left below. New faces: <id>/terrace, and
 * <id>/<edge> behind each side. Sides that are tapered or twisted are no longer those of the outline: there it is refused.
 */
export const stepBack = moveKind<StepBackMove>({
  move: 'step-back',
  called: 'a step back',
  group: 'shape',
  takes: 'body',
  ofSides: true,
  gives: 'body',
  spans: true,
  fields: {
    side: { is: 'side', label: 'side', all: 'all' },
    by: length('back by', { from: TOLERANCE.least }),
    from: { is: 'height', label: 'from', level: 'level', when: isFromAHeight },
  },
  starts: ({ height }) => ({ side: null, by: 1.5, from: tidy(Math.max(0.5, height / 2)), level: null }),
  build: (form, m, { numbers, name, ranges }) => {
    const { solid } = form as BodyForm
    const by = numbers.length(m.by)
    const { z0, z1 } = boxOf(solid.positions)
    const cut = stripInside(form, m.side, by, name)
    const less = (from: number, to: number) => (body: Solid) =>
      subtract(body, sweepBody({ low: cut, high: cut, z0: from, z1: to, twist: null }, namesOf(m.id)))
    if (ranges) {
      // What ends where the body does is taken off beyond it, so that nothing thin is left.
      const ends = ranges.map(([from, to]) => [from === z0 ? z0 - 1 : from, to === z1 ? z1 + 1 : to] as const)
      return { ...form, carried: null, solid: ends.reduce((body, [from, to]) => less(from, to)(body), solid) }
    }
    const from = stepsAt(m, numbers)
    if (from >= z1 - TOLERANCE.height || from <= z0 + TOLERANCE.height)
      refuse(
        'geometry',
        `"${name}" steps back at ${tidy(from)} m, where it does not stand: it is from ${tidy(z0)} to ${tidy(z1)} m.`,
        'Choose a height in between; to move a whole side, set it in or move its corners.',
      )
    return { ...form, carried: null, solid: less(from, z1 + 1)(solid) }
  },
})

/** m above the mass's base. Errors: 'unknown-id' when the level is not there. */
const stepsAt = (m: StepBackMove, numbers: StandingNumbers): number =>
  m.level ? heightAtLevel(m.level, numbers, 'A mass steps back at') : numbers.length(m.from)

const namesOf = (id: string) => ({
  base: faceName(id, 'terrace'),
  top: faceName(id, 'soffit'),
  side: (edge: string) => faceName(id, edge),
})
