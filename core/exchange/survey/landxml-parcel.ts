import { arcBetween, arcPoints, gapOf, TOLERANCE, type Vec2 } from '../../solid'

/** A place of a parcel: its coordinates (m, east and north), or the name of a surveyed point. */
export type PlaceRead = Vec2 | { name: string }

/** A stretch of a parcel's boundary: a line or an arc from its start to its end, or corners one after another. */
export interface Stretch {
  kind: 'Line' | 'Curve' | 'Spiral' | 'corners'
  start?: PlaceRead
  end?: PlaceRead
  centre?: PlaceRead
  clockwise: boolean
  corners: Vec2[]
}

/** A parcel as it is read, before the points that it names are known. */
export interface ParcelRead {
  name: string
  stretches: Stretch[]
}

/** The closed outline of a parcel (m), arcs as facets that keep its area; null, with what is missing, where it cannot be made. */
export function parcelOutline(
  { name, stretches }: ParcelRead,
  surveyed: ReadonlyMap<string, Vec2>,
): { points: Vec2[] | null; remark: string | null } {
  const points: Vec2[] = []
  const missing = new Set<string>()
  const place = (p: PlaceRead | undefined): Vec2 | null => {
    if (!p) return null
    if (!('name' in p)) return p
    const found = surveyed.get(p.name)
    if (!found) missing.add(p.name)
    return found ?? null
  }
  const add = (p: Vec2) => {
    const last = points.at(-1)
    if (!last || gapOf(last, p) > TOLERANCE.point) points.push(p)
  }
  for (const s of stretches) {
    const [start, end, centre] = [place(s.start), place(s.end), place(s.centre)]
    if (start && end)
      for (const p of s.kind === 'Curve' && centre ? curve(start, centre, end, s.clockwise) : [start, end]) add(p)
    for (const p of s.corners) add(p)
  }
  if (missing.size)
    return {
      points: null,
      remark: `The parcel "${name}" was left out: its points ${[...missing].slice(0, 8).join(', ')} are not in the file.`,
    }
  const [first, last] = [points[0], points.at(-1)]
  if (first && last && points.length > 1 && gapOf(first, last) < TOLERANCE.point) points.pop()
  const spirals = stretches.some((s) => s.kind === 'Spiral')
  return {
    points: points.length >= 3 ? points : null,
    remark: spirals ? `Spirals of the parcel "${name}" were read as straight lines.` : null,
  }
}

/** The facets of an arc about a centre, its ends included. */
function curve(start: Vec2, centre: Vec2, end: Vec2, clockwise: boolean): Vec2[] {
  const angle = (p: Vec2) => Math.atan2(p[1] - centre[1], p[0] - centre[0])
  const whole = 2 * Math.PI
  const turn = (((angle(end) - angle(start)) % whole) + whole) % whole
  const arc = arcBetween(start, end, Math.tan((clockwise ? turn - whole : turn) / 4))
  return arc ? arcPoints(arc) : [start, end]
}
