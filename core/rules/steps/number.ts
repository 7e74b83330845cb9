import { length, times } from '../../moves'
import {
  extentAlong,
  freeCurve,
  gapOf,
  gapToLine,
  planArea,
  planLength,
  sideLength,
  type PlanCorner,
  type Vec2,
} from '../../solid'
import { refuse, tidy, type Id, type Num, type Quantity } from '../../values'
import { planNow, type Cell } from '../cell'
import { hostOf } from './bands'
import type { StepBase, StepKind } from './kind'

export interface NumberStep extends StepBase {
  step: 'number'
  name: string
  how:
    | 'same'
    | 'turns'
    | 'chessboard'
    | 'rising'
    | 'columns'
    | 'rows'
    | 'distance'
    | 'line'
    | 'mass'
    | 'picture'
    | 'list'
    | 'chance'
    | 'measure'
  is: Quantity
  a: Num
  b: Num
  /** m */ x: Num
  y: Num
  far: Num
  /** m: east and north of each corner of a line in turn, and whether a smooth curve goes through them */ line?: number[]
  curve?: 'straight' | 'smooth'
  mass?: Id | null
  picture?: Id | null
  list: number[]
  seed: Num
  measure: 'area' | 'around' | 'longest' | 'wide' | 'deep' | 'east' | 'north'
}

const is =
  (...how: NumberStep['how'][]) =>
  (s: NumberStep) =>
    how.includes(s.how)
const TWO = is('turns', 'chessboard', 'rising', 'columns', 'rows', 'distance', 'line', 'mass', 'picture', 'chance')

/** What the number measures. */
function quantityOf(s: NumberStep): Quantity {
  if (s.how === 'measure') return s.measure === 'area' ? 'area' : 'length'
  return s.is
}

/** Gives each a number by a name, for the formulas of steps below. */
export const number: StepKind<NumberStep> = {
  step: 'number',
  called: 'number',
  about: 'a number for each, that formulas below may use',
  fields: {
    name: { is: 'word', label: 'name' },
    is: {
      is: 'choice',
      label: 'it is',
      options: [
        { value: 'number', label: 'a plain number' },
        { value: 'length', label: 'a length' },
        { value: 'angle', label: 'an angle' },
      ],
      when: (s: NumberStep) => s.how !== 'measure',
    },
    how: {
      is: 'choice',
      label: 'how',
      options: [
        { value: 'same', label: 'the same for all' },
        { value: 'turns', label: 'taking turns' },
        { value: 'chessboard', label: 'like a chessboard' },
        { value: 'rising', label: 'from the first to the last' },
        { value: 'columns', label: 'by column' },
        { value: 'rows', label: 'by row' },
        { value: 'distance', label: 'by the distance to a point' },
        { value: 'line', label: 'by the distance to a line' },
        { value: 'mass', label: 'by the distance to a mass' },
        { value: 'picture', label: 'by the darkness of' },
        { value: 'list', label: 'from a list' },
        { value: 'chance', label: 'by chance' },
        { value: 'measure', label: 'measured' },
      ],
    },
    a: times('first', { when: (s) => TWO(s) || s.how === 'same', as: quantityOf }),
    b: times('second', { when: TWO, as: quantityOf }),
    x: length('east', { when: is('distance') }),
    y: length('north', { when: is('distance') }),
    far: length('reached at', { when: is('distance', 'line', 'mass') }),
    line: { is: 'values', label: 'east, north of each corner', absent: [0, 0, 10, 0], when: is('line') },
    curve: {
      is: 'choice',
      label: 'from corner to corner',
      options: [
        { value: 'straight', label: 'straight' },
        { value: 'smooth', label: 'as a smooth curve' },
      ],
      absent: 'straight',
      when: is('line'),
    },
    mass: { is: 'mass', label: 'mass', otherwise: 'no mass yet', absent: null, when: is('mass') },
    picture: { is: 'picture', label: 'picture', otherwise: 'no picture yet', absent: null, when: is('picture') },
    list: { is: 'values', label: 'list', when: is('list') },
    seed: times('seed', { when: is('chance') }),
    measure: {
      is: 'choice',
      label: 'measure',
      options: [
        { value: 'area', label: 'its area' },
        { value: 'around', label: 'its length all round' },
        { value: 'longest', label: 'its longest side' },
        { value: 'wide', label: 'its width' },
        { value: 'deep', label: 'its depth' },
        { value: 'east', label: 'how far east it is' },
        { value: 'north', label: 'how far north it is' },
      ],
      when: is('measure'),
    },
  },
  says: (s) =>
    `call {name} ${
      {
        same: '{is}, {how}: {a}',
        turns: '{is}, {how}: {a}, {b}',
        chessboard: '{is}, {how}: {a} and {b}',
        rising: '{is}, {how}: {a} to {b}',
        columns: '{is}, {how}: {a}, then {b} more each',
        rows: '{is}, {how}: {a}, then {b} more each',
        distance: '{is}, {how} {x}, {y}: {a} there, {b} from {far} on',
        line: '{is}, {how} through {line}, {curve}: {a} on it, {b} from {far} on',
        mass: '{is}, {how}, {mass}: {a} at its outline, {b} from {far} on',
        picture: '{is}, {how} {picture}: {a} where it is white, {b} where it is black',
        list: '{is}, {how}: {list}',
        chance: '{is}, {how} between {a} and {b}, seed {seed}',
        measure: '{measure}',
      }[s.how]
    }`,
  starts: () => ({
    name: 'sense',
    how: 'chessboard',
    is: 'number',
    a: 1,
    b: -1,
    x: 0,
    y: 0,
    far: 50,
    line: [0, 0, 10, 0],
    curve: 'straight',
    mass: null,
    picture: null,
    list: [1, 2, 3],
    seed: 1,
    measure: 'area',
  }),
  gives: (s) => ({ name: s.name, quantity: quantityOf(s) }),
  all: (cells, s, doing) => {
    if (s.how === 'list' && cells.length && s.list.length !== cells.length)
      doing(cells[0] as Cell, 0).note(
        `The list of "${s.name}" has ${s.list.length} numbers for ${cells.length} that it is given to.`,
        s.list.length < cells.length
          ? 'It begins anew where it ends; or type as many numbers.'
          : 'Those behind the last are left out; or type as many numbers.',
      )
    return cells.map((c, nth) => ({ ...c, given: { ...c.given, [s.id]: tidy(valueFor(c, nth, cells, s, doing)) } }))
  },
}

function valueFor(
  cell: Cell,
  nth: number,
  cells: Cell[],
  s: NumberStep,
  doing: Parameters<NonNullable<StepKind<NumberStep>['all']>>[2],
): number {
  const { numbers, world, note } = doing(cell, nth)
  const [a, b] = [() => numbers.value(s.a, s.is), () => numbers.value(s.b, s.is)]
  const by = (share: number) => a() + (b() - a()) * Math.min(1, share)
  const far = () => Math.max(numbers.length(s.far), Number.MIN_VALUE)
  switch (s.how) {
    case 'same':
      return a()
    case 'turns':
      return nth % 2 === 0 ? a() : b()
    case 'chessboard':
      return (cell.at[0] + cell.at[1]) % 2 === 0 ? a() : b()
    case 'rising':
      return cells.length < 2 ? a() : a() + ((b() - a()) * nth) / (cells.length - 1)
    case 'columns':
      return a() + b() * (cell.at[0] - 1)
    case 'rows':
      return a() + b() * (cell.at[1] - 1)
    case 'distance':
      return by(gapOf([cell.x, cell.y], [numbers.length(s.x), numbers.length(s.y)]) / far())
    case 'line':
      return by(gapToLine(lineOf(s), false, [cell.x, cell.y]) / far())
    case 'mass': {
      const host = hostOf(world, s.mass ?? '')
      return by(Math.min(...host.plan(host.base).map((line) => gapToLine(line, true, [cell.x, cell.y]))) / far())
    }
    case 'picture': {
      if (!s.picture) return refuse('stale', 'No picture is chosen for its darkness.', 'Choose one of the pictures.')
      const dark = world.darkness(s.picture)([cell.x, cell.y])
      if (dark === null)
        note(
          `Some of what gets "${s.name}" lies beside the picture, and counts as white.`,
          'Lay the picture so that it lies under all of it.',
        )
      return by(dark ?? 0)
    }
    case 'list':
      return s.list[nth % s.list.length] ?? 0
    case 'chance':
      return a() + (b() - a()) * chanceOf(numbers.value(s.seed, 'number'), cell.key)
    case 'measure':
      return measured(cell, s.measure, numbers)
  }
}

/** The line that a number goes by the distance to. Errors: 'size' where its numbers make no points. */
function lineOf({ line = [], curve }: NumberStep): PlanCorner[] {
  const points = Array.from({ length: Math.floor(line.length / 2) }, (_, i): Vec2 => [
    line[2 * i] ?? 0,
    line[2 * i + 1] ?? 0,
  ])
  if (line.length % 2 !== 0 || points.length < 2)
    return refuse(
      'size',
      `${line.length} numbers make no line.`,
      'Type east and north of each of its corners, of two at least.',
    )
  const made = freeCurve(
    { points, bulges: points.map(() => 0) },
    points.map(() => curve === 'smooth'),
    false,
  )
  return made.points.map((at, i) => ({ id: '', at, bulge: made.bulges[i] ?? 0 }))
}

function measured(cell: Cell, what: NumberStep['measure'], numbers: Parameters<typeof planNow>[1]): number {
  if (what === 'east') return cell.x
  if (what === 'north') return cell.y
  const plan = planNow(cell, numbers)
  if (what === 'area') return planArea(plan)
  if (what === 'around') return planLength(plan)
  if (what === 'longest') return Math.max(...(plan[0] ?? []).map((_, i) => sideLength(plan[0] ?? [], i)))
  const [from, to] = extentAlong(plan, what === 'wide' ? [1, 0] : [0, 1])
  return to - from
}

/** From 0 to 1, by chance: the same for one seed and key whatever becomes of the others. */
function chanceOf(seed: number, key: string): number {
  let h = 2166136261
  for (const c of `${seed} ${key}`) h = Math.imul(h ^ c.charCodeAt(0), 16777619)
  h = Math.imul(h ^ (h >>> 15), 2246822507)
  h = Math.imul(h ^ (h >>> 13), 3266489909)
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296
}
