import { areaOf, intersectRegions, loopArea, type Vec2 } from '../solid'

/** A rectangle's corners, counter-clockwise, m. */
export const rect = (x: number, y: number, width: number, depth: number): Vec2[] => [
  [x, y],
  [x + width, y],
  [x + width, y + depth],
  [x, y + depth],
]

/** Points turned about the origin by degrees, moved, and rounded as a drawing that was read rounds them. */
export function turned(points: Vec2[], degrees: number, [ox, oy]: Vec2 = [0, 0], digits = 9): Vec2[] {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  const round = (v: number) => Math.round(v * 10 ** digits) / 10 ** digits
  return points.map(([x, y]): Vec2 => [round(c * x - s * y + ox), round(s * x + c * y + oy)])
}

/** A convex plan cut in two by a line through a point of it, at an angle in degrees; each part counter-clockwise. */
export function cutByLine(plan: Vec2[], through: Vec2, degrees: number): Vec2[][] {
  const n: Vec2 = [-Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)]
  const side = (sign: 1 | -1) =>
    plan.flatMap((a, i): Vec2[] => {
      const b = plan[(i + 1) % plan.length] as Vec2
      const off = ([x, y]: Vec2) => sign * ((x - through[0]) * n[0] + (y - through[1]) * n[1])
      const [da, db] = [off(a), off(b)]
      const t = da / (da - db)
      const at: Vec2 = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]
      return [...(da >= 0 ? [a] : []), ...((da > 0 && db < 0) || (da < 0 && db > 0) ? [at] : [])]
    })
  return [side(1), side(-1)]
}

/** m2 that two closed lines have in common. */
export const common = (a: Vec2[], b: Vec2[]): number =>
  areaOf(intersectRegions([loopArea(a) < 0 ? [...a].reverse() : a], [loopArea(b) < 0 ? [...b].reverse() : b]))
