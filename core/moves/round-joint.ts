import { gapOf, TOLERANCE, type ProfileEdge, type Vec2 } from '../solid'
import { refuse } from '../values'

/** The line or circle of an edge that is set off to a side. */
export type OffsetCurve = { kind: 'line'; at: Vec2; way: Vec2 } | { kind: 'circle'; centre: Vec2; radius: number }

/** The curve of an edge set off to the left by `off` (m; below zero: to the right), through `at`, where it runs along `way`. */
export const setOff = ({ arc }: ProfileEdge, at: Vec2, way: Vec2, off: number): OffsetCurve =>
  arc
    ? { kind: 'circle', centre: [arc.r, arc.z], radius: arc.radius - off * Math.sign(arc.sweep) }
    : { kind: 'line', at, way }

/** Where two curves that are set off meet, next to the ends that they would have by themselves. Errors: 'outline' where they do not. */
export function roundJoint(a: OffsetCurve, b: OffsetCurve, ends: [Vec2, Vec2], name: string): Vec2 {
  const middle: Vec2 = [(ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2]
  const [first, ...more] = meetings(a, b)
  if (!first)
    return refuse(
      'outline',
      `Thickened, two edges of the profile of "${name}" meet nowhere.`,
      'Make it thinner, or choose the other side.',
    )
  return more.reduce((best, p) => (gapOf(p, middle) < gapOf(best, middle) ? p : best), first)
}

function meetings(a: OffsetCurve, b: OffsetCurve): Vec2[] {
  if (a.kind === 'circle' && b.kind === 'circle') return circlesMeet(a, b)
  if (a.kind === 'circle' && b.kind === 'line') return lineMeets(b, a)
  if (a.kind === 'line' && b.kind === 'circle') return lineMeets(a, b)
  return []
}

function lineMeets(
  { at, way }: Extract<OffsetCurve, { kind: 'line' }>,
  { centre, radius }: Extract<OffsetCurve, { kind: 'circle' }>,
): Vec2[] {
  const [x, y] = [at[0] - centre[0], at[1] - centre[1]]
  const along = x * way[0] + y * way[1]
  const under = along * along - (x * x + y * y - radius * radius)
  if (under < -TOLERANCE.rounding) return []
  const root = Math.sqrt(Math.max(0, under))
  return [-along - root, -along + root].map((t): Vec2 => [at[0] + way[0] * t, at[1] + way[1] * t])
}

function circlesMeet(a: Extract<OffsetCurve, { kind: 'circle' }>, b: Extract<OffsetCurve, { kind: 'circle' }>): Vec2[] {
  const d = gapOf(a.centre, b.centre)
  if (d < TOLERANCE.point) return []
  const [ux, uy] = [(b.centre[0] - a.centre[0]) / d, (b.centre[1] - a.centre[1]) / d]
  const along = (d * d + a.radius * a.radius - b.radius * b.radius) / (2 * d)
  const under = a.radius * a.radius - along * along
  if (under < -TOLERANCE.rounding) return []
  const off = Math.sqrt(Math.max(0, under))
  const [x, y] = [a.centre[0] + ux * along, a.centre[1] + uy * along]
  return [off, -off].map((h): Vec2 => [x - uy * h, y + ux * h])
}
