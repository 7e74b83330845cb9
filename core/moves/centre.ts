import { loopArea, type Outline, type Vec2 } from '../solid'

/** The middle of the area that closed lines enclose, m. */
export function centreOf(lines: readonly Pick<Outline, 'points'>[]): Vec2 {
  const o = lines[0]?.points[0] ?? [0, 0]
  let [x, y, area] = [0, 0, 0]
  for (const { points } of lines) {
    area += loopArea(points)
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length] as Vec2
      const cross = (p[0] - o[0]) * (q[1] - o[1]) - (q[0] - o[0]) * (p[1] - o[1])
      x += (p[0] + q[0] - 2 * o[0]) * cross
      y += (p[1] + q[1] - 2 * o[1]) * cross
    })
  }
  return [o[0] + x / (6 * area), o[1] + y / (6 * area)]
}
