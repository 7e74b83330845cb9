import type { Num } from '../values'
import { refuse } from '../values'
import { TOLERANCE } from '../solid'
import { carriedAlong, heightOf, storeysOf } from './along'
import { centreOf } from './centre'
import { moveKind } from './define'
import { angle, length } from './fields'
import type { MoveBase } from './kind'
import { isRaise, raisedBy } from './raise'

export interface TwistMove extends MoveBase {
  move: 'twist'
  angle: Num
  /** m above the mass's base */ from: Num
  /** null: up to its top */ to: Num | null
}

/** On chosen heights or storeys it has no ends of its own. */
const isWhole = (m: TwistMove) => !m.span

/** Turns the form about its own upright axis, the middle of its outline, evenly between two heights. Faces keep their names. */
export const twist = moveKind<TwistMove>({
  move: 'twist',
  called: 'a twist',
  group: 'shape',
  takes: 'carried',
  gives: 'carried',
  placed: true,
  also: 'body',
  spans: true,
  fields: {
    angle: angle('turns by', { from: -720, to: 720 }),
    from: length('from', { hint: 'Above its base.', when: isWhole }),
    to: length('to', { otherwise: 'its top', when: isWhole }),
  },
  starts: () => ({ angle: 30, from: 0, to: null }),
  // Rows of the body lie at the storeys, where its cut is exact.
  dependsOn: storeysOf,
  check: (m, { before, name, numbers }) => {
    if (!isWhole(m)) return
    const from = numbers.length(m.from)
    const isCarried = before.every((b) => b.move !== 'twist')
    if (isCarried && from < 0)
      refuse('size', `The twist of "${name}" begins below its base.`, 'Type a height of zero or more.')
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
  build: (form, m, { numbers, ranges, asBody }) => {
    const turn = numbers.angle(m.angle)
    const [from, end] = [numbers.length(m.from), m.to === null ? null : numbers.length(m.to)]
    const { carried } = form
    if (carried && !carried.sweep.twist && ranges === null) {
      const { sweep, by } = carried
      const [x, y] = centreOf(sweep.low)
      const twist = { x, y, from, to: end ?? sweep.z1, angle: turn }
      return { ...form, outline: null, carried: { sweep: { ...sweep, twist }, by } }
    }
    const body = asBody(form)
    return carriedAlong(body, { turn }, ranges ?? [[from, end ?? heightOf(body)]], numbers)
  },
})
