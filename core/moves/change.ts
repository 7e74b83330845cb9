import { loopArea, type Vec2 } from '../solid'
import { refuse, type Num, type Numbers } from '../values'
import { kindOf, type Move } from './list'
import { isInOrder, placeFor } from './order'
import { polygonOf, type Hole } from './outline'
import { shapeKind } from './shapes/list'
import type { Corner } from './shapes/polygon'

/** The recipe with one move changed; by its id. */
export const withMove = <M extends Move>(recipe: Move[], move: M, set: Partial<M>): Move[] =>
  recipe.map((m) => (m.id === move.id ? ({ ...m, ...set } as Move) : m))

/** The recipe without a move; by its id. */
export const withoutMove = (recipe: Move[], move: Pick<Move, 'id'>): Move[] => recipe.filter((m) => m.id !== move.id)

/**
 * The recipe with a move at the last place where it fits; what makes a body of the outline, or of nothing, goes in place of what has done
 * so. Null where it fits nowhere.
 */
export function withPlaced(recipe: Move[], move: Move): Move[] | null {
  const at = placeFor(recipe, move)
  if (at !== null) return [...recipe.slice(0, at), move, ...recipe.slice(at)]
  const { takes, gives } = kindOf(move)
  if (gives === 'plan' || (takes !== 'plan' && takes !== 'nothing')) return null
  const first = recipe.findIndex((m) => m.on && isOfBody(m))
  if (first < 0) return null
  const rest = recipe.filter((_, i) => i > first || (takes === 'plan' && i < first))
  const there = placeFor(rest, move)
  return there === null ? null : [...rest.slice(0, there), move, ...rest.slice(there)]
}

/** The recipe with a move one place earlier (-1) or later (1); null where it would not fit there. */
export function withMoved(recipe: Move[], move: Pick<Move, 'id'>, by: -1 | 1): Move[] | null {
  const at = recipe.findIndex((m) => m.id === move.id)
  const other = recipe[at + by]
  const own = recipe[at]
  if (!own || !other) return null
  const next = recipe.map((m, i) => (i === at ? other : i === at + by ? own : m))
  return isInOrder(next) ? next : null
}

/** Returns true for a move that first makes a body, or what is carried. */
const isOfBody = (move: Move): boolean => {
  const { takes, gives } = kindOf(move)
  return (takes === 'plan' || takes === 'nothing') && gives !== 'plan'
}

/** The recipe with the corners of its outline changed; a rectangle becomes a polygon, edges keep their names. */
export function withCorners(recipe: Move[], numbers: Numbers, change: (corners: Corner[]) => Corner[]): Move[] {
  const outline =
    recipe.find((m) => m.move === 'outline') ??
    refuse('geometry', 'The form has no outline.', 'Put an outline first in its recipe.')
  // A court within a ready footprint becomes a hole.
  const inner = (shapeKind(outline.shape).inner?.(outline.shape, numbers) ?? []).map(({ id, corners }): Hole => ({
    id,
    x: 0,
    y: 0,
    shape: { kind: 'polygon', corners: corners.map(({ id, at: [x, y], bulge }) => ({ id, x, y, bulge })) },
  }))
  return withMove(recipe, outline, {
    shape: { kind: 'polygon', corners: change(polygonOf(outline.shape, numbers)) },
    ...(inner.length ? { holes: [...inner, ...outline.holes] } : {}),
  })
}

/** Corners with a new one half-way along the side behind the given one; no side but that one changes, none changes its name. */
export function insertCorner(corners: Corner[], after: string, numbers: Numbers): Corner[] {
  const i = corners.findIndex((c) => c.id === after)
  const [a, b] = [corners[i], corners[(i + 1) % corners.length]]
  if (!a || !b) return corners
  let n = corners.length + 1
  while (corners.some((c) => c.id === `e${n}`)) n++
  const half = (key: 'x' | 'y') => (numbers.length(a[key]) + numbers.length(b[key])) / 2
  const bulge = numbers.value(a.bulge, 'number')
  // Half of an arc sweeps half its angle; the new corner lies on the arc.
  const halved = Math.tan(Math.atan(bulge) / 2)
  const [dx, dy] = [numbers.length(b.x) - numbers.length(a.x), numbers.length(b.y) - numbers.length(a.y)]
  const sense = loopArea(corners.map((c): Vec2 => [numbers.length(c.x), numbers.length(c.y)])) < 0 ? -1 : 1
  const at: Vec2 = [half('x') + (dy / 2) * bulge * sense, half('y') - (dx / 2) * bulge * sense]
  return [
    ...corners.slice(0, i),
    { ...a, bulge: bulge === 0 ? a.bulge : halved },
    { id: `e${n}`, x: at[0], y: at[1], bulge: halved },
    ...corners.slice(i + 1),
  ]
}

/** The recipe with a pitch behind its raise, or with its pitch changed; null takes it off. */
export function withPitch(recipe: Move[], mint: () => string, pitch: { angle: Num; direction: Num } | null): Move[] {
  const rest = recipe.filter((m) => m.move !== 'pitch')
  if (!pitch) return rest
  const raise = rest.findIndex((m) => m.move === 'raise') + 1
  const old = recipe.find((m) => m.move === 'pitch')
  return [...rest.slice(0, raise), { id: old?.id ?? mint(), move: 'pitch', on: true, ...pitch }, ...rest.slice(raise)]
}
