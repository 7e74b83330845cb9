import { readyFootprint, readyRegular, sizedBy, type FootprintForm, type OutlineShape, type Regular } from '../moves'
import { loopArea, minus, placePoint, type Vec2 } from '../solid'
import { tidy, type Num, type Numbers } from '../values'

/**
 * An outline as it was drawn at world points (m): bulges go by corner, for the side from it to the next, above zero to the right of the
 * way.
 */
export type DrawnShape =
  /**
   * `form`: a ready footprint, an ellipse, or one by chance within it; `turn`: degrees that it is turned by about `from`, `to` is said
   * before that
   */
  | { kind: 'rectangle'; from: Vec2; to: Vec2; form?: RectangleForm; turn?: number }
  | { kind: 'polygon'; points: Vec2[]; bulges?: number[] }
  /** `sides`: equal ones, with their corners on it; `by`: what their size is told by */
  | { kind: 'circle'; centre: Vec2; radius: Num; sides?: number; by?: Regular['by'] }

/** What is drawn within a rectangle. */
export type RectangleForm = FootprintForm | 'ellipse' | 'chance'

/**
 * The outline's data from the origin that it gives: a rectangle keeps width and depth as its numbers, a circle its radius. What is turned
 * is a polygon then; a mass is turned itself (`turnedShape`).
 */
export function shapeOf(drawn: DrawnShape): { origin: Vec2; shape: OutlineShape } {
  switch (drawn.kind) {
    case 'rectangle': {
      if (drawn.turn) return shapeOf({ kind: 'polygon', points: turnedRectangle(drawn) })
      const width = tidy(Math.abs(drawn.to[0] - drawn.from[0]))
      const depth = tidy(Math.abs(drawn.to[1] - drawn.from[1]))
      return {
        origin: [Math.min(drawn.from[0], drawn.to[0]), Math.min(drawn.from[1], drawn.to[1])],
        shape: within(drawn.form, width, depth),
      }
    }
    case 'circle':
      return {
        origin: drawn.centre,
        shape: drawn.sides
          ? sized(readyRegular(drawn.radius, drawn.sides), drawn.by ?? 'corners')
          : { kind: 'circle', radius: drawn.radius },
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

/** The same for a mass, which is turned itself: an outline that is turned keeps its own numbers. */
export function turnedShape(drawn: DrawnShape): { origin: Vec2; shape: OutlineShape; turn: number } {
  if (drawn.kind !== 'rectangle' || !drawn.turn) return { ...shapeOf(drawn), turn: 0 }
  const { turn, ...level } = drawn
  const { origin, shape } = shapeOf(level)
  // The corner that its numbers count from, turned about the one that was drawn first.
  const at = minus(origin, drawn.from)
  return { origin: placePoint(at, { x: drawn.from[0], y: drawn.from[1], z: 0, turn }), shape, turn }
}

/** The corners of a turned rectangle. */
function turnedRectangle({ from, to, turn = 0 }: Extract<DrawnShape, { kind: 'rectangle' }>): Vec2[] {
  const [x, y] = minus(to, from)
  const corners: Vec2[] = [
    [0, 0],
    [x, 0],
    [x, y],
    [0, y],
  ]
  return corners.map((p) => placePoint(p, { x: from[0], y: from[1], z: 0, turn }))
}

/** Numbers that are drawn are plain ones. */
const NUMBERS = { length: (m: Num) => m as number, value: (m: Num) => m as number } as Numbers

/** Equal sides with their size told in another way, without the last digits of a radius that was worked out from it. */
function sized(shape: Regular, by: Regular['by']): Regular {
  const { size, ...own } = sizedBy(shape, by, NUMBERS)
  return { ...own, size: by === 'corners' ? size : tidy(Math.round((size as number) * 1e7) / 1e7) }
}

function within(form: RectangleForm | undefined, width: number, depth: number): OutlineShape {
  switch (form) {
    case undefined:
      return { kind: 'rectangle', width, depth }
    case 'ellipse':
      return { kind: 'ellipse', width, depth }
    case 'chance':
      // A number of its own: from its size, so that it is the same while it is drawn.
      return { kind: 'chance', width, depth, seed: Math.round(width * 10) * 1000 + Math.round(depth * 10) }
    default:
      return readyFootprint(form, width, depth, NUMBERS)
  }
}
