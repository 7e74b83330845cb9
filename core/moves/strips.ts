import { arcBetween, arcPoints, isCircle, type Arc, type Outline, type Vec2 } from '../solid'
import { refuse, type Num } from '../values'
import { moveKind } from './define'
import { times } from './fields'
import type { Form, MoveBase } from './kind'
import { outlineOf } from './outline'

export interface StripsMove extends MoveBase {
  move: 'strips'
  /** the edge that is parted */ side: string
  count: Num
}

/** Parts a side of the outline into equal strips along its length: <edge>-1, <edge>-2 ... in its sense. An arc stays one. */
export const strips = moveKind<StripsMove>({
  move: 'strips',
  called: 'strips of a side',
  title: 'strips of a side',
  group: 'plan',
  takes: 'plan',
  gives: 'plan',
  fields: { side: { is: 'side', label: 'side' }, count: times('how many', { from: 1, to: 200 }) },
  starts: ({ corners: [first] }) => (first ? { side: first.id, count: 3 } : null),
  check: (m, { form, numbers, name }) => void parted(form(), m.side, wholeOf(numbers.value(m.count, 'number')), name),
  build: (form, m, { numbers, name }) => parted(form, m.side, wholeOf(numbers.value(m.count, 'number')), name),
})

const wholeOf = (count: number): number =>
  Number.isInteger(count) ? count : refuse('size', `A number of strips is ${count}.`, 'Type a whole number.')

function parted(form: Form, side: string, count: number, name: string): Form {
  const lines = outlineOf(form)
  if (!lines.some((l) => l.edges.includes(side)))
    return refuse('unknown-id', `The side that is parted into strips is gone from "${name}".`, 'Choose another side.')
  return { ...form, outline: lines.map((line) => partedLine(line, side, count)) }
}

function partedLine(line: Outline, side: string, count: number): Outline {
  const n = line.points.length
  if (!line.edges.includes(side)) return line
  const out: Outline = { points: [], edges: [], arcs: [] }
  const put = (p: Vec2, edge: string, arc: Arc | null) => {
    out.points.push(p)
    out.edges.push(edge)
    out.arcs.push(arc)
  }
  // From where the side begins, so that its facets follow one another.
  const first = line.edges.findIndex((e, i) => e === side && line.edges[(i - 1 + n) % n] !== side)
  for (let k = 0; k < n; k++) {
    const i = ((first < 0 ? 0 : first) + k) % n
    const [p, arc, edge] = [line.points[i] as Vec2, line.arcs[i] ?? null, line.edges[i] ?? '']
    if (edge !== side) {
      put(p, edge, arc)
      continue
    }
    if (!arc) {
      const q = line.points[(i + 1) % n] as Vec2
      for (let s = 0; s < count; s++)
        put([p[0] + ((q[0] - p[0]) * s) / count, p[1] + ((q[1] - p[1]) * s) / count], `${side}-${s + 1}`, null)
      continue
    }
    if (k > 0 && line.edges[(i - 1 + n) % n] === side && line.arcs[(i - 1 + n) % n] === arc) continue
    for (let s = 0; s < count; s++) {
      const at = (share: number): Vec2 => {
        const a = arc.from + arc.sweep * share
        return [arc.x + arc.r * Math.cos(a), arc.y + arc.r * Math.sin(a)]
      }
      const begins = s === 0 && !isCircle(arc) ? p : at(s / count)
      const bit = arcBetween(begins, at((s + 1) / count), Math.tan(arc.sweep / count / 4))
      if (bit) for (const q of arcPoints(bit).slice(0, -1)) put(q, `${side}-${s + 1}`, bit)
    }
  }
  return out
}
