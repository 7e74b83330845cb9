import { length } from '../../moves'
import { gapOf, planArea } from '../../solid'
import { TOLERANCE, type Num } from '../../values'
import { planNow, type Cell } from '../cell'
import type { StepBase, StepKind } from './kind'

export interface SortStep extends StepBase {
  step: 'sort'
  by: 'east' | 'north' | 'area' | 'distance'
  down: 'up' | 'down'
  /** m */ x: Num
  y: Num
}

/** Puts them in another order, for steps that count. Keys stay. */
export const sort: StepKind<SortStep> = {
  step: 'sort',
  called: 'sort',
  about: 'the order in which steps below count',
  fields: {
    by: {
      is: 'choice',
      label: 'by',
      options: [
        { value: 'east', label: 'how far east' },
        { value: 'north', label: 'how far north' },
        { value: 'area', label: 'area' },
        { value: 'distance', label: 'the distance to a point' },
      ],
    },
    down: {
      is: 'choice',
      label: 'which first',
      options: [
        { value: 'up', label: 'least first' },
        { value: 'down', label: 'most first' },
      ],
    },
    x: length('east', { when: (s) => s.by === 'distance' }),
    y: length('north', { when: (s) => s.by === 'distance' }),
  },
  says: (s) => (s.by === 'distance' ? 'put in order by {by} {x}, {y}, {down}' : 'put in order by {by}, {down}'),
  starts: () => ({ by: 'east', down: 'up', x: 0, y: 0 }),
  all: (cells, s, doing) => {
    const { numbers } = cells[0] ? doing(cells[0], 0) : { numbers: null }
    const valueOf = (c: Cell, nth: number): number => {
      if (s.by === 'east') return c.x
      if (s.by === 'north') return c.y
      if (s.by === 'area') return planArea(planNow(c, doing(c, nth).numbers))
      return numbers ? gapOf([c.x, c.y], [numbers.length(s.x), numbers.length(s.y)]) : 0
    }
    // Cells that are equal but for the last digit keep their order.
    const rank = (c: Cell, nth: number) => Math.round(valueOf(c, nth) / TOLERANCE.point)
    const sense = s.down === 'down' ? -1 : 1
    return cells
      .map((cell, nth) => ({ cell, nth, rank: rank(cell, nth) }))
      .sort((a, b) => sense * (a.rank - b.rank) || a.nth - b.nth)
      .map(({ cell }) => cell)
  },
}
