import * as v from 'valibot'
import { loopArea, type Vec2 } from '../solid'
import { IdSchema, NumSchema, refuse, type Num, type Numbers } from '../values'
import type { MoveBase, MoveKind } from './kind'
import { atLeastAMillimetre } from './sizes'

/** A corner's id names the edge from it to the next corner, and so the face above that edge. */
const CornerSchema = v.strictObject({ id: v.pipe(v.string(), v.regex(/^[a-zA-Z0-9-]{1,40}$/, 'A corner\'s id is made of letters, digits and dashes.')), x: NumSchema, y: NumSchema })
export type Corner = v.InferOutput<typeof CornerSchema>

const OutlineShapeSchema = v.variant('kind', [
  /** from the mass's origin, width along its x axis and depth along its y axis */
  v.strictObject({ kind: v.literal('rectangle'), width: NumSchema, depth: NumSchema }),
  v.strictObject({ kind: v.literal('polygon'), corners: v.pipe(v.array(CornerSchema), v.maxLength(2000, 'An outline has at most 2000 corners.')) }),
])
export type OutlineShape = v.InferOutput<typeof OutlineShapeSchema>

export interface OutlineMove extends MoveBase { move: 'outline'; shape: OutlineShape }

/** The closed outline in plan that a form begins with; drawn in either sense. */
export const outline: MoveKind<OutlineMove> = {
  move: 'outline',
  schema: () => v.strictObject({ id: IdSchema, on: v.boolean(), move: v.literal('outline'), shape: OutlineShapeSchema }),
  numbers: ({ shape }) => (shape.kind === 'rectangle' ? [[shape.width, 'length'], [shape.depth, 'length']] : shape.corners.flatMap((c): [Num, 'length'][] => [[c.x, 'length'], [c.y, 'length']])),
  inner: () => null,
  check: ({ shape }, { place, name, numbers }) => {
    if (place > 0) refuse('geometry', `"${name}" has a second outline.`, 'Join another mass instead.')
    if (shape.kind === 'rectangle') {
      atLeastAMillimetre(numbers.length(shape.width), `The width of "${name}"`)
      atLeastAMillimetre(numbers.length(shape.depth), `The depth of "${name}"`)
      return
    }
    const fault = outlineFault(corners(shape, numbers))
    if (fault) refuse('outline', `The outline of "${name}" ${fault.what}.`, fault.remedy)
    if (new Set(shape.corners.map((c) => c.id)).size !== shape.corners.length) refuse('id-taken', `Two corners of "${name}" have the same id.`, 'Give each corner its own id.')
  },
  build: (form, { shape }, { numbers }) => {
    const points = corners(shape, numbers)
    const first = points[0] ?? [0, 0]
    const far = points.some(([x, y]) => Math.abs(x) > FAR || Math.abs(y) > FAR)
    const anchor: Vec2 = far ? [Math.floor(first[0]), Math.floor(first[1])] : [0, 0]
    return { ...form, anchor, outline: { points: points.map(([x, y]): Vec2 => [x - anchor[0], y - anchor[1]]), edges: edgeNames(shape) } }
  },
}

/** m; outlines drawn at map coordinates are built near the origin, so that no digit is lost */
const FAR = 1000

const SIDES = ['south', 'east', 'north', 'west']
const edgeNames = (shape: OutlineShape): string[] => (shape.kind === 'rectangle' ? SIDES : shape.corners.map((c) => c.id))

/** The corners in the mass's own frame, m, as they were drawn. */
export function corners(shape: OutlineShape, numbers: Numbers): Vec2[] {
  if (shape.kind === 'polygon') return shape.corners.map((c): Vec2 => [numbers.length(c.x), numbers.length(c.y)])
  const [w, d] = [numbers.length(shape.width), numbers.length(shape.depth)]
  return [[0, 0], [w, 0], [w, d], [0, d]]
}

/** The same outline with every corner free to move; edges, and so faces, keep their names. */
export function polygonOf(shape: OutlineShape, numbers: Numbers): Corner[] {
  if (shape.kind === 'polygon') return shape.corners
  return corners(shape, numbers).map(([x, y], i) => ({ id: SIDES[i] ?? '', x, y }))
}

/** What is wrong with a closed outline (m), or null: fewer than three corners, doubles, crossings, no area. */
export function outlineFault(points: readonly Vec2[]): { what: string; remedy: string } | null {
  const n = points.length
  if (n < 3) return { what: 'has fewer than three corners', remedy: 'Draw at least three corners.' }
  const at = (i: number) => points[(i + n) % n] as Vec2
  for (let i = 0; i < n; i++) {
    if (Math.hypot(at(i)[0] - at(i + 1)[0], at(i)[1] - at(i + 1)[1]) < 1e-4) return { what: `has two corners at one place (corner ${i + 1} and corner ${((i + 1) % n) + 1})`, remedy: 'Remove one of them.' }
  }
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) {
    const meets = j === i + 1 ? foldsBack(at(i), at(j), at(j + 1)) : i === 0 && j === n - 1 ? foldsBack(at(j), at(0), at(1)) : cross(at(i), at(i + 1), at(j), at(j + 1))
    if (meets) return { what: `crosses itself: side ${i + 1} meets side ${j + 1}`, remedy: 'Move a corner so that the sides no longer meet.' }
  }
  return Math.abs(loopArea(points)) < 1e-6 ? { what: 'encloses no area', remedy: 'Move a corner off the line.' } : null
}

const side = (a: Vec2, b: Vec2, c: Vec2) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
const within = (a: Vec2, b: Vec2, p: Vec2) => Math.min(a[0], b[0]) - 1e-9 <= p[0] && p[0] <= Math.max(a[0], b[0]) + 1e-9 && Math.min(a[1], b[1]) - 1e-9 <= p[1] && p[1] <= Math.max(a[1], b[1]) + 1e-9

function cross(a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean {
  const eps = 1e-9 * (Math.hypot(b[0] - a[0], b[1] - a[1]) + Math.hypot(d[0] - c[0], d[1] - c[1]))
  const sign = (x: number) => (x > eps ? 1 : x < -eps ? -1 : 0)
  const [s1, s2, s3, s4] = [sign(side(a, b, c)), sign(side(a, b, d)), sign(side(c, d, a)), sign(side(c, d, b))]
  if (s1 * s2 < 0 && s3 * s4 < 0) return true
  return (s1 === 0 && within(a, b, c)) || (s2 === 0 && within(a, b, d)) || (s3 === 0 && within(c, d, a)) || (s4 === 0 && within(c, d, b))
}

/** Whether the side q-r runs back over the side p-q. */
function foldsBack(p: Vec2, q: Vec2, r: Vec2): boolean {
  const [ux, uy, wx, wy] = [q[0] - p[0], q[1] - p[1], r[0] - q[0], r[1] - q[1]]
  return Math.abs(ux * wy - uy * wx) < 1e-9 * Math.hypot(ux, uy) * Math.hypot(wx, wy) && ux * wx + uy * wy < 0
}
