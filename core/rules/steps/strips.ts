import { times } from '../../moves'
import { refuse, type Id, type Num } from '../../values'
import { needsPlan } from '../cell'
import type { StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface StripsStep extends StepBase {
  step: 'strips'
  /** the step that named the side; null: none yet */ side: Id | null
  count: Num
  /** what they are drawn in, in turn */ materials: Id[]
  ends: 'any' | 'alike'
}

/** Parts a named side into equal strips along its length; each becomes a face of its own, upright or twisted. */
export const strips: StepKind<StripsStep> = {
  step: 'strips',
  called: 'strips',
  about: 'of a named side, in materials that take turns',
  fields: {
    side: { is: 'named-side', label: 'side', otherwise: 'no side yet' },
    count: times('strips', { from: 1, to: 200 }),
    materials: { is: 'materials', label: 'drawn in' },
    ends: {
      is: 'choice',
      label: 'both ends',
      options: [
        { value: 'any', label: 'as it comes' },
        { value: 'alike', label: 'alike' },
      ],
    },
  },
  says: 'part {side} into {count} strips, in turn {materials}, its ends {ends}',
  starts: () => ({ side: null, count: 9, materials: [], ends: 'any' }),
  each: (cell, s, { numbers }) => {
    needsPlan(cell, 'A step that parts a side')
    const side = s.side === null ? undefined : cell.sides[s.side]
    if (side === undefined)
      return refuse(
        'unknown-id',
        `No side of "${cell.key}" is named for its strips.`,
        'Name a side in a step above, and choose it here.',
      )
    const count = whole(numbers, s.count, 'A number of strips')
    const turns = s.materials.length
    if (s.ends === 'alike' && turns > 1 && (count - 1) % turns !== 0) {
      const can = [count - 1, count + 1, count - 2, count + 2].filter((n) => n > 0 && (n - 1) % turns === 0)
      return refuse(
        'size',
        `${count} strips in ${turns} materials in turn cannot have both ends alike.`,
        can.length ? `Take ${can.join(' or ')}, or let the ends come as they do.` : 'Let the ends come as they do.',
      )
    }
    const dressed = Object.fromEntries(
      Array.from({ length: turns ? count : 0 }, (_, k) => [`${side}-${k + 1}`, s.materials[k % turns] as Id]),
    )
    return [
      {
        ...cell,
        moves: [...cell.moves, { id: s.id, on: true, move: 'strips', side, count }],
        dressed: { ...cell.dressed, ...dressed },
      },
    ]
  },
}
