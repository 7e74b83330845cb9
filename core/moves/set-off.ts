import { refuse } from '../values'
import { linesOfPlan } from './outline'
import {
  arcPoints,
  inside,
  isCircle,
  loopArea,
  type Arc,
  type Outline,
  type Plan,
  type Vec2,
  TOLERANCE,
  gapOf,
  meetingOf,
  wayOf,
} from '../solid'
import { outlineFault } from './outline-fault'

/**
 * Closed lines with every edge set off square to itself by a distance (m; above zero towards the body; one for all, or by the edge's
 * name): lines stay parallel, arcs concentric, corners where the moved edges meet. Points and names correspond. `meet` refuses it where
 * an edge would vanish.
 */
export function leaned(lines: Outline[], by: number | ((edge: string) => number), meet: () => never): Outline[] {
  const byEdge = typeof by === 'number' ? () => by : by
  const moved = lines.map((line) => {
    const moved = setOff(line, byEdge)
    const vanished =
      moved === null ||
      Math.sign(loopArea(moved.points)) !== Math.sign(loopArea(line.points)) ||
      line.points.some((p, i) => {
        const j = (i + 1) % line.points.length
        const [q, a, b] = [line.points[j] as Vec2, moved.points[i] as Vec2, moved.points[j] as Vec2]
        return (q[0] - p[0]) * (b[0] - a[0]) + (q[1] - p[1]) * (b[1] - a[1]) <= 0
      })
    return vanished || !moved ? meet() : moved
  })
  // Holes grow as the outline shrinks: they must stay within it, and apart.
  const [outer, ...holes] = moved.map((l) => l.points)
  holes.forEach((hole, i) => {
    const apart = [outer as Vec2[], ...holes.slice(0, i)].every(
      (other) => outlineFault([...other, ...hole], other.length) === null,
    )
    if (!apart || !inside(outer as Vec2[], hole[0] as Vec2)) meet()
  })
  return moved
}

/**
 * A plan by its corners, every side set in by a distance of its own (m). Errors: 'geometry' where a side is gone then; `name` says whose.
 */
export const setBack = (plan: Plan, by: (side: string) => number, name: string): Outline[] =>
  leaned(linesOfPlan(plan), by, () =>
    refuse('geometry', `Set in so far, a side of ${name} is gone.`, 'Set it in by less.'),
  )

/** An edge of an outline: its first point's number, how many facets it has, and the arc it is, if it is one. */
interface Edge {
  first: number
  count: number
  arc: Arc | null
  a: Vec2
  b: Vec2
  /** m that it is set off */ by: number
}

function setOff(line: Outline, byEdge: (edge: string) => number): Outline | null {
  const edges = edgesOf(line, byEdge)
  const only = edges[0]
  if (edges.length === 1 && only?.arc && isCircle(only.arc)) {
    const arc = concentric(only.arc, only.by)
    return arc && { ...line, points: arcPoints(arc), arcs: line.arcs.map(() => arc) }
  }
  const starts = edges.map((edge, i) => cornerOf(edges[(i + edges.length - 1) % edges.length] as Edge, edge))
  if (starts.some((p) => p === null)) return null
  const out: Outline = { points: [], edges: line.edges, arcs: [] }
  edges.forEach((edge, i) => {
    const [a, b] = [starts[i] as Vec2, starts[(i + 1) % edges.length] as Vec2]
    if (!edge.arc) {
      out.points.push(a)
      out.arcs.push(null)
      return
    }
    const base = concentric(edge.arc, edge.by) as Arc
    const angle = (p: Vec2) => Math.atan2(p[1] - base.y, p[0] - base.x)
    let sweep = angle(b) - angle(a)
    while (sweep < 0 && edge.arc.sweep > 0) sweep += 2 * Math.PI
    while (sweep > 0 && edge.arc.sweep < 0) sweep -= 2 * Math.PI
    const arc = { ...base, from: angle(a), sweep }
    out.points.push(...arcPoints(arc).slice(0, -1))
    out.arcs.push(...Array.from({ length: edge.count }, () => arc))
  })
  return out
}

function edgesOf({ points, edges, arcs }: Outline, byEdge: (edge: string) => number): Edge[] {
  const out: Edge[] = []
  points.forEach((a, i) => {
    const last = out.at(-1)
    const b = points[(i + 1) % points.length] as Vec2
    if (last?.arc && last.arc === arcs[i] && edges[i] === edges[last.first]) {
      last.count++
      last.b = b
    } else out.push({ first: i, count: 1, arc: arcs[i] ?? null, a, b, by: byEdge(edges[i] ?? '') })
  })
  return out
}

/** The body lies to the left of every edge: an arc that turns left has its centre there and shrinks. */
function concentric(arc: Arc, by: number): Arc | null {
  const r = arc.r - by * Math.sign(arc.sweep)
  return r > TOLERANCE.least ? { ...arc, r } : null
}

function cornerOf(before: Edge, after: Edge): Vec2 | null {
  const at = after.a
  const [one, two] = [offLine(before, 'end'), offLine(after, 'start')]
  if ((before.arc && !concentric(before.arc, before.by)) || (after.arc && !concentric(after.arc, after.by))) return null
  // Edges that run on in one direction move together, or not at all.
  const [ux, uy] = one.along
  const [wx, wy] = two.along
  const cross = ux * wy - uy * wx
  if (Math.abs(cross) < TOLERANCE.fine) return ux * wx + uy * wy > 0 && before.by === after.by ? one.at : null
  if (!before.arc && !after.arc) return meetingOf(one.at, one.along, two.at, two.along)
  const found = meets(before, one, after, two).sort((p, q) => gapOf(p, at) - gapOf(q, at))
  return found[0] ?? null
}

/** A point and the direction of an edge's moved line at one of its ends. */
function offLine(edge: Edge, end: 'start' | 'end'): { at: Vec2; along: Vec2 } {
  const p = end === 'start' ? edge.a : edge.b
  let along: Vec2
  if (edge.arc) {
    const s = Math.sign(edge.arc.sweep)
    along = [(-(p[1] - edge.arc.y) * s) / edge.arc.r, ((p[0] - edge.arc.x) * s) / edge.arc.r]
  } else {
    along = wayOf(edge.a, edge.b)
  }
  return { at: [p[0] - along[1] * edge.by, p[1] + along[0] * edge.by], along }
}

function meets(before: Edge, one: { at: Vec2; along: Vec2 }, after: Edge, two: { at: Vec2; along: Vec2 }): Vec2[] {
  const circle = (edge: Edge) => edge.arc && concentric(edge.arc, edge.by)
  const [c1, c2] = [circle(before), circle(after)]
  if (c1 && c2) {
    const d = Math.hypot(c2.x - c1.x, c2.y - c1.y)
    const a = (d * d + c1.r * c1.r - c2.r * c2.r) / (2 * d)
    const h2 = c1.r * c1.r - a * a
    if (h2 < 0) return []
    const [ex, ey, h] = [(c2.x - c1.x) / d, (c2.y - c1.y) / d, Math.sqrt(h2)]
    return [
      [c1.x + ex * a - ey * h, c1.y + ey * a + ex * h],
      [c1.x + ex * a + ey * h, c1.y + ey * a - ex * h],
    ]
  }
  const [arc, line] = c1 ? [c1, two] : [c2 as Arc, one]
  return lineMeetsCircle(line.at, line.along, arc)
}

/** Where a line through a point along a direction of length one meets a circle, m. */
export function lineMeetsCircle(at: Vec2, along: Vec2, circle: Pick<Arc, 'x' | 'y' | 'r'>): Vec2[] {
  const [dx, dy] = [at[0] - circle.x, at[1] - circle.y]
  const b = dx * along[0] + dy * along[1]
  const root = b * b - (dx * dx + dy * dy - circle.r * circle.r)
  return root < 0
    ? []
    : [-b - Math.sqrt(root), -b + Math.sqrt(root)].map((t): Vec2 => [at[0] + along[0] * t, at[1] + along[1] * t])
}
