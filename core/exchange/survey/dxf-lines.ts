import { arcBetween, arcPoints, type Vec3 } from '../../solid'
import { READ_LIMITS } from '../limits'
import { numberOf, type Entity } from './dxf-entities'

/** A line in its own plane, or in space. */
export interface DrawnLine {
  points: Vec3[]
  closed: boolean
}

/**
 * The line of a polyline, circle or arc in its own plane, with its arcs as facets. Null for a mesh, for an arc that no ground has, and where
 * corners are missing.
 */
export function lineOf(e: Entity): DrawnLine | null {
  if (e.type === 'CIRCLE' || e.type === 'ARC') {
    const [x, y, z, r] = [numberOf(e, 10), numberOf(e, 20), numberOf(e, 30), numberOf(e, 40)]
    if (!(r > 0 && r < READ_LIMITS.far)) return null
    const [from, to] = e.type === 'CIRCLE' ? [0, 360] : [numberOf(e, 50), numberOf(e, 51)]
    const sweep = e.type === 'CIRCLE' ? 360 : (((to - from) % 360) + 360) % 360 || 360
    const n = 4 * Math.max(2, Math.min(64, Math.ceil(sweep / 15)))
    return {
      closed: e.type === 'CIRCLE',
      points: Array.from({ length: e.type === 'CIRCLE' ? n : n + 1 }, (_, k): Vec3 => {
        const a = ((from + (sweep * k) / n) * Math.PI) / 180
        return [x + r * Math.cos(a), y + r * Math.sin(a), z]
      }),
    }
  }
  const flags = numberOf(e, 70)
  if (e.type === 'POLYLINE' && (flags & 80) !== 0) return null
  const corners: { p: Vec3; bulge: number }[] = []
  if (e.type === 'POLYLINE') {
    // Of a polyline that was smoothed, the control points do not lie on its line.
    for (const v of e.vertices.filter((vertex) => (numberOf(vertex, 70) & 16) === 0))
      corners.push({
        p: [numberOf(v, 10), numberOf(v, 20), numberOf(v, 30) || numberOf(e, 30)],
        bulge: numberOf(v, 42),
      })
  } else {
    // Fewer corners than it tells: the rest is missing.
    if (e.groups.filter(([code]) => code === 20).length < numberOf(e, 90)) return null
    const z = numberOf(e, 38)
    for (const [code, value] of e.groups) {
      const n = Number(value)
      const last = corners.at(-1)
      if (code === 10) corners.push({ p: [n, 0, z], bulge: 0 })
      else if (code === 20 && last) last.p[1] = n
      else if (code === 42 && last) last.bulge = n
    }
  }
  const closed = (flags & 1) === 1
  if (corners.some((c) => c.p.some((x) => !Number.isFinite(x) || Math.abs(x) > 1e12) || Math.abs(c.bulge) > 1e3))
    return null
  return { points: withArcs(corners, closed), closed }
}

/** Corners with the arcs that their bulges say, as facets. */
export function withArcs(corners: { p: Vec3; bulge: number }[], closed: boolean): Vec3[] {
  return corners.flatMap(({ p, bulge }, i): Vec3[] => {
    const next = corners[(i + 1) % corners.length]
    const arc =
      next && bulge && (closed || i + 1 < corners.length)
        ? arcBetween([p[0], p[1]], [next.p[0], next.p[1]], bulge)
        : null
    return arc
      ? arcPoints({ ...arc, n: Math.min(arc.n, 256) })
          .slice(0, -1)
          .map(([x, y]): Vec3 => [x, y, p[2]])
      : [p]
  })
}
