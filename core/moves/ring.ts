import { loopArea, TOLERANCE, type Outline } from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { length } from './fields'
import type { Form, MoveBase } from './kind'
import { outlineOf, reversed } from './outline'
import { leaned } from './set-off'

export interface RingMove extends MoveBase {
  move: 'ring'
  /** m */ thick: Num
  side: 'inside' | 'outside'
}

/** Thickens the outline to a ring: its lines are one side, the other lies so far inside or outside. The other side's edges are in/<edge>. */
export const ring = moveKind<RingMove>({
  move: 'ring',
  called: 'a thickening',
  title: 'thicken',
  group: 'plan',
  takes: 'plan',
  gives: 'plan',
  fields: {
    thick: length('thick', { from: TOLERANCE.least }),
    side: {
      is: 'choice',
      label: 'to its',
      options: [
        { value: 'inside', label: 'inside' },
        { value: 'outside', label: 'outside' },
      ],
    },
  },
  starts: ({ plan }) => (plan.length === 1 ? { thick: 0.5, side: 'inside' } : null),
  check: (m, { form, numbers, name }) => void thickened(form(), m, numbers.length(m.thick), name),
  build: (form, m, { numbers, name }) => thickened(form, m, numbers.length(m.thick), name),
})

function thickened(form: Form, m: RingMove, thick: number, name: string): Form {
  const lines = outlineOf(form)
  const [line] = lines
  if (!line || lines.length > 1)
    return refuse('geometry', `The outline of "${name}" has a hole, and cannot be thickened.`, 'Close the hole.')
  const other = leaned(lines, m.side === 'inside' ? thick : -thick, () =>
    refuse('geometry', `Thickened by ${thick} m, a side of "${name}" is gone.`, 'Make it thinner.'),
  )[0] as Outline
  const within = (l: Outline): Outline => reversed({ ...l, edges: l.edges.map((e) => `in/${e}`) })
  const outline = m.side === 'inside' ? [line, within(other)] : [{ ...other, edges: line.edges }, within(line)]
  return outline.every((l, i) => Math.sign(loopArea(l.points)) === (i === 0 ? 1 : -1))
    ? { ...form, outline }
    : refuse('geometry', `Thickened by ${thick} m, nothing is left within "${name}".`, 'Make it thinner.')
}
