import { readyFootprint, readyRegular, type FootprintForm, type OutlineShape } from '../moves'
import { loopArea, type Vec2 } from '../solid'
import { tidy, type Num } from '../values'

/**
 * An outline as it was drawn at world points (m): bulges go by corner, for the side from it to the next, above zero to the right of the
 * way.
 */
export type DrawnShape =
  /** `form`: a ready footprint within it */
  | { kind: 'rectangle'; from: Vec2; to: Vec2; form?: FootprintForm }
  | { kind: 'polygon'; points: Vec2[]; bulges?: number[] }
  /** `sides`: equal ones, with their corners on it */
  | { kind: 'circle'; centre: Vec2; radius: Num; sides?: number }
/** The outline's data from the origin that it gives: a rectangle keeps width and depth as its numbers, a circle its radius. */
export function shapeOf(drawn: DrawnShape): { origin: Vec2; shape: OutlineShape } {
  switch (drawn.kind) {
    case 'rectangle': {
      const width = tidy(Math.abs(drawn.to[0] - drawn.from[0]))
      const depth = tidy(Math.abs(drawn.to[1] - drawn.from[1]))
      return {
        origin: [Math.min(drawn.from[0], drawn.to[0]), Math.min(drawn.from[1], drawn.to[1])],
        shape: drawn.form
          ? readyFootprint(drawn.form, width, depth, { length: (m) => m as number })
          : { kind: 'rectangle', width, depth },
      }
    }
    case 'circle':
      return {
        origin: drawn.centre,
        shape: drawn.sides ? readyRegular(drawn.radius, drawn.sides) : { kind: 'circle', radius: drawn.radius },
      }
    case 'polygon': {
      const [points, bulges] = [drawn.points, drawn.bulges ?? []]
      const n = points.length
      // With two corners, or all in a line, the arcs tell which way round it was drawn.
      const area =
        loopArea(points) +
        points.reduce((sum, a, i) => {
          const b = points[(i + 1) % n] as Vec2
          const k = bulges[i] ?? 0
          return sum + (k * ((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2)) / 3
        }, 0)
      const clockwise = area < 0
      const order = clockwise ? points.map((_, i) => n - 1 - i) : points.map((_, i) => i)
      const origin = points[0] ?? [0, 0]
      return {
        origin,
        shape: {
          kind: 'polygon',
          corners: order.map((k, i) => ({
            id: `e${i + 1}`,
            x: tidy((points[k] as Vec2)[0] - origin[0]),
            y: tidy((points[k] as Vec2)[1] - origin[1]),
            bulge: tidy(clockwise ? -(bulges[(k + n - 1) % n] ?? 0) : (bulges[k] ?? 0)),
          })),
        },
      }
    }
  }
}
