import { gapOf, TOLERANCE, type ProfileEdge, type Vec2 } from '../solid'
import { refuse } from '../values'

/** Grooves along a line: m along it to the middle of each; `cut`: what is cut out there, x along the line, y into it, from the middle. */
export interface Grooves {
  at: readonly number[]
  cut: readonly Vec2[]
}

/** m */
export const edgeLength = (e: ProfileEdge): number => (e.arc ? e.arc.radius * Math.abs(e.arc.sweep) : gapOf(e.a, e.b))

/**
 * A line of edges with grooves cut into it, to the side on which the axis lies, or to the other. What is cut out is open where it lies on the line;
 * its sides are groove/<number>/<side>. Errors: 'outline' where it is not open, or a groove does not lie within the thickness and its own pitch.
 */
export function withGrooves(
  edges: readonly ProfileEdge[],
  { at, cut }: Grooves,
  thick: number,
  side: 'axis' | 'away',
  name: string,
): ProfileEdge[] {
  const opening = openingOf(cut, thick, name)
  const [first, last] = [edges[0], edges.at(-1)] as [ProfileEdge, ProfileEdge]
  const rises = last.b[1] !== first.a[1] ? last.b[1] > first.a[1] : last.b[0] < first.a[0]
  const into = (side === 'axis') === rises ? 1 : -1
  const long = edges.reduce((sum, e) => sum + edgeLength(e), 0)
  const [x0, x1] = [opening[0]?.[0] ?? 0, opening.at(-1)?.[0] ?? 0]
  const out: ProfileEdge[] = []
  let done = 0
  at.forEach((middle, k) => {
    const [from, to] = [middle + x0, middle + x1]
    if (from < done - TOLERANCE.rounding || to > long + TOLERANCE.rounding)
      refuse('outline', `The grooves of "${name}" run into one another.`, 'Make them narrower, or their pitch longer.')
    out.push(...between(edges, done, from))
    const { p, way } = frameAt(edges, middle)
    const point = ([x, y]: Vec2): Vec2 => [p[0] + way[0] * x - way[1] * y * into, p[1] + way[1] * x + way[0] * y * into]
    const corners = [pointAt(edges, from), ...opening.slice(1, -1).map(point), pointAt(edges, to)]
    corners.slice(1).forEach((b, i) => {
      out.push({ name: `groove/${k + 1}/${i + 1}`, a: corners[i] as Vec2, b, arc: null, whole: edgeAt(edges, middle) })
    })
    done = to
  })
  return [...out, ...between(edges, done, long)]
}

/** What is cut out as a line from where it opens to where it closes again, both on y = 0. */
function openingOf(cut: readonly Vec2[], thick: number, name: string): Vec2[] {
  const n = cut.length
  const on = ([, y]: Vec2) => Math.abs(y) < TOLERANCE.fine
  const starts = cut.findIndex((p, i) => on(p) && on(cut[(i + 1) % n] as Vec2))
  if (starts < 0 || cut.some(([, y]) => y < -TOLERANCE.fine))
    return refuse(
      'outline',
      `What is cut into "${name}" is open nowhere.`,
      'Let one of its sides run level through its insertion point, and the rest lie above it.',
    )
  if (cut.some(([, y]) => y > thick - TOLERANCE.least))
    return refuse(
      'outline',
      `The grooves of "${name}" go through its thickness of ${thick} m.`,
      'Make them less deep, or it thicker.',
    )
  const line = Array.from({ length: n }, (_, k) => cut[(starts + 1 + k) % n] as Vec2)
  return (line[0]?.[0] ?? 0) < (line.at(-1)?.[0] ?? 0) ? line : line.reverse()
}

/** The point of the line so many metres along it. */
const pointAt = (edges: readonly ProfileEdge[], s: number): Vec2 => frameAt(edges, s).p

/** The edge that lies so many metres along the line. */
function edgeAt(edges: readonly ProfileEdge[], s: number): ProfileEdge {
  let left = s
  return edges.find((e) => (left -= edgeLength(e)) <= 0) ?? (edges.at(-1) as ProfileEdge)
}

function frameAt(edges: readonly ProfileEdge[], s: number): { p: Vec2; way: Vec2 } {
  let left = s
  for (const [i, e] of edges.entries()) {
    const long = edgeLength(e)
    if (left > long + TOLERANCE.rounding && i < edges.length - 1) {
      left -= long
      continue
    }
    const t = Math.min(1, Math.max(0, left / long))
    if (!e.arc) {
      const way: Vec2 = [(e.b[0] - e.a[0]) / long, (e.b[1] - e.a[1]) / long]
      return { p: [e.a[0] + (e.b[0] - e.a[0]) * t, e.a[1] + (e.b[1] - e.a[1]) * t], way }
    }
    const turn = e.arc.from + e.arc.sweep * t
    const sense = Math.sign(e.arc.sweep)
    return {
      p: [e.arc.r + e.arc.radius * Math.cos(turn), e.arc.z + e.arc.radius * Math.sin(turn)],
      way: [-Math.sin(turn) * sense, Math.cos(turn) * sense],
    }
  }
  return { p: edges[0]?.a ?? [0, 0], way: [1, 0] }
}

/** The line from one place along it to another, m; edges keep their names. */
function between(edges: readonly ProfileEdge[], from: number, to: number): ProfileEdge[] {
  const out: ProfileEdge[] = []
  let start = 0
  for (const e of edges) {
    const long = edgeLength(e)
    const [f, t] = [Math.max(0, (from - start) / long), Math.min(1, (to - start) / long)]
    if ((t - f) * long > TOLERANCE.rounding) {
      const whole = [e]
      const [a, b] = [pointAt(whole, f * long), pointAt(whole, t * long)]
      const arc = e.arc && { ...e.arc, from: e.arc.from + e.arc.sweep * f, sweep: e.arc.sweep * (t - f) }
      out.push({
        name: e.name,
        a: f === 0 ? e.a : a,
        b: t === 1 ? e.b : b,
        arc,
        ...(f > 0 || t < 1 ? { whole: e } : {}),
      })
    }
    start += long
  }
  return out
}
