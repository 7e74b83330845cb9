import { length, times } from '../../moves'
import { gapOf, planArea } from '../../solid'
import { refuse, type Num } from '../../values'
import { inCell, planNow, type Cell } from '../cell'
import type { StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface ChooseStep extends StepBase {
  step: 'choose'
  how: 'every' | 'chessboard' | 'first' | 'last' | 'numbers' | 'columns' | 'rows' | 'larger' | 'smaller' | 'nearest'
  /** how many, or every how many-th */ many: Num
  /** from which one on, from 1 */ from: Num
  numbers: number[]
  /** m2 */ area: Num
  x: Num
  y: Num
}

const is =
  (...how: ChooseStep['how'][]) =>
  (s: ChooseStep) =>
    how.includes(s.how)

/** Chooses some, for steps below to act on. */
export const choose: StepKind<ChooseStep> = {
  step: 'choose',
  called: 'choose',
  about: 'some of them, for steps below',
  fields: {
    how: {
      is: 'choice',
      label: 'which',
      options: [
        { value: 'every', label: 'every so many-th' },
        { value: 'chessboard', label: 'like the dark fields of a chessboard' },
        { value: 'first', label: 'the first' },
        { value: 'last', label: 'the last' },
        { value: 'numbers', label: 'by number' },
        { value: 'columns', label: 'in columns' },
        { value: 'rows', label: 'in rows' },
        { value: 'larger', label: 'larger than' },
        { value: 'smaller', label: 'smaller than' },
        { value: 'nearest', label: 'nearest to a point' },
      ],
    },
    many: times('how many', { from: 1, to: 5000, when: is('every', 'first', 'last', 'nearest') }),
    from: times('from number', { from: 1, to: 5000, when: is('every') }),
    numbers: { is: 'values', label: 'numbers', when: is('numbers', 'columns', 'rows') },
    area: { is: 'number', quantity: 'area', label: 'area', when: is('larger', 'smaller') },
    x: length('east', { when: is('nearest') }),
    y: length('north', { when: is('nearest') }),
  },
  says: (s) =>
    ({
      every: 'choose {how}: every {many}, from number {from}',
      chessboard: 'choose {how}',
      first: 'choose {how} {many}',
      last: 'choose {how} {many}',
      numbers: 'choose {how}: {numbers}',
      columns: 'choose {how} {numbers}',
      rows: 'choose {how} {numbers}',
      larger: 'choose {how} {area}',
      smaller: 'choose {how} {area}',
      nearest: 'choose the {many} {how} {x}, {y}',
    })[s.how],
  starts: () => ({ how: 'every', many: 2, from: 1, numbers: [1], area: 100, x: 0, y: 0 }),
  all: (cells, s, doing) => {
    const test = chooser(cells, s, doing)
    return cells.map((c, i) => (test(c, i) ? { ...c, chosen: [...c.chosen, s.id] } : c))
  },
}

function chooser(
  cells: Cell[],
  s: ChooseStep,
  doing: Parameters<NonNullable<StepKind<ChooseStep>['all']>>[2],
): (cell: Cell, nth: number) => boolean {
  const first = cells[0]
  if (!first) return () => false
  const { numbers, note } = doing(first, 0)
  const many = () => whole(numbers, s.many, 'A number of chosen ones')
  const areas = (cell: Cell, nth: number) => planArea(planNow(cell, doing(cell, nth).numbers))
  const outside = (most: number, what: string) => {
    const missing = s.numbers.filter((n) => !Number.isInteger(n) || n < 1 || n > most)
    if (missing.length)
      note(
        `There is no ${what} ${missing.join(', ')}: there are ${most}.`,
        'Leave the number out, or type another one.',
      )
  }
  switch (s.how) {
    case 'every': {
      const [every, from] = [many(), whole(numbers, s.from, 'A number to begin with')]
      return (_, nth) => nth + 1 >= from && (nth + 1 - from) % every === 0
    }
    case 'chessboard':
      return ({ at: [column, row] }) => (column + row) % 2 === 0
    case 'first':
      return (_, nth) => nth < many()
    case 'last':
      return (_, nth) => nth >= cells.length - many()
    case 'numbers':
      outside(cells.length, 'number')
      return (_, nth) => s.numbers.includes(nth + 1)
    case 'columns':
      outside(Math.max(...cells.map((c) => c.at[0])), 'column')
      return ({ at }) => s.numbers.includes(at[0])
    case 'rows':
      outside(Math.max(...cells.map((c) => c.at[1])), 'row')
      return ({ at }) => s.numbers.includes(at[1])
    case 'larger':
      return (cell, nth) => areas(cell, nth) > numbers.value(s.area, 'area')
    case 'smaller':
      return (cell, nth) => areas(cell, nth) < numbers.value(s.area, 'area')
    case 'nearest': {
      const [x, y] = [numbers.length(s.x), numbers.length(s.y)]
      const far = (c: Cell) => gapOf(inCell(c, [x, y]), [0, 0])
      const nearest = new Set([...cells].sort((a, b) => far(a) - far(b)).slice(0, many()))
      return (cell) => nearest.has(cell)
    }
    default:
      return refuse('edit', `"${s.how as string}" is no way to choose.`, 'Update Geotome.')
  }
}
