import * as v from 'valibot'
import { sweepBody, type Solid, faceName, TOLERANCE } from '../solid'
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
import type { Form, MoveBase, MoveKind } from './kind'
import { atLeastAMillimetre } from './sizes'

export interface RaiseMove extends MoveBase {
  move: 'raise'
  height: Num
  /** up to a level, whatever its height; null: by the height */ upTo: AtLevel | null
}
/** Returns true for the move that raises an outline. */
export const isRaise = (m: MoveBase): m is RaiseMove => m.move === 'raise'

/** Raises the outline to an upright body, by a height or up to a level. Its faces: <id>/<edge> for each side, <id>/top, <id>/base. */
export const raise: MoveKind<RaiseMove> = {
  move: 'raise',
  called: 'a raise',
  group: 'shape',
  starts: ({ plan, height }) => (plan.length ? { height, upTo: null } : null),
  fields: {},
  takes: 'plan',
  gives: 'carried',
  schema: () =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('raise'),
      height: NumSchema,
      upTo: v.optional(v.nullable(LevelHeightSchema), null),
    }),
  numbers: (m) => [[m.height, 'length'], ...(m.upTo ? [[m.upTo.above, 'length'] as [Num, 'length']] : [])],
  inner: () => null,
  ties: (m) => (m.upTo ? [m.upTo] : []),
  retied: (m, tie) => (m.upTo ? { ...m, upTo: tie(m.upTo) } : m),
  dependsOn: (m, numbers) => (m.upTo ? String(raisedBy(m, numbers)) : ''),
  check: (m, { name, numbers }) => {
    const height = raisedBy(m, numbers)
    if (m.upTo && height < TOLERANCE.least)
      refuse(
        'size',
        `"${name}" is raised up to a level that lies ${height < -TOLERANCE.least ? 'below' : 'at'} its base.`,
        'Choose a higher level, or put its base lower.',
      )
    atLeastAMillimetre(height, `The height of "${name}"`)
  },
  build: (form, m, { numbers, name }) => {
    const outline = form.outline ?? refuse('geometry', `"${name}" has no outline to raise.`, 'Put an outline first.')
    const height = raisedBy(m, numbers)
    const sweep = { low: outline, high: outline, z0: 0, z1: height, twist: null }
    return { ...form, eaves: height, carried: { sweep, by: m.id } }
  },
}

/** m from the mass's base to the top of the raise. Errors: 'unknown-id' when the level is not there. */
export function raisedBy(m: RaiseMove, numbers: StandingNumbers): number {
  if (!m.upTo) return numbers.length(m.height)
  return heightAtLevel(m.upTo, numbers, 'A mass is raised up to')
}

/**
 * The body of a form that is carried: the raise names its ends and sides. What is twisted has rows at the levels, where its cut is exact.
 */
export function carriedBody({ sweep, by }: NonNullable<Form['carried']>, numbers: StandingNumbers): Solid {
  const levels = sweep.twist ? [...numbers.heights.values()].map((h) => tidy(h - numbers.base)) : []
  const names = { base: faceName(by, 'base'), top: faceName(by, 'top'), side: (edge: string) => faceName(by, edge) }
  return sweepBody(sweep, names, levels)
}

/** How a form is carried up, for the moves that take such a one. */
export const carriedOf = ({ carried }: Form): NonNullable<Form['carried']> =>
  carried ?? refuse('geometry', 'The form is not carried up.', 'Put a raise before it.')
