import { direction, length } from '../../moves'
import { gapOf, sideLength, sideMiddle, type PlanCorner } from '../../solid'
import { TOLERANCE, type Num } from '../../values'
import { inRule, needsPlan, planNow, type Cell } from '../cell'
import type { StepBase, StepKind } from './kind'

export interface SideStep extends StepBase {
  step: 'side'
  how: 'looks' | 'nearest' | 'longest'
  /** degrees */ direction: Num
  /** m */ x: Num
  y: Num
  /** how many were found when a person looked last; null: not looked at yet */ found: number | null
}

/**
 * Names a side of each by what it means, at its foot: that which looks most nearly in a direction and lies farthest there, that which
 * lies nearest to a point, or the longest. What shapes the form afterwards does not change which one it is.
 */
export const side: StepKind<SideStep> = {
  step: 'side',
  called: 'side',
  about: 'one of each, by what it means',
  fields: {
    how: {
      is: 'choice',
      label: 'which',
      options: [
        { value: 'looks', label: 'the side that looks to' },
        { value: 'nearest', label: 'the side nearest to' },
        { value: 'longest', label: 'the longest side' },
      ],
    },
    direction: direction('direction', 'rule', { when: (s) => s.how === 'looks' }),
    x: length('east', { when: (s) => s.how === 'nearest' }),
    y: length('north', { when: (s) => s.how === 'nearest' }),
  },
  says: (s) => ({ looks: 'name {how} {direction}', nearest: 'name {how} {x}, {y}', longest: 'name {how}' })[s.how],
  starts: () => ({ how: 'looks', direction: 270, x: 0, y: 0, found: null }),
  all: (cells, s, doing) => {
    const made = cells.map((cell, nth): Cell => {
      needsPlan(cell, 'A step that names a side')
      const id = sideOf(cell, s, doing(cell, nth).numbers)
      return id === null ? cell : { ...cell, sides: { ...cell.sides, [s.id]: id } }
    })
    const found = made.filter((c) => c.sides[s.id] !== undefined).length
    if (s.found !== null && found !== s.found && cells[0])
      doing(cells[0], 0).note(
        `The named sides are ${found} now, and were ${s.found} when they were looked at.`,
        'Look at what is named there, and take the new number.',
      )
    return made
  },
}

function sideOf(cell: Cell, s: SideStep, numbers: Parameters<typeof planNow>[1]): string | null {
  const [outer] = planNow(cell, numbers)
  if (!outer) return null
  const rank = ranking(cell, s, outer, numbers)
  const best = outer.map((_, i) => rank(i)).reduce((top, r) => (before(r, top) ? r : top))
  const at = outer.findIndex((_, i) => !before(best, rank(i)))
  return (outer[at] as PlanCorner).id
}

type Rank = readonly number[]
/** Whether a comes before b: by their first number that differs, the smaller one. */
function before(a: Rank, b: Rank): boolean {
  const i = a.findIndex((x, k) => Math.abs(x - (b[k] as number)) > TOLERANCE.point)
  return i >= 0 && (a[i] as number) < (b[i] as number)
}

function ranking(
  cell: Cell,
  s: SideStep,
  outer: PlanCorner[],
  numbers: Parameters<typeof planNow>[1],
): (i: number) => Rank {
  const middle = (i: number) => inRule(cell, sideMiddle(outer, i))
  switch (s.how) {
    case 'longest':
      return (i) => [-sideLength(outer, i)]
    case 'nearest': {
      const [x, y] = [numbers.length(s.x), numbers.length(s.y)]
      return (i) => [gapOf(middle(i), [x, y])]
    }
    case 'looks': {
      const a = (numbers.angle(s.direction) * Math.PI) / 180
      const way = [Math.cos(a), Math.sin(a)] as const
      return (i) => {
        const [p, q] = [
          inRule(cell, (outer[i] as PlanCorner).at),
          inRule(cell, (outer[(i + 1) % outer.length] as PlanCorner).at),
        ]
        const long = gapOf(p, q) || 1
        const out = [(q[1] - p[1]) / long, (p[0] - q[0]) / long] as const
        const m = middle(i)
        return [-(out[0] * way[0] + out[1] * way[1]), -(m[0] * way[0] + m[1] * way[1])]
      }
    }
  }
}
