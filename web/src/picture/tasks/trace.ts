import { batch } from '@geotome/core/edits'
import { inOrder, namesOf, nextOrder, numberedName, type FoundShape, type Trace } from '@geotome/core/project'
import { arcBetween, arcPoints, bulgeAlong, gapOf, type Vec2 } from '@geotome/core/solid'
import { labelled, type BenchAnswer, type BenchLine, type BenchWorld, type Picking, type Task } from './kind'

export interface Tracing extends Picking {
  /** of the side that leaves each point but the last */
  bulges: number[]
  /** the next side is an arc that goes on from the last one */
  arc: boolean
  /** closed shapes found in ink; null: none were looked for */
  found: (FoundShape & { take: boolean })[] | null
}

/** px within which a click on the first corner closes the outline */
const CLOSE = 6

/** Lines traced by hand, straight or as arcs that go on from the last side; or closed shapes found in ink, to be accepted one by one. */
export const traceTask: Task<Tracing> = {
  name: 'trace',
  label: 'Trace',
  begin: () => ({ points: [], bulges: [], arc: false, found: null }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'pick':
        return picked(s, event.at, world)
      case 'accept':
        return event.how === 'found'
          ? foundKept(s, world)
          : s.points.length
            ? finished(s, event.how !== 'open', world)
            : { state: s }
      case 'key':
        return event.key.toLowerCase() === 'a' ? { state: { ...s, arc: !s.arc } } : null
      case 'change':
        return { state: { ...s, ...event.set } }
    }
  },
  hint: () =>
    'Click corner after corner; Enter or a click on the first one closes. A changes between straight sides and arcs that go on from the last one',
  lines: (s, { project, picture }) => [
    ...inOrder(project.traces)
      .filter((t) => t.picture === picture.id)
      .flatMap((t) =>
        t.loops.map((l): BenchLine => ({
          points: drawn(l.points, l.bulges, t.closed),
          closed: t.closed,
          tone: 'faint',
        })),
      ),
    ...(s.found ?? []).flatMap((f, i) =>
      [f.outer, ...f.holes].map((loop, n): BenchLine => ({
        points: drawn(loop, f.bulges[n] ?? [], true),
        closed: true,
        tone: f.take ? 'live' : 'faint',
        ...(loop === f.outer ? { label: String(i + 1) } : {}),
      })),
    ),
    ...(s.points.length > 1
      ? [{ points: drawn(s.points, s.bulges, false), closed: false, tone: 'live' as const }]
      : []),
  ],
}

function picked(s: Tracing, point: Vec2, world: BenchWorld): BenchAnswer<Tracing> {
  const { points } = s
  const first = points[0]
  if (first && points.length > 2 && gapOf(first, point) < CLOSE) return finished(s, true, world)
  const [before, last] = [points.at(-2), points.at(-1)]
  const way = before && last ? endOf(before, last, s.bulges[points.length - 2] ?? 0) : null
  const bulge = last && s.arc && way ? Math.round(bulgeAlong(last, way, point) * 1e6) / 1e6 : 0
  const bulges = last ? [...points.slice(0, -1).map((_, i) => s.bulges[i] ?? 0), bulge] : []
  return { state: { ...s, points: [...points, point], bulges } }
}

function finished(s: Tracing, closed: boolean, world: BenchWorld): BenchAnswer<Tracing> {
  const { points, bulges } = s
  if (points.length < (closed ? 3 : 2))
    return { state: s, refused: closed ? 'A closed outline needs three corners.' : 'A line needs two points.' }
  return added(s, world, [{ closed, loops: [{ points, bulges: points.map((_, i) => bulges[i] ?? 0) }] }], {
    ...s,
    points: [],
    bulges: [],
  })
}

function foundKept(s: Tracing, world: BenchWorld): BenchAnswer<Tracing> {
  const taken = (s.found ?? []).filter((f) => f.take)
  if (taken.length === 0) return { state: s }
  const traces = taken.map((f) => ({
    closed: true,
    loops: [f.outer, ...f.holes].map((points, n) => ({ points, bulges: f.bulges[n] ?? points.map(() => 0) })),
  }))
  return added(s, world, traces, { ...s, found: null })
}

function added(
  s: Tracing,
  { project, picture, mint }: BenchWorld,
  traces: Pick<Trace, 'closed' | 'loops'>[],
  then: Tracing,
): BenchAnswer<Tracing> {
  const edit = () => {
    const names = namesOf(project.traces)
    return batch(
      traces.map((t, i) => {
        const name = numberedName('Traced', names)
        names.push(name)
        const thing = { id: mint(), name, order: nextOrder(project.traces) + i, picture: picture.id, ...t }
        return { edit: 'trace.add' as const, thing }
      }),
    )
  }
  return { state: s, made: { label: labelled('trace on', picture), edit, then } }
}

/** Corners with the facets of their arcs, as they are drawn. */
const drawn = (points: Vec2[], bulges: readonly number[], closed: boolean): Vec2[] =>
  points.flatMap((p, i): Vec2[] => {
    const q = points[i + 1] ?? (closed ? points[0] : undefined)
    const arc = q && arcBetween(p, q, bulges[i] ?? 0)
    return arc ? arcPoints(arc).slice(0, -1) : [p]
  })

/** The direction in which a side ends. */
function endOf(a: Vec2, b: Vec2, bulge: number): Vec2 {
  const turn = 2 * Math.atan(bulge)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return [c * (b[0] - a[0]) - s * (b[1] - a[1]), s * (b[0] - a[0]) + c * (b[1] - a[1])]
}
