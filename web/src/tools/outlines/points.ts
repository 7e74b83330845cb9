import type { DrawnShape } from '@geotome/core/form'
import type { Vec2 } from '@geotome/core/solid'

/** The corners of what was drawn, for what has straight sides only; a circle has none. */
export function pointsOf(shape: DrawnShape): Vec2[] {
  if (shape.kind === 'polygon') return shape.points
  if (shape.kind === 'circle') return []
  const [a, b] = [shape.from, shape.to]
  return [a, [b[0], a[1]], b, [a[0], b[1]]]
}
