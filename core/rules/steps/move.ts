import { kindOfMove, MoveSchema, moveTitle, type Fielded, type Move } from '../../moves'
import { faceName } from '../../solid'
import { refuse, type Num, type Numbers, type Quantity } from '../../values'
import { planNow, type Cell } from '../cell'
import { raiserOf } from '../recipe'
import type { StepBase, StepKind } from './kind'

export interface MoveStep extends StepBase {
  step: 'move'
  move: Move
}

/** A move of a recipe, for each: its formulas may name what steps above gave, its side or face may be one that a step has named. */
export const move: StepKind<MoveStep> & { entries: { move: typeof MoveSchema } } = {
  step: 'move',
  called: 'move',
  about: 'raise, inset, taper, twist, cut, roof ...',
  fields: {},
  entries: { move: MoveSchema },
  says: (s) => moveTitle(s.move),
  starts: () => ({ move: { id: 'move', move: 'raise', on: true, height: 9, upTo: null } }),
  numbers: (s) => kindOfMove(s.move).numbers(s.move),
  each: (cell, s, { numbers }) => {
    const made = withNames(resolved({ ...s.move, id: s.id, on: true }, s.move, numbers), cell)
    const next = { ...cell, moves: [...cell.moves, made] }
    // What cannot be made in plan is told of this step, and not of the body that would come of it.
    if (kindOfMove(made).gives === 'plan') planNow(next, numbers)
    return [next]
  },
}

/** The move with the values of its formulas in their place. */
function resolved(as: Move, stored: Move, numbers: Numbers): Move {
  const is = new Map<Num, Quantity>(kindOfMove(stored).numbers(stored))
  const walk = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(walk)
    if (typeof value !== 'object' || value === null) return value
    const quantity = is.get(value as Num)
    if (quantity) return numbers.value(value as Num, quantity)
    return Object.fromEntries(Object.entries(value).map(([key, v]) => [key, walk(v)]))
  }
  return walk(as) as Move
}

/** The move with a side, or the face above one, in place of the step that has named it. */
function withNames(made: Move, cell: Cell): Move {
  const set: Fielded = {}
  for (const [key, field] of Object.entries(kindOfMove(made).fields)) {
    const value = (made as unknown as Fielded)[key]
    if ((field.is !== 'side' && field.is !== 'face') || typeof value !== 'string') continue
    const side = cell.sides[value]
    if (side === undefined) continue
    const raiser = field.is === 'face' ? raiserOf(cell) : null
    if (field.is === 'face' && !raiser)
      refuse('geometry', 'The face of a named side is not there yet.', 'Put the step behind one that raises.')
    set[key] = raiser ? faceName(raiser.id, side) : side
  }
  return Object.keys(set).length ? ({ ...made, ...set } as Move) : made
}
