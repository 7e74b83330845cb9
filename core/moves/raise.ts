import * as v from 'valibot'
import { sweepBody, type Sweep, faceName, TOLERANCE } from '../solid'
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
  check: (m, { place, name, numbers }) => {
    if (place !== 1) refuse('geometry', `"${name}" is raised twice.`, 'Change the height of the first raise.')
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
    return sweptForm(
      { ...form, eaves: height },
      { low: outline, high: outline, z0: 0, z1: height, twist: null },
      m.id,
      numbers,
    )
  },
}

/** m from the mass's base to the top of the raise. Errors: 'unknown-id' when the level is not there. */
export function raisedBy(m: RaiseMove, numbers: StandingNumbers): number {
  if (!m.upTo) return numbers.length(m.height)
  const level =
    numbers.heights.get(m.upTo.level) ??
    refuse('unknown-id', 'A mass is raised up to a level that is not there.', 'Choose one of the levels in the spine.')
  return tidy(level + numbers.length(m.upTo.above) - numbers.base)
}

/** The form with its body made anew of a sweep; `by` is the raise, which names the sides. */
export function sweptForm(form: Form, sweep: Sweep, by: string, numbers: StandingNumbers): Form {
  const storeys = sweep.twist ? [...numbers.heights.values()].map((h) => tidy(h - numbers.base)) : []
  return {
    ...form,
    swept: { sweep, by },
    solid: sweepBody(
      sweep,
      { base: faceName(by, 'base'), top: faceName(by, 'top'), side: (edge) => faceName(by, edge) },
      storeys,
    ),
  }
}
