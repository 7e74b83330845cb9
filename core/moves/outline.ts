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
  type Rect,
  type Vec2,
  inHole,
} from '../solid'
import { IdSchema, NumSchema, refuse, type Num, type Numbers, type Quantity } from '../values'
import type { Form, MoveBase, MoveKind } from './kind'
import { outlineFault } from './outline-fault'
import { atLeastAMillimetre } from './sizes'

const EdgeIdSchema = v.pipe(
  v.string(),
  v.regex(/^[a-zA-Z0-9-]{1,40}$/, "A corner's id is made of letters, digits and dashes."),
)

/**
 * A corner's id names the edge from it to the next corner, and so the face above that edge. The bulge is the tangent of a quarter of
 * the angle that the edge's arc sweeps, above zero where it swells outwards: 0 is straight, 1 a semicircle.
 */
const CornerSchema = v.strictObject({ id: EdgeIdSchema, x: NumSchema, y: NumSchema, bulge: v.optional(NumSchema, 0) })
export type Corner = v.InferOutput<typeof CornerSchema>

const OutlineShapeSchema = v.variant('kind', [
  /** from the mass's origin, width along its x axis and depth along its y axis */
  v.strictObject({ kind: v.literal('rectangle'), width: NumSchema, depth: NumSchema }),
  v.strictObject({
    kind: v.literal('polygon'),
    corners: v.pipe(v.array(CornerSchema), v.maxLength(2000, 'An outline has at most 2000 corners.')),
  }),
  /** about the mass's origin */
  v.strictObject({ kind: v.literal('circle'), radius: NumSchema }),
])
export type OutlineShape = v.InferOutput<typeof OutlineShapeSchema>

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
          `Hole ${i + 1} of "${name}" does not lie within its outline, free of the others.`,
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
const SIDES = ['south', 'east', 'north', 'west']

/** The outline and its holes as closed lines in the mass's own frame, m: the outer one counter-clockwise and first, holes clockwise. */
export function outlinesOf({ shape, holes }: Pick<OutlineMove, 'shape' | 'holes'>, numbers: Numbers): Outline[] {
  const outer = lineOf(shape, numbers, (edge) => edge)
  return [
    turnedTo(outer, 1),
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

function lineOf(shape: OutlineShape, numbers: Numbers, named: (edge: string) => string): Outline {
  if (shape.kind === 'circle') {
    const r = numbers.length(shape.radius)
    const arc: Arc = { x: 0, y: 0, r, from: 0, sweep: 2 * Math.PI, n: facetsFor(r, 2 * Math.PI) }
    return facets(arcPoints(arc), named('round'), arc)
  }
  const points = corners(shape, numbers)
  const [names, bulges] =
    shape.kind === 'rectangle'
      ? [SIDES, [0, 0, 0, 0]]
      : [shape.corners.map((c) => c.id), shape.corners.map((c) => numbers.value(c.bulge, 'number'))]
  const outwards = loopArea(points) < 0 ? -1 : 1
  return joined(
    points.map((a, i) => {
      const arc = arcBetween(a, points[(i + 1) % points.length] as Vec2, (bulges[i] ?? 0) * outwards)
      return facets(arc ? arcPoints(arc).slice(0, -1) : [a], named(names[i] ?? ''), arc)
    }),
  )
}

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

/** The closed line running counter-clockwise (1) or clockwise (-1). Turned round, the edge from i to the next becomes the edge into i: its name goes with it. */
function turnedTo(line: Outline, sense: 1 | -1): Outline {
  if (Math.sign(loopArea(line.points)) === sense) return line
  const n = line.points.length
  const back = new Map<Arc, Arc>()
  const turned = (arc: Arc) => {
    let t = back.get(arc)
    if (!t) back.set(arc, (t = { ...arc, from: arc.from + arc.sweep, sweep: -arc.sweep }))
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
export function corners(shape: OutlineShape, numbers: Numbers): Vec2[] {
  switch (shape.kind) {
    case 'polygon':
      return shape.corners.map((c): Vec2 => [numbers.length(c.x), numbers.length(c.y)])
    case 'rectangle': {
      const [w, d] = [numbers.length(shape.width), numbers.length(shape.depth)]
      return [
        [0, 0],
        [w, 0],
        [w, d],
        [0, d],
      ]
    }
    case 'circle':
      return []
  }
}

/** The same outline with every corner free to move; edges, and so faces, keep their names. A circle becomes four quarters. */
export function polygonOf(shape: OutlineShape, numbers: Numbers): Corner[] {
  if (shape.kind === 'polygon') return shape.corners
  if (shape.kind === 'rectangle')
    return corners(shape, numbers).map(([x, y], i) => ({ id: SIDES[i] ?? '', x, y, bulge: 0 }))
  const r = numbers.length(shape.radius)
  return (
    [
      [0, -r],
      [r, 0],
      [0, r],
      [-r, 0],
    ] as Vec2[]
  ).map(([x, y], i) => ({ id: i === 0 ? 'round' : `round-${i + 1}`, x, y, bulge: Math.tan(Math.PI / 8) }))
}

const shapeNumbers = (shape: OutlineShape): [Num, Quantity][] => {
  switch (shape.kind) {
    case 'rectangle':
      return [
        [shape.width, 'length'],
        [shape.depth, 'length'],
      ]
    case 'circle':
      return [[shape.radius, 'length']]
    case 'polygon':
      return shape.corners.flatMap((c): [Num, Quantity][] => [
        [c.x, 'length'],
        [c.y, 'length'],
        [c.bulge, 'number'],
      ])
  }
}

/** m: no outline reaches farther than this from end to end */
const LARGEST = 50_000

function checkShape(shape: OutlineShape, name: string, numbers: Numbers): void {
  const [xs, ys] = [corners(shape, numbers).map((p) => p[0]), corners(shape, numbers).map((p) => p[1])]
  const across =
    shape.kind === 'circle'
      ? 2 * numbers.length(shape.radius)
      : Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
  if (across > LARGEST)
    refuse(
      'size',
      `The outline of ${name} is ${Math.round(across / 1000)} km across.`,
      `Check its numbers and their unit: up to ${LARGEST / 1000} km are taken.`,
    )
  switch (shape.kind) {
    case 'circle':
      atLeastAMillimetre(numbers.length(shape.radius), `The radius of ${name}`)
      return
    case 'rectangle':
      atLeastAMillimetre(numbers.length(shape.width), `The width of ${name}`)
      atLeastAMillimetre(numbers.length(shape.depth), `The depth of ${name}`)
      return
    case 'polygon': {
      if (new Set(shape.corners.map((c) => c.id)).size !== shape.corners.length)
        refuse('id-taken', `Two corners of ${name} have the same id.`, 'Give each corner its own id.')
      if (shape.corners.some((c) => Math.abs(numbers.value(c.bulge, 'number')) > 20))
        refuse(
          'outline',
          `An arc of the outline of ${name} is nearly a whole circle on a short side.`,
          'Type a bulge between -20 and 20; a whole circle is an outline of its own.',
        )
      const arcs = shape.corners.some((c) => numbers.value(c.bulge, 'number') !== 0)
      const fault =
        outlineFault(corners(shape, numbers), null, arcs ? 2 : 3) ??
        (arcs ? outlineFault(lineOf(shape, numbers, (edge) => edge).points, null, 3, 'arcs') : null)
      if (fault) refuse('outline', `The outline of ${name} ${fault.what}.`, fault.remedy)
    }
  }
}
