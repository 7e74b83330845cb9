import { Triangle, Vector3 } from 'three'
import { gapOf, parseFaceName, placePoint, rawName, windOf, type Vec2, type Vec3 } from '@geotome/core/solid'
import type { Geometry, MassView } from '../worker/protocol'
import { cageCorners } from './cage'
import { axesOf, toPane, type View } from './camera'
import { stageGeometry, type StoredView } from './geometry-store'
import { isHidden } from './picking'
import type { Spot } from './spot'

/** A face as it is drawn: metres from the view's origin. */
export interface FaceDrawn {
  name: string
  /** its triangles' corners */ bits: Float32Array
  middle: Vec3
  /** of length one; of a bent face the mean */ normal: Vec3
  area: number
}

/** the faces of each mass as it was sent last */
const known = new WeakMap<MassView, ReadonlyMap<string, FaceDrawn>>()

/** The faces of a mass by their names, pieces of a face together. */
export function facesDrawn(mass: MassView): ReadonlyMap<string, FaceDrawn> {
  const had = known.get(mass)
  if (had) return had
  const geometry = stageGeometry.get(mass.body)
  const all = new Map<string, number[]>()
  for (let t = 0; geometry && t < geometry.faceOf.length; t++) {
    const name = rawName(mass.faces[geometry.faceOf[t] as number]?.name ?? '')
    const list = all.get(name)
    if (list) list.push(t)
    else all.set(name, [t])
  }
  const faces = new Map(geometry ? [...all].map(([name, bits]) => [name, drawnOf(name, bits, geometry, mass)]) : [])
  if (geometry) known.set(mass, faces)
  return faces
}

/**
 * A face by its name. One that is gone was pulled away as a whole: then it is what it became, which is called by the pull and by the same
 * side.
 */
export function faceDrawn(mass: MassView, name: string): FaceDrawn | null {
  const faces = facesDrawn(mass)
  const { own } = parseFaceName(name)
  return faces.get(name) ?? [...faces.values()].findLast((f) => parseFaceName(f.name).own === own) ?? null
}

function drawnOf(name: string, own: number[], { positions }: Geometry, { at }: MassView): FaceDrawn {
  const bits = new Float32Array(own.length * 9)
  own.forEach((t, i) => {
    for (let k = 0; k < 9; k += 3) bits.set(placedAt(positions, t * 9 + k, at), i * 9 + k)
  })
  const [middle, sum]: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ]
  let area = 0
  for (let i = 0; i < bits.length; i += 9) {
    const [a, b, c] = [0, 3, 6].map((k) => [...bits.subarray(i + k, i + k + 3)]) as [Vec3, Vec3, Vec3]
    const [u, w] = [b, c].map((p) => [p[0] - a[0], p[1] - a[1], p[2] - a[2]]) as [Vec3, Vec3]
    const n: Vec3 = [u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]]
    const own = Math.hypot(...n) / 2
    area += own
    for (const k of [0, 1, 2] as const) {
      sum[k] += n[k]
      middle[k] += ((a[k] + b[k] + c[k]) / 3) * own
    }
  }
  const long = Math.hypot(...sum) || 1
  return {
    name,
    bits,
    middle: middle.map((c) => c / (area || 1)) as Vec3,
    normal: sum.map((c) => c / long) as Vec3,
    area,
  }
}

function placedAt(p: Float32Array, i: number, at: MassView['at']): Vec3 {
  const [x, y] = placePoint([p[i] ?? 0, p[i + 1] ?? 0], at)
  return [x, y, (p[i + 2] ?? 0) + at.z]
}

/** The lines round some triangles: the edges that only one of them has, as segments. */
export function linesRound(bits: Float32Array): Float32Array {
  const key = (i: number) => `${bits[i]?.toFixed(4)},${bits[i + 1]?.toFixed(4)},${bits[i + 2]?.toFixed(4)}`
  const edges = new Map<string, number[]>()
  for (let t = 0; t < bits.length; t += 9)
    for (const [a, b] of [
      [0, 3],
      [3, 6],
      [6, 0],
    ] as const) {
      const ends = [key(t + a), key(t + b)].sort().join(' ')
      if (!edges.delete(ends)) edges.set(ends, [...bits.subarray(t + a, t + a + 3), ...bits.subarray(t + b, t + b + 3)])
    }
  return Float32Array.from([...edges.values()].flat())
}

/** Where a picked edge or corner lies: the corners that all its faces have in common, m from the view's origin. */
export function cornersOf(mass: MassView, spot: Spot): Vec3[] {
  const caged = cageCorners(mass, spot.faces)
  if (caged) return caged
  const faces = facesDrawn(mass)
  const key = (p: Vec3) => p.map((c) => c.toFixed(4)).join()
  const sets = spot.faces.map((name) => {
    const { bits } = faces.get(name) ?? { bits: new Float32Array() }
    const points = new Map<string, Vec3>()
    for (let i = 0; i < bits.length; i += 3) {
      const p: Vec3 = [bits[i] ?? 0, bits[i + 1] ?? 0, bits[i + 2] ?? 0]
      points.set(key(p), p)
    }
    return points
  })
  return [...(sets[0] ?? [])].flatMap(([k, p]) => (sets.every((s) => s.has(k)) ? [p] : []))
}

/** What is drawn of a picked spot: the triangles of a face, and lines. */
export function spotDrawn(view: StoredView, spot: Spot): { bits: Float32Array; lines: Float32Array } {
  const nothing = { bits: new Float32Array(), lines: new Float32Array() }
  const mass = view.masses.find((m) => m.id === spot.mass)
  if (!mass) return nothing
  if (spot.kind === 'face') {
    const bits = faceDrawn(mass, spot.faces[0] ?? '')?.bits
    return bits ? { bits, lines: linesRound(bits) } : nothing
  }
  const [a, b] = endsOf(cornersOf(mass, spot))
  return a && b ? { ...nothing, lines: Float32Array.from([...a, ...b]) } : nothing
}

/** The two of some points in a line that lie farthest apart. */
export function endsOf(points: Vec3[]): Vec3[] {
  let best: Vec3[] = points.slice(0, 1)
  let most = 0
  for (const [i, p] of points.entries())
    for (const q of points.slice(0, i)) {
      const far = Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])
      if (far > most) [most, best] = [far, [q, p]]
    }
  return best
}

/** px within which the pointer is at an edge or a corner */
const NEAR = 11

/** The edge or corner of what is shown that lies nearest to a pixel and is not hidden; null where none is near. */
export function jointAt(view: View, size: Vec2, at: Vec2, kind: 'edge' | 'corner', masses: MassView[]): Spot | null {
  const found: { off: number; depth: number; mass: MassView; points: Vec3[] }[] = []
  const { toward } = axesOf(view)
  for (const mass of masses) {
    const edges = stageGeometry.get(mass.body)?.edges
    for (let i = 0; edges && i < edges.length; i += 6) {
      const [a, b] = [placedAt(edges, i, mass.at), placedAt(edges, i + 3, mass.at)]
      const near = kind === 'corner' ? [a, b].map((p) => [p]) : [[a, b]]
      for (const points of near) {
        const { off, p } = offOf(
          points.map((q) => toPane(view, size, q)),
          at,
          points,
        )
        if (off < NEAR) found.push({ off, depth: p[0] * toward[0] + p[1] * toward[1] + p[2] * toward[2], mass, points })
      }
    }
  }
  found.sort((p, q) => (Math.abs(p.off - q.off) > 1.5 ? p.off - q.off : q.depth - p.depth))
  for (const { mass, points } of found.slice(0, 12)) {
    const middle = [0, 1, 2].map((k) => points.reduce((sum, p) => sum + (p[k] as number) / points.length, 0)) as Vec3
    if (view.elevation !== 90 && isHidden(view, middle)) continue
    const faces = facesAt(mass, points)
    const wanted = kind === 'edge' ? 2 : 3
    if (faces.length >= wanted) return { kind, mass: mass.id, faces: faces.slice(0, wanted) }
  }
  return null
}

/** px between a pixel and a point, or a line between two; and where on it. */
function offOf([a, b]: Vec2[], at: Vec2, points: Vec3[]): { off: number; p: Vec3 } {
  const [p, q = p] = points as [Vec3, Vec3]
  if (!a || !b) return { off: a ? gapOf(a, at) : Infinity, p }
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const square = dx * dx + dy * dy
  const t = square ? Math.max(0, Math.min(1, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / square)) : 0
  const on = [0, 1, 2].map((k) => (p[k] as number) + ((q[k] as number) - (p[k] as number)) * t) as Vec3
  return { off: Math.hypot(a[0] + dx * t - at[0], a[1] + dy * t - at[1]), p: on }
}

/** The faces that have all of some points among their corners, in the order of their names. */
function facesAt(mass: MassView, points: Vec3[]): string[] {
  const has = (bits: Float32Array, p: Vec3) => {
    for (let i = 0; i < bits.length; i += 3)
      if (Math.hypot((bits[i] ?? 0) - p[0], (bits[i + 1] ?? 0) - p[1], (bits[i + 2] ?? 0) - p[2]) < 1e-3) return true
    return false
  }
  return [...facesDrawn(mass).values()].flatMap((f) => (points.every((p) => has(f.bits, p)) ? [f.name] : [])).sort()
}

/** The faces of masses that something holds of. */
export const facesThat = (masses: MassView[], holds: (face: FaceDrawn, mass: MassView) => boolean): Spot[] =>
  masses.flatMap((mass) =>
    [...facesDrawn(mass).values()].flatMap((f): Spot[] =>
      holds(f, mass) ? [{ kind: 'face', mass: mass.id, faces: [f.name] }] : [],
    ),
  )

/** The face of masses that lies nearest to a point (m from the view's origin); null where there is none. */
export function faceNearest(masses: MassView[], point: Vec3): Spot | null {
  const [p, on, t] = [new Vector3(...point), new Vector3(), new Triangle()]
  let best: { far: number; spot: Spot } | null = null
  for (const mass of masses)
    for (const { name, bits } of facesDrawn(mass).values())
      for (let i = 0; i < bits.length; i += 9) {
        t.a.fromArray(bits, i)
        t.b.fromArray(bits, i + 3)
        t.c.fromArray(bits, i + 6)
        const far = t.closestPointToPoint(p, on).distanceTo(p)
        if (!best || far < best.far) best = { far, spot: { kind: 'face', mass: mass.id, faces: [name] } }
      }
  return best?.spot ?? null
}

/** Where something looks: "south", "up", "south-east and up". */
export function lookOf([x, y, z]: Vec3): string {
  if (z > 0.999) return 'up'
  if (z < -0.999) return 'down'
  const wind = windOf((Math.atan2(x, y) * 180) / Math.PI)
  return Math.abs(z) < 0.02 ? wind : `${wind} and ${z > 0 ? 'up' : 'down'}`
}
