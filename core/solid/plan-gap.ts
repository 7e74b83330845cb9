import { arcBetween } from './arc'
import type { Vec2 } from './place'
import type { PlanCorner } from './parted-plan'
import { gapOf, minus } from './vec2'

/** m from a point to a line of corners in plan, the nearest of it; `closed`: it comes back to where it began. Arcs are exact. */
export function gapToLine(line: readonly PlanCorner[], closed: boolean, p: Vec2): number {
  const n = line.length
  if (n === 1) return gapOf((line[0] as PlanCorner).at, p)
  return Math.min(
    Infinity,
    ...line
      .slice(0, closed ? n : n - 1)
      .map((c, i) => gapToSide(c.at, (line[(i + 1) % n] as PlanCorner).at, c.bulge, p)),
  )
}

function gapToSide(a: Vec2, b: Vec2, bulge: number, p: Vec2): number {
  const ends = Math.min(gapOf(a, p), gapOf(b, p))
  const arc = arcBetween(a, b, bulge)
  if (arc) {
    const turned = (Math.atan2(p[1] - arc.y, p[0] - arc.x) - arc.from) * Math.sign(arc.sweep)
    const on = turned - Math.floor(turned / (2 * Math.PI)) * 2 * Math.PI <= Math.abs(arc.sweep)
    return on ? Math.abs(gapOf([arc.x, arc.y], p) - arc.r) : ends
  }
  const [along, off] = [minus(b, a), minus(p, a)]
  const long = along[0] ** 2 + along[1] ** 2
  const t = long === 0 ? 0 : (off[0] * along[0] + off[1] * along[1]) / long
  return t <= 0 || t >= 1 ? ends : Math.abs(along[0] * off[1] - along[1] * off[0]) / Math.sqrt(long)
}
