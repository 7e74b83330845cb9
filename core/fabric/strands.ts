import { lineMeetsCircle } from '../moves'
import { loopArea, type Arc, type Region, type Vec2, TOLERANCE, wayOf, gapOf, meetingOf } from '../solid'
import { alongOf, pointAt, type Piece } from './pieces'
import {} from './body'
import { girthOf, type WorldFace } from './print'

/**
 * The plan of a wall before it is joined: the line of its face, counter-clockwise round the mass, and how far to the left of it (m;
 * below zero to the right) its other side lies. A round wall has its arc; a closed one has no ends.
 */
export interface Strand {
  line: Vec2[]
  first: Vec2
  last: Vec2
  arc: Arc | null
  off: number
  closed: boolean
}

/** The strand of an upright piece of a face. */
export function strandOf(face: WorldFace, piece: Piece, off: number): Strand {
  const { round: arc } = face
  const common = { arc, off, first: alongOf(face, piece.from), last: alongOf(face, piece.to) }
  if (!arc)
    return { ...common, line: [pointAt(face, piece.from, piece.z0), pointAt(face, piece.to, piece.z0)], closed: false }
  const girth = girthOf(arc)
  const closed =
    Math.abs(Math.abs(arc.sweep) - 2 * Math.PI) < TOLERANCE.rounding && piece.to - piece.from > girth - TOLERANCE.point
  const step = girth / arc.n
  const between = Array.from({ length: arc.n + 1 }, (_, k) => k * step).filter(
    (u) => u > piece.from + TOLERANCE.point && u < piece.to - TOLERANCE.point,
  )
  const us = closed ? [piece.from, ...between] : [piece.from, ...between, piece.to]
  return { ...common, line: us.map((u) => pointAt(face, u)), closed }
}

/** The strand of a line of points, such as a row of facets. */
export function strandAlong(line: Vec2[], off: number): Strand {
  const closed = line.length > 3 && same(line[0] as Vec2, line.at(-1) as Vec2)
  const ring = closed ? line.slice(0, -1) : line
  return {
    line: ring,
    first: wayOf(line[0] as Vec2, line[1] as Vec2),
    last: wayOf(line.at(-2) as Vec2, line.at(-1) as Vec2),
    arc: null,
    off,
    closed,
  }
}

/** the cosine of 20 degrees */
const NEARLY_STRAIGHT = 0.94

/** Where a strand begins, m in plan. */
export const startOf = (s: Strand): Vec2 => s.line[0] as Vec2
/** Where a strand ends, m in plan; a closed one ends where it begins. */
export const endOf = (s: Strand): Vec2 => (s.closed ? s.line[0] : s.line.at(-1)) as Vec2

/**
 * Where the far side of one of two strands that follow one another ends; null stands for a free end, which is square. They meet in their
 * mitre; those of unequal thickness that run on nearly straight end square, each in the line that halves their angle.
 */
export function cornerOf(before: Strand | null, after: Strand | null, own: 'before' | 'after'): Vec2 {
  if (!before) return far(startOf(after as Strand), (after as Strand).first, (after as Strand).off)
  const one = far(endOf(before), before.last, before.off)
  if (!after) return one
  const two = far(startOf(after), after.first, after.off)
  const turn = before.last[0] * after.first[0] + before.last[1] * after.first[1]
  if (turn > NEARLY_STRAIGHT && Math.abs(before.off - after.off) > TOLERANCE.point) {
    const at = own === 'before' ? endOf(before) : startOf(after)
    const halving: Vec2 = [-(before.last[1] + after.first[1]), before.last[0] + after.first[0]]
    return own === 'before'
      ? (meetingOf(one, before.last, at, halving, TOLERANCE.point) ?? one)
      : (meetingOf(two, after.first, at, halving, TOLERANCE.point) ?? two)
  }
  const met = meetingOf(one, before.last, two, after.first, TOLERANCE.point)
  if (!met) return own === 'before' ? one : two
  // Where one side is round, on its true line; where both are, by their tangents.
  const [arc, of, line, along] =
    before.arc && !after.arc
      ? [before.arc, before, two, after.first]
      : after.arc && !before.arc
        ? [after.arc, after, one, before.last]
        : [null, null, one, before.last]
  if (!arc || !of) return met
  const found = lineMeetsCircle(line, along, { ...arc, r: farRadius(arc, of.off) }).sort(
    (p, q) => gapOf(p, met) - gapOf(q, met),
  )[0]
  return found && gapOf(found, met) < 2 * Math.abs(of.off) + 0.1 ? found : met
}

/** The far side of a strand between its two corners. */
export function farSide(strand: Strand, start: Vec2, end: Vec2): Vec2[] {
  const { line, arc, off, closed } = strand
  const inner = (closed ? line : line.slice(1, -1)).map((p, k): Vec2 => {
    if (arc) {
      const f = farRadius(arc, off) / arc.r
      return [arc.x + (p[0] - arc.x) * f, arc.y + (p[1] - arc.y) * f]
    }
    const i = closed ? k : k + 1
    const [a, b] = [
      wayOf(line[(i + line.length - 1) % line.length] as Vec2, p),
      wayOf(p, line[(i + 1) % line.length] as Vec2),
    ]
    return meetingOf(far(p, a, off), a, far(p, b, off), b, TOLERANCE.point) ?? far(p, a, off)
  })
  if (closed) return inner
  // A mitre may pass the first of the points between: what lies behind it is left out.
  const ahead = (p: Vec2) => (p[0] - start[0]) * strand.first[0] + (p[1] - start[1]) * strand.first[1] > TOLERANCE.fine
  const behind = (p: Vec2) => (end[0] - p[0]) * strand.last[0] + (end[1] - p[1]) * strand.last[1] > TOLERANCE.fine
  const [from, to] = [arc ? inner.findIndex(ahead) : 0, arc ? inner.findLastIndex(behind) : inner.length - 1]
  return [start, ...(from < 0 ? [] : inner.slice(from, to + 1)), end]
}

/** The plan of a strand: its line, then its far side back. A closed one is a ring with a hole, or whole where it is too thick for one. */
export function stripPlan(strand: Strand, side: Vec2[]): Region {
  const { line, closed, off } = strand
  if (closed) {
    const ring = (loop: Vec2[], sense: 1 | -1) => (Math.sign(loopArea(loop)) === sense ? loop : [...loop].reverse())
    const [outer, inner] = Math.abs(loopArea(line)) > Math.abs(loopArea(side)) ? [line, side] : [side, line]
    return strand.arc && farRadius(strand.arc, off) < TOLERANCE.least
      ? [ring(outer, 1)]
      : [ring(outer, 1), ring(inner, -1)]
  }
  return [off >= 0 ? [...line, ...[...side].reverse()] : [...[...line].reverse(), ...side]]
}

const farRadius = (arc: Arc, off: number) => Math.max(TOLERANCE.point, arc.r - off * Math.sign(arc.sweep))
const far = ([x, y]: Vec2, [dx, dy]: Vec2, off: number): Vec2 => [x - dy * off, y + dx * off]
const same = (a: Vec2, b: Vec2) => gapOf(a, b) < TOLERANCE.point
