import { TOLERANCE } from '../solid'
import * as v from 'valibot'
import { IdSchema, NumSchema, refuse, type Num } from '../values'
import type { MoveBase, MoveKind } from './kind'
import { carriedOf, isRaise, raisedBy } from './raise'
import { centreOf } from './taper'

export interface TwistMove extends MoveBase {
  move: 'twist'
  angle: Num
  /** m above the mass's base */ from: Num
  /** null: up to its top */ to: Num | null
}

/** Turns the form about its own upright axis, the middle of its outline, evenly between two heights. Faces keep their names. */
export const twist: MoveKind<TwistMove> = {
  move: 'twist',
  called: 'a twist',
  takes: 'carried',
  gives: 'carried',
  schema: () =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('twist'),
      angle: NumSchema,
      from: NumSchema,
      to: v.nullable(NumSchema),
    }),
  numbers: (m) => [
    [m.angle, 'angle'],
    [m.from, 'length'],
    ...(m.to === null ? [] : [[m.to, 'length'] as [Num, 'length']]),
  ],
  inner: () => null,
  // Rows of the body lie at the storeys, where its cut is exact.
  dependsOn: (_m, numbers) => [...numbers.heights.values()].map((h) => (h - numbers.base).toFixed(6)).join(),
  check: (m, { before, name, numbers }) => {
    if (before.some((b) => b.move === 'twist'))
      refuse('geometry', `"${name}" is twisted twice.`, 'Change the first twist, or switch it off.')
    if (Math.abs(numbers.angle(m.angle)) > 720)
      refuse('size', `"${name}" is twisted by more than two turns.`, 'Type an angle between -720 and 720 degrees.')
    const from = numbers.length(m.from)
    if (from < 0) refuse('size', `The twist of "${name}" begins below its base.`, 'Type a height of zero or more.')
    const raise = before.find(isRaise)
    if (m.to === null && raise && raisedBy(raise, numbers) - from < TOLERANCE.least)
      refuse('size', `The twist of "${name}" begins above its top.`, 'Let it begin lower.')
    if (m.to !== null && numbers.length(m.to) - from < TOLERANCE.least)
      refuse(
        'size',
        `The twist of "${name}" ends below where it begins.`,
        'Type a greater height for its end, or leave it at the top.',
      )
  },
  build: (form, m, { numbers }) => {
    const { sweep, by } = carriedOf(form)
    const [from, to] = [numbers.length(m.from), m.to === null ? sweep.z1 : numbers.length(m.to)]
    const [x, y] = centreOf(sweep.low)
    return {
      ...form,
      outline: null,
      carried: { sweep: { ...sweep, twist: { x, y, from, to, angle: numbers.angle(m.angle) } }, by },
    }
  },
}
