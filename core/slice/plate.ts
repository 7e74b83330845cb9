import type { MassForm } from '../form'
import {
  areaOf,
  cutAt,
  gapOf,
  lengthOn,
  placePoint,
  rectOf,
  TOLERANCE,
  type Arc,
  type CutLoop,
  type Placement,
  type Rect,
  type Region,
} from '../solid'

/** The cut of one mass: its region in plan, and the face that each edge was cut from. It is the same one at all heights where the cut is the same. */
export interface Plate {
  mass: string
  loops: CutLoop[]
  region: Region
  /** the arcs that its edges are facets of */ arcs: Arc[]
  area: number
  rect: Rect
}

const cuts = new WeakMap<object, Map<string, CutLoop[]>>()

/** The cut of a body at a height in its own frame, m: one for all masses that share it. */
function cutOf(body: MassForm['body'], z: number): CutLoop[] {
  let kept = cuts.get(body)
  if (!kept) cuts.set(body, (kept = new Map()))
  const at = z.toFixed(9)
  let cut = kept.get(at)
  if (!cut) {
    // A level dragged through many heights leaves as many cuts behind.
    if (kept.size > 200) kept.clear()
    kept.set(at, (cut = cutAt(body.solid, z)))
  }
  return cut
}

/** m round a plate, its holes too; along its arcs where it has such. */
export const plateLength = ({ loops }: Plate): number =>
  loops.reduce(
    (sum, { points, arcs }) =>
      sum +
      points.reduce((part, p, i) => {
        const q = points[(i + 1) % points.length] ?? p
        const arc = arcs[i]
        return part + (arc ? lengthOn(arc, p, q) : gapOf(p, q))
      }, 0),
    0,
  )

/** The plate of a mass at a height (m above the datum), or null where the mass ends at or below it, or begins above. */
export function plateOf(form: MassForm, z: number): Plate | null {
  if (z < form.base - TOLERANCE.height || z > form.top - TOLERANCE.height) return null
  const arcs = new Map<Arc, Arc>()
  const placed = (arc: Arc) => {
    let p = arcs.get(arc)
    if (!p) arcs.set(arc, (p = placeArc(arc, form.at)))
    return p
  }
  const loops = cutOf(form.body, z - form.at.z).map((l): CutLoop => ({
    ...l,
    points: l.points.map((p) => placePoint(p, form.at)),
    arcs: l.arcs.map((a) => a && placed(a)),
  }))
  if (loops.length === 0) return null
  const region = loops.map((l) => l.points)
  return { mass: form.id, loops, region, arcs: [...arcs.values()], area: areaOf(region), rect: rectOf(region) }
}

/** Whether two plates are the very same, to the last digit. */
export const isSamePlate = (a: Plate, b: Plate): boolean =>
  a === b ||
  (a.mass === b.mass &&
    a.area === b.area &&
    a.loops.length === b.loops.length &&
    a.loops.every((loop, l) => {
      const other = b.loops[l] as CutLoop
      return (
        loop.points.length === other.points.length &&
        loop.points.every((p, i) => p[0] === other.points[i]?.[0] && p[1] === other.points[i]?.[1]) &&
        loop.faces.every((face, i) => face === other.faces[i]) &&
        loop.arcs.every((arc, i) => isSameArc(arc, other.arcs[i] ?? null))
      )
    }))

const isSameArc = (a: Arc | null, b: Arc | null): boolean =>
  a === b || (a !== null && b !== null && (Object.keys(a) as (keyof Arc)[]).every((key) => a[key] === b[key]))

function placeArc(arc: Arc, at: Placement): Arc {
  const [x, y] = placePoint([arc.x, arc.y], at)
  return { ...arc, x, y, from: arc.from + (at.turn * Math.PI) / 180 }
}
