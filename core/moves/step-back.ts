import * as v from 'valibot'
import { boxOf, faceName, subtract, sweepBody, TOLERANCE } from '../solid'
import {
  IdSchema,
  LevelHeightSchema,
  NumSchema,
  refuse,
  tidy,
  type AtLevel,
  type Num,
  type StandingNumbers,
} from '../values'
import { heightAtLevel } from './at-level'
import type { BodyForm, MoveBase, MoveKind } from './kind'
import { EdgeIdSchema } from './shapes/polygon'
import { atLeastAMillimetre } from './sizes'
import { stripInside } from './strip'

export interface StepBackMove extends MoveBase {
  move: 'step-back'
  /** the side of the outline that steps back, by the name of its edge; null: all of them */
  side: string | null
  /** m inwards, at right angles */ by: Num
  /** m above the mass's base; at a level where one is given */ from: Num
  level: AtLevel | null
}

/**
 * From a height up a body stands back from a side of its outline, or from all: a terrace is left below. New faces: <id>/terrace, and
 * <id>/<edge> behind each side. Sides that are tapered or twisted are no longer those of the outline: there it is refused.
 */
export const stepBack: MoveKind<StepBackMove> = {
  move: 'step-back',
  called: 'a step back',
  takes: 'body',
  ofSides: true,
  gives: 'body',
  schema: () =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('step-back'),
      side: v.nullable(EdgeIdSchema),
      by: NumSchema,
      from: NumSchema,
      level: v.nullable(LevelHeightSchema),
    }),
  numbers: (m) => [
    [m.by, 'length'],
    [m.from, 'length'],
    ...(m.level ? [[m.level.above, 'length'] as [Num, 'length']] : []),
  ],
  inner: () => null,
  ties: (m) => (m.level ? [m.level] : []),
  retied: (m, tie) => (m.level ? { ...m, level: tie(m.level) } : m),
  dependsOn: (m, numbers) => (m.level ? String(stepsAt(m, numbers)) : ''),
  check: (m, { name, numbers }) => {
    atLeastAMillimetre(numbers.length(m.by), `The step back of "${name}"`)
    stepsAt(m, numbers)
  },
  build: (form, m, { numbers, name }) => {
    const { solid } = form as BodyForm
    const [by, from] = [numbers.length(m.by), stepsAt(m, numbers)]
    const { z0, z1 } = boxOf(solid.positions)
    if (from >= z1 - TOLERANCE.height || from <= z0 + TOLERANCE.height)
      refuse(
        'geometry',
        `"${name}" steps back at ${tidy(from)} m, where it does not stand: it is from ${tidy(z0)} to ${tidy(z1)} m.`,
        'Choose a height in between; to move a whole side, set it in or move its corners.',
      )
    const cut = stripInside(form, m.side, by, name)
    const block = sweepBody({ low: cut, high: cut, z0: from, z1: z1 + 1, twist: null }, namesOf(m.id))
    return { ...form, carried: null, solid: subtract(solid, block) }
  },
}

/** m above the mass's base. Errors: 'unknown-id' when the level is not there. */
const stepsAt = (m: StepBackMove, numbers: StandingNumbers): number =>
  m.level ? heightAtLevel(m.level, numbers, 'A mass steps back at') : numbers.length(m.from)

const namesOf = (id: string) => ({
  base: faceName(id, 'terrace'),
  top: faceName(id, 'out'),
  side: (edge: string) => faceName(id, edge),
})
