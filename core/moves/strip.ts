import { onLine, spanned, TOLERANCE, wayOf, type Outline, type Vec2 } from '../solid'
import { refuse } from '../values'
import type { Form } from './kind'
import { leaned } from './set-off'
import { reversed, turnedRound } from './outline'

/** The name of the edges of a strip that are no faces of what comes of it. */
export const OUT = 'out'

/** The outline of a form whose sides stand on it still. Errors: 'geometry' where they do not, 'unknown-id' where the side is gone. */
function standing({ outline }: Form, side: string | null, name: string): Outline[] {
  if (!outline)
    return refuse(
      'geometry',
      `The sides of "${name}" are not those of an outline that stands upright.`,
      'Do it before it is tapered or twisted, or cut it by a plane.',
    )
  if (side !== null && !outline.some((l) => l.edges.includes(side)))
    refuse('unknown-id', `"${name}" has no side "${side}" any more.`, 'Choose one of its sides.')
  return outline
}

/**
 * What a side (null: all of them) takes off in plan when it goes inwards by so many m: from where it goes to, to a metre beyond the side.
 * Edges where it goes to have its name, those at its ends the names of the sides beside it.
 */
export function stripInside(form: Form, side: string | null, by: number, name: string): Outline[] {
  const outline = standing(form, side, name)
  const moves = (edge: string) => side === null || edge === side
  const gone = () => refuse('geometry', `Moved in by ${by} m, a side of "${name}" is gone.`, 'Move it by less.')
  const back = leaned(outline, (edge) => (moves(edge) ? by : 0), gone)
  const wide = leaned(outline, (edge) => (moves(edge) ? -1 : 0), gone)
  if (side !== null) return between(wide, back, side, { near: OUT, far: side }, BEYOND)
  return wide.flatMap((line, l) => [{ ...line, edges: line.edges.map(() => OUT) }, reversed(back[l] as Outline)])
}

/** m: what a strip that is taken off reaches beyond the sides beside it, so that nothing thin is left along them */
const BEYOND = 10 * TOLERANCE.least

/**
 * The strip between a side and where it goes to, m: outwards above zero. The edges at its ends have the names of the sides that it runs
 * along.
 */
export function stripBetween(form: Form, side: string, by: number, name: string): Outline[] {
  if (by < 0) return stripInside(form, side, -by, name)
  const outline = standing(form, side, name)
  const gone = () => refuse('geometry', `Moved out by ${by} m, a side of "${name}" is gone.`, 'Move it by less.')
  const out = leaned(outline, (edge) => (edge === side ? -by : 0), gone)
  return between(out, outline, side, { near: side, far: OUT })
}

/** The outline with a side moved out by so many m (below zero in), the others where they are. */
export function withSideMoved(form: Form, side: string, by: number, name: string): Outline[] {
  const gone = () => refuse('geometry', `Moved by ${by} m, a side of "${name}" is gone.`, 'Move it by less.')
  return leaned(standing(form, side, name), (edge) => (edge === side ? -by : 0), gone)
}

/**
 * The strip from a side of the first lines to the same side of the second, which lies to the left of it: along the one, and back along
 * the other. `beyond` (m): how far it reaches past the sides beside it where the outline turns outwards.
 */
function between(
  near: Outline[],
  far: Outline[],
  side: string,
  edges: { near: string; far: string },
  beyond = 0,
): Outline[] {
  const l = near.findIndex((line) => line.edges.includes(side))
  const [a, b] = [near[l], far[l]]
  if (!a || !b) return []
  const n = a.points.length
  // One edge may be many facets, and begin anywhere in the list.
  const first = a.edges.findIndex((e, i) => e === side && a.edges[(i + n - 1) % n] !== side)
  // A circle is its own neighbour: all of it goes.
  if (first < 0) return [{ ...a, edges: a.edges.map(() => edges.near) }, named(reversed(b), edges.far)]
  const count = a.edges.filter((e) => e === side).length
  const run = Array.from({ length: count + 1 }, (_, k) => (first + k) % n)
  const at = (line: Outline, i: number) => line.points[i] as Vec2
  const there = run.map((i) => at(a, i))
  const back = [...run].reverse().map((i) => at(b, i))
  if (beyond) {
    past(a, first, -1, beyond, [there, 0], [back, count])
    past(a, first + count, 1, beyond, [there, count], [back, 0])
  }
  const arcs = (line: Outline) => run.slice(0, -1).map((i) => line.arcs[i] ?? null)
  const turned = arcs(b).map((arc) => arc && turnedRound(arc))
  return [
    {
      points: [...there, ...back],
      edges: [
        ...there.slice(1).map(() => edges.near),
        a.edges[(first + count) % n] ?? OUT,
        ...back.slice(1).map(() => edges.far),
        a.edges[(first + n - 1) % n] ?? OUT,
      ],
      arcs: [...arcs(a), null, ...turned.reverse(), null],
    },
  ]
}

/** Moves the ends of a strip at a corner of a line past the side beside it, along its own side, which lies behind (1) or before (-1) it. */
function past(line: Outline, corner: number, way: 1 | -1, by: number, ...ends: [Vec2[], number][]): void {
  const n = line.points.length
  const at = (i: number) => line.points[(i + n) % n] as Vec2
  const own = way < 0 ? corner : corner - 1
  const turn = spanned(wayOf(at(corner - 1), at(corner)), wayOf(at(corner), at(corner + 1)))
  if (turn <= 0 || line.arcs[(own + n) % n]) return
  const along = wayOf(at(own), at(own + 1))
  for (const [points, i] of ends) points[i] = onLine(points[i] as Vec2, along, (way * by) / Math.max(0.1, turn))
}

const named = (line: Outline, edge: string): Outline => ({ ...line, edges: line.edges.map(() => edge) })
