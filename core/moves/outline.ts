import * as v from 'valibot'
import {
  arcBetween,
  arcPoints,
  facetsFor,
  inside,
  loopArea,
  rectOf,
  rectsMeet,
  type Arc,
  type Outline,
  type Plan,
  type Rect,
  type Vec2,
  inHole,
} from '../solid'
import { IdSchema, NumSchema, refuse, type Num, type Numbers, type Quantity } from '../values'
import type { Form, MoveBase, MoveKind } from './kind'
import { outlineFault } from './outline-fault'
import type { CornerAt } from './shapes/kind'
import { OutlineShapeSchema, shapeKind, type OutlineShape } from './shapes/list'
import { EdgeIdSchema, type Corner } from './shapes/polygon'

/** A hole: an outline of its own, from a place in the mass's frame. Its id begins the names of its edges. */
const HoleSchema = v.strictObject({ id: EdgeIdSchema, x: NumSchema, y: NumSchema, shape: OutlineShapeSchema })
export type Hole = v.InferOutput<typeof HoleSchema>

export interface OutlineMove extends MoveBase {
  move: 'outline'
  shape: OutlineShape
  holes: Hole[]
}
/** Returns true for the move that draws an outline. */
export const isOutline = (m: MoveBase): m is OutlineMove => m.move === 'outline'

/** The closed outline in plan that a form begins with, with its holes; drawn in either sense. Edges are straight lines or arcs. */
export const outline: MoveKind<OutlineMove> = {
  move: 'outline',
  called: 'an outline',
  fields: {},
  takes: 'nothing',
  gives: 'plan',
  schema: () =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('outline'),
      shape: OutlineShapeSchema,
      holes: v.optional(v.pipe(v.array(HoleSchema), v.maxLength(200, 'An outline has at most 200 holes.')), []),
    }),
  numbers: ({ shape, holes }) => [
    ...shapeNumbers(shape),
    ...holes.flatMap((h): [Num, Quantity][] => [[h.x, 'length'], [h.y, 'length'], ...shapeNumbers(h.shape)]),
  ],
  inner: () => null,
  check: (move, { name, numbers }) => {
    checkShape(move.shape, `"${name}"`, numbers)
    move.holes.forEach((hole, i) => checkShape(hole.shape, `hole ${i + 1} of "${name}"`, numbers))
    if (new Set(move.holes.map((h) => h.id)).size !== move.holes.length)
      refuse('id-taken', `Two holes of "${name}" have the same id.`, 'Give each hole its own id.')
    const [outer, ...holes] = outlinesOf(move, numbers).map((l) => l.points)
    const inner = holes.length - move.holes.length
    const rects = [outer as Vec2[], ...holes].map((loop) => rectOf([loop]))
    holes.forEach((hole, i) => {
      const near = (k: number) => rectsMeet(rects[k] as Rect, rects[i + 1] as Rect, 0)
      const all = [outer as Vec2[], ...holes.slice(0, i).filter((_, k) => near(k + 1))]
      const ends = (loop: Vec2[]) => outlineFault([...loop, ...hole], loop.length) !== null
      if (
        all.some(ends) ||
        !hole.every((p) => inside(outer as Vec2[], p)) ||
        holes.slice(0, i).some((h, k) => near(k + 1) && (inside(h, hole[0] as Vec2) || inside(hole, h[0] as Vec2)))
      ) {
        refuse(
          'outline',
          `Hole ${i + 1 - inner} of "${name}" does not lie within its outline, free of the others.`,
          'Move the hole inside, or make it smaller.',
        )
      }
    })
  },
  build: (form, move, { numbers }) => {
    const loops = outlinesOf(move, numbers)
    const first = loops[0]?.points[0] ?? [0, 0]
    const far = loops.some((l) => l.points.some(([x, y]) => Math.abs(x) > FAR || Math.abs(y) > FAR))
    const anchor: Vec2 = far ? [Math.floor(first[0]), Math.floor(first[1])] : [0, 0]
    return { ...form, anchor, outline: far ? loops.map((l) => shifted(l, [-anchor[0], -anchor[1]])) : loops }
  },
}

/** The outline of a form, for the moves that take one in plan. */
export const outlineOf = ({ outline }: Form): Outline[] =>
  outline ?? refuse('geometry', 'The form has no outline.', 'Put an outline first.')

/** m; outlines drawn at map coordinates are built near the origin, so that no digit is lost */
const FAR = 1000

/** The outline and its holes as closed lines in the mass's own frame, m: the outer one counter-clockwise and first, holes clockwise. */
export function outlinesOf({ shape, holes }: Pick<OutlineMove, 'shape' | 'holes'>, numbers: Numbers): Outline[] {
  const outer = lineOf(shape, numbers, (edge) => edge)
  const inner = shapeKind(shape).inner?.(shape, numbers) ?? []
  return [
    turnedTo(outer, 1),
    ...inner.map(({ id, corners }) =>
      turnedTo(
        lineThrough(corners, (edge) => inHole(id, edge)),
        -1,
      ),
    ),
    ...holes.map((h) =>
      turnedTo(
        shifted(
          lineOf(h.shape, numbers, (edge) => inHole(h.id, edge)),
          [numbers.length(h.x), numbers.length(h.y)],
        ),
        -1,
      ),
    ),
  ]
}

/** A shape as one closed line, m, counter-clockwise. Errors: 'outline' where it encloses a court; `what` begins the sentence. */
export function singleLine(shape: OutlineShape, numbers: Numbers, what: string): Outline {
  const [line, court] = outlinesOf({ shape, holes: [] }, numbers)
  return line && !court
    ? line
    : refuse('outline', `${what} encloses a court, which cannot be carried along.`, 'Choose another shape for it.')
}

function lineOf(shape: OutlineShape, numbers: Numbers, named: (edge: string) => string): Outline {
  const kind = shapeKind(shape)
  const round = kind.circle?.(shape, numbers)
  if (round) {
    const arc: Arc = { ...round, from: 0, sweep: 2 * Math.PI, n: facetsFor(round.r, 2 * Math.PI) }
    return facets(arcPoints(arc), named('round'), arc)
  }
  return lineThrough(kind.corners(shape, numbers), named)
}

function lineThrough(all: CornerAt[], named: (edge: string) => string): Outline {
  const outwards = loopArea(all.map((c) => c.at)) < 0 ? -1 : 1
  return joined(
    all.map((c, i) => {
      const arc = arcBetween(c.at, (all[(i + 1) % all.length] ?? c).at, c.bulge * outwards)
      return facets(arc ? arcPoints(arc).slice(0, -1) : [c.at], named(c.id), arc)
    }),
  )
}

/** A plan by its corners as closed lines: arcs in facets. */
export const linesOfPlan = (plan: Plan): Outline[] =>
  plan.map((line) =>
    joined(
      line.map((c, i) => {
        const arc = arcBetween(c.at, (line[(i + 1) % line.length] ?? c).at, c.bulge)
        return facets(arc ? arcPoints(arc).slice(0, -1) : [c.at], c.id, arc)
      }),
    ),
  )

const facets = (points: Vec2[], edge: string, arc: Arc | null): Outline => ({
  points,
  edges: points.map(() => edge),
  arcs: points.map(() => arc),
})
const joined = (lines: Outline[]): Outline => ({
  points: lines.flatMap((l) => l.points),
  edges: lines.flatMap((l) => l.edges),
  arcs: lines.flatMap((l) => l.arcs),
})

/** An arc run through from its other end. */
export const turnedRound = (arc: Arc): Arc => ({ ...arc, from: arc.from + arc.sweep, sweep: -arc.sweep })

/** The closed line running counter-clockwise (1) or clockwise (-1). */
const turnedTo = (line: Outline, sense: 1 | -1): Outline =>
  Math.sign(loopArea(line.points)) === sense ? line : reversed(line)

/** A closed line the other way round: the edge from i to the next becomes the edge into i, and its name and arc go with it. */
export function reversed(line: Outline): Outline {
  const n = line.points.length
  const back = new Map<Arc, Arc>()
  const turned = (arc: Arc) => {
    let t = back.get(arc)
    if (!t) back.set(arc, (t = turnedRound(arc)))
    return t
  }
  const at = (i: number) => (2 * n - 2 - i) % n
  return {
    points: [...line.points].reverse(),
    edges: line.points.map((_, i) => line.edges[at(i)] ?? ''),
    arcs: line.points.map((_, i) => {
      const arc = line.arcs[at(i)]
      return arc ? turned(arc) : null
    }),
  }
}

/** A closed line moved, m. */
export function shifted(line: Outline, [dx, dy]: Vec2): Outline {
  const moved = new Map<Arc, Arc>()
  const arcOf = (arc: Arc) => {
    let m = moved.get(arc)
    if (!m) moved.set(arc, (m = { ...arc, x: arc.x + dx, y: arc.y + dy }))
    return m
  }
  return {
    ...line,
    points: line.points.map(([x, y]): Vec2 => [x + dx, y + dy]),
    arcs: line.arcs.map((a) => a && arcOf(a)),
  }
}

/** The corners in the mass's own frame, m, as they were drawn; a circle has none. */
export const corners = (shape: OutlineShape, numbers: Numbers): Vec2[] =>
  shapeKind(shape)
    .corners(shape, numbers)
    .map((c) => c.at)

/** The same outline with every corner free to move; edges, and so faces, keep their names. A circle becomes four quarters. */
export function polygonOf(shape: OutlineShape, numbers: Numbers): Corner[] {
  if (shape.kind === 'polygon') return shape.corners
  const kind = shapeKind(shape)
  const round = kind.circle?.(shape, numbers)
  if (!round) return kind.corners(shape, numbers).map(({ id, at: [x, y], bulge }) => ({ id, x, y, bulge }))
  const { x, y, r } = round
  return (
    [
      [x, y - r],
      [x + r, y],
      [x, y + r],
      [x - r, y],
    ] as Vec2[]
  ).map(([px, py], i) => ({ id: i === 0 ? 'round' : `round-${i + 1}`, x: px, y: py, bulge: Math.tan(Math.PI / 8) }))
}

const shapeNumbers = (shape: OutlineShape): [Num, Quantity][] => shapeKind(shape).numbers(shape)

/** m: no outline reaches farther than this from end to end */
const LARGEST = 50_000

/** Refuses a shape that is no outline; `name` says whose it is. */
export function checkShape(shape: OutlineShape, name: string, numbers: Numbers): void {
  const kind = shapeKind(shape)
  kind.check(shape, name, numbers)
  const all = kind.corners(shape, numbers)
  const [xs, ys] = [all.map((c) => c.at[0]), all.map((c) => c.at[1])]
  const round = kind.circle?.(shape, numbers)
  const across = round ? 2 * round.r : Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
  if (across > LARGEST)
    refuse(
      'size',
      `The outline of ${name} is ${Math.round(across / 1000)} km across.`,
      `Check its numbers and their unit: up to ${LARGEST / 1000} km are taken.`,
    )
  if (round) return
  const arcs = all.some((c) => c.bulge !== 0)
  const fault =
    outlineFault(
      all.map((c) => c.at),
      null,
      arcs ? 2 : 3,
    ) ?? (arcs ? outlineFault(lineOf(shape, numbers, (edge) => edge).points, null, 3, 'arcs') : null)
  if (fault) refuse('outline', `The outline of ${name} ${fault.what}.`, fault.remedy)
}
