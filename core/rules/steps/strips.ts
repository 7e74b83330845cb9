import { times } from '../../moves'
import { faceName } from '../../solid'
import { refuse, type Id, type Num } from '../../values'
import { isRaised, needsPlan } from '../cell'
import { raiserOf } from '../recipe'
import type { StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface StripsStep extends StepBase {
  step: 'strips'
  /** the step that named the side; null: none yet */ side: Id | null
  /** along the length of the side, up its face, or both: patches */ way?: 'length' | 'height' | 'both'
  count: Num
  rows?: Num
  /** what they are drawn in, in turn */ materials: Id[]
  ends: 'any' | 'alike'
}

const wayOf = (s: StripsStep) => s.way ?? 'length'
const hasRows = (s: StripsStep) => wayOf(s) !== 'length'
const hasColumns = (s: StripsStep) => wayOf(s) !== 'height'

/**
 * Parts a named side into equal strips along its length, its face into strips of equal height, or into patches; each
 * becomes a face of its own,
 * upright or twisted. Materials take turns; on patches like a chessboard.
 */
export const strips: StepKind<StripsStep> = {
  step: 'strips',
  called: 'strips',
  about: 'or patches of a named side, in materials that take turns',
  fields: {
    side: { is: 'named-side', label: 'side', otherwise: 'no side yet' },
    way: {
      is: 'choice',
      label: 'parted',
      options: [
        { value: 'length', label: 'along its length' },
        { value: 'height', label: 'up its height' },
        { value: 'both', label: 'into patches' },
      ],
      absent: 'length',
    },
    count: times('strips', { from: 1, to: 200, when: hasColumns }),
    rows: times('rows', { from: 1, to: 200, when: hasRows, absent: 3 }),
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
  says: (s) =>
    ({
      length: 'part {side} {way} into {count} strips, in turn {materials}, its ends {ends}',
      height: 'part {side} {way} into {rows} strips, in turn {materials}, its ends {ends}',
      both: 'part {side} {way}, {count} by {rows}, in turn {materials}, its ends {ends}',
    })[wayOf(s)],
  starts: () => ({ side: null, way: 'length', count: 9, rows: 3, materials: [], ends: 'any' }),
  each: (cell, s, { numbers }) => {
    const raiser = raiserOf(cell)
    if (!hasRows(s)) needsPlan(cell, 'A step that parts a side')
    else if (!isRaised(cell) || !raiser)
      return refuse(
        'geometry',
        `"${cell.key}" has no faces yet that could be parted up their height.`,
        'Put this step behind the one that raises it.',
      )
    const side = s.side === null ? undefined : cell.sides[s.side]
    if (side === undefined)
      return refuse(
        'unknown-id',
        `No side of "${cell.key}" is named for its strips.`,
        'Name a side in a step above, and choose it here.',
      )
    const columns = hasColumns(s) ? whole(numbers, s.count, 'A number of strips') : 1
    const rows = hasRows(s) ? whole(numbers, s.rows ?? 3, 'A number of rows') : 1
    if (s.ends === 'alike') {
      if (hasColumns(s)) endsAlike(columns, s.materials.length)
      if (hasRows(s)) endsAlike(rows, s.materials.length)
    }
    const dressed: Record<string, Id> = {}
    for (let c = 1; c <= columns; c++)
      for (let r = 1; r <= rows; r++) {
        const material = s.materials[(c + r - 2) % (s.materials.length || 1)]
        const strip = hasColumns(s) ? `${side}-${c}` : side
        if (material) dressed[hasRows(s) ? faceName(s.id, strip, `1-${r}`) : strip] = material
      }
    const along = { id: hasRows(s) ? `${s.id}-l` : s.id, on: true, move: 'strips' as const, side, count: columns }
    const at = raiser && hasRows(s) ? cell.moves.indexOf(raiser) : cell.moves.length
    const up = raiser && {
      id: s.id,
      on: true,
      move: 'parts' as const,
      face: faceName(raiser.id, side),
      columns: 1,
      rows,
    }
    return [
      {
        ...cell,
        moves: [
          ...cell.moves.slice(0, at),
          ...(hasColumns(s) ? [along] : []),
          ...cell.moves.slice(at),
          ...(hasRows(s) && up ? [up] : []),
        ],
        dressed: { ...cell.dressed, ...dressed },
      },
    ]
  },
}

/** Refuses a number of strips in so many materials in turn whose two ends cannot be alike; says which can. */
function endsAlike(count: number, turns: number): void {
  if (turns <= 1 || (count - 1) % turns === 0) return
  const can = [count - 1, count + 1, count - 2, count + 2].filter((n) => n > 0 && (n - 1) % turns === 0)
  refuse(
    'size',
    `${count} strips in ${turns} materials in turn cannot have both ends alike.`,
    can.length ? `Take ${can.join(' or ')}, or let the ends come as they do.` : 'Let the ends come as they do.',
  )
}
