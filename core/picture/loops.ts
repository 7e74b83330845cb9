import { arcBetween, arcPoints, inside, loopArea, type Vec2 } from '../solid'
import { bulgeOf, cornersOf } from './arcs'
import type { FitCircle, FitLine } from './fit'

/** A closed shape of a sketch: the middle of its ink line, in pixels, with the shapes that lie in it as holes. */
export interface FoundShape {
  outer: Vec2[]
  holes: Vec2[][]
  /** for the outer loop and each hole, the bulges of the arcs behind its corners (see outline); a circle has four */
  bulges: number[][]
  area: number
}

/** A loop with the bulges behind its corners, and its area. */
export interface FoundLoop {
  points: Vec2[]
  bulges: number[]
  area: number
}

/** The loop of sides that follow one another, with its corners where they meet. */
export function loopOf(sides: FitLine[]): FoundLoop {
  const points = cornersBefore(sides)
  const bulges = points.map((p, i) => {
    const { arc } = sides[i] as FitLine
    return arc ? bulgeOf(arc, p, points[(i + 1) % points.length] as Vec2) : 0
  })
  return withThree(points, bulges)
}

/** A loop of two sides has an arc, which is parted at its middle. */
function withThree(points: Vec2[], bulges: number[]): FoundLoop {
  const [a, b] = points
  const round = bulges.findIndex((bulge) => bulge !== 0)
  if (points.length !== 2 || !a || !b || round < 0)
    return { points, bulges, area: points.length < 2 ? 0 : areaWithin(points, bulges) }
  const [from, to, bulge] = round === 0 ? [a, b, bulges[0] ?? 0] : [b, a, bulges[1] ?? 0]
  const middle: Vec2 = [
    (from[0] + to[0]) / 2 + (bulge * (to[1] - from[1])) / 2,
    (from[1] + to[1]) / 2 - (bulge * (to[0] - from[0])) / 2,
  ]
  const half = Math.tan(Math.atan(bulge) / 2)
  const three = { points: [from, middle, to], bulges: [half, half, bulges[1 - round] ?? 0] }
  return { ...three, area: areaWithin(three.points, three.bulges) }
}

/** px2 within corners and the arcs behind them. */
const areaWithin = (points: Vec2[], bulges: readonly number[]): number =>
  points.reduce((sum, a, i) => {
    const arc = arcBetween(a, points[(i + 1) % points.length] as Vec2, bulges[i] ?? 0)
    return arc ? sum + (arc.r ** 2 * (arc.sweep - Math.sin(arc.sweep))) / 2 : sum
  }, loopArea(points))

/** The same loop run the other way: an arc swells to the other side of its way, and stands before the corner that it stood behind. */
export const turnedRound = ({ points, bulges, area }: FoundLoop): FoundLoop => ({
  points: [...points].reverse(),
  bulges: bulges.map((_, n, all) => -(all[(2 * all.length - 2 - n) % all.length] ?? 0)),
  area: -area,
})

/** A circle as four quarter arcs. */
export const loopOfCircle = ({ at: [x, y], r }: FitCircle): FoundLoop => ({
  points: [
    [x + r, y],
    [x, y + r],
    [x - r, y],
    [x, y - r],
  ],
  bulges: Array.from({ length: 4 }, () => Math.tan(Math.PI / 8)),
  area: Math.PI * r * r,
})

/** The corner at which each side begins. */
export const cornersBefore = (sides: FitLine[]): Vec2[] => {
  const all = cornersOf(sides)
  return [...all.slice(-1), ...all.slice(0, -1)]
}

/** Shapes in shapes: those at an even depth are shapes, those directly in them their holes. */
export function nested(loops: FoundLoop[]): FoundShape[] {
  const around = loops.map((loop) => loops.filter((o) => o !== loop && liesIn(loop, o)))
  return loops
    .flatMap((outer, i): FoundShape[] => {
      if ((around[i]?.length ?? 0) % 2 === 1) return []
      const holes = loops.filter(
        (h, k) => around[k]?.includes(outer) && around[k]?.length === (around[i]?.length ?? 0) + 1,
      )
      return [
        {
          outer: outer.points,
          holes: holes.map((h) => turnedRound(h).points),
          bulges: [outer.bulges, ...holes.map((h) => turnedRound(h).bulges)],
          area: outer.area - holes.reduce((sum, h) => sum + h.area, 0),
        },
      ]
    })
    .sort((a, b) => b.area - a.area)
}

/** Whether most of a loop's corners and middles of sides lie in another: shapes side by side share a line, and so some of them. */
function liesIn(loop: FoundLoop, other: FoundLoop): boolean {
  const points = facetsOf(loop)
  const around = facetsOf(other)
  return points.filter((p) => inside(around, p)).length > 0.75 * points.length
}

/** Corners, middles of straight sides, and points along arcs. */
const facetsOf = ({ points, bulges }: FoundLoop): Vec2[] =>
  points.flatMap((p, i): Vec2[] => {
    const q = points[(i + 1) % points.length] as Vec2
    const arc = arcBetween(p, q, bulges[i] ?? 0)
    return [p, ...(arc ? arcPoints({ ...arc, n: 8 }).slice(1, -1) : [[(p[0] + q[0]) / 2, (p[1] + q[1]) / 2] as Vec2])]
  })
