import type { MassForm } from '../form'
import type { Print } from '../project'
import {
  areaOf,
  areaIn,
  arcAt,
  onFacets,
  offSegment,
  placePlane,
  placePoint,
  placeSurface,
  planeThrough,
  straightened,
  TOLERANCE,
  uniteRegions,
  unrolls,
  type Arc,
  type Face,
  type Placement,
  type Plane,
  type Region,
  type Vec2,
  type Vec3,
} from '../solid'

/**
 * A face in the world: its plane, its edge loops (m, absolute heights) and the names of the faces across each edge. A round face (an
 * upright cylinder's) has its arc; its loops are those of the unrolled face, so that a whole circle has a seam. `bent` faces are
 * twisted or change their curve with the height: they are taken storey by storey.
 */
export interface WorldFace {
  name: string
  plane: Plane
  loops: Vec3[][]
  beyond: string[][]
  round: Arc | null
  bent: boolean
  /** a bent face's flat bits */ flats: Vec3[][]
}
export type FacePrint = Extract<Print, { kind: 'face' }>
export type PlatePrint = Extract<Print, { kind: 'plate' }>

/** A face of a body where the body stands: world coordinates, m. */
export function worldFace(at: Placement, face: Face): WorldFace {
  const place = (p: Vec3): Vec3 => [...placePoint([p[0], p[1]], at), p[2] + at.z]
  const plain = {
    name: face.name,
    plane: placePlane(face.plane, at),
    beyond: face.loops.map((l) => l.beyond),
    loops: face.loops.map((l) => l.points.map(place)),
    round: null,
    bent: false,
    flats: [],
  }
  if (!face.surface || face.flats.length === 0) return plain
  const flats = face.flats.map((f) => f.points.map(place))
  const arc = arcAt(placeSurface(face.surface, at), 0)
  return unrolls(face.surface) && arc ? unrolledFace({ ...plain, flats }, arc) : { ...plain, bent: true, flats }
}

/** All faces of a form where it stands, m. Carried up, they are those that it had, higher. */
export function worldFaces({ body, at }: MassForm): WorldFace[] {
  let low = onDatum.get(body)
  if (!low || low.at.x !== at.x || low.at.y !== at.y || low.at.turn !== at.turn) {
    const there = { ...at, z: 0 }
    low = { at: there, faces: body.faces().map((f) => worldFace(there, f)) }
    onDatum.set(body, low)
  }
  // New ones for each form, since what hangs on a face (what others take of it) hangs on its form's use and order too.
  return low.faces.map((face) => raised(face, at.z))
}
const onDatum = new WeakMap<MassForm['body'], { at: Placement; faces: WorldFace[] }>()

function raised(face: WorldFace, by: number): WorldFace {
  const up = ([x, y, z]: Vec3): Vec3 => [x, y, z + by]
  return {
    ...face,
    plane: { n: face.plane.n, d: face.plane.d + face.plane.n[2] * by },
    loops: face.loops.map((l) => l.map(up)),
    flats: face.flats.map((f) => f.map(up)),
  }
}

/** m along an arc's whole length */
export const girthOf = (arc: Arc): number => arc.r * Math.abs(arc.sweep)

/** How far along an arc (m) a point in plan lies; between -half and one and a half of its length, nearest to `near`. */
export function alongArc(arc: Arc, [x, y]: Vec2, near: number): number {
  const turn = (Math.atan2(y - arc.y, x - arc.x) - arc.from) * Math.sign(arc.sweep)
  const whole = 2 * Math.PI
  const u = turn - whole * Math.round((turn - near / arc.r) / whole)
  return u * arc.r
}

/** A round face by its arc: its flat bits laid side by side in (m along the arc, height), their union's boundary set back on the arc. */
function unrolledFace(face: WorldFace, arc: Arc): WorldFace {
  const girth = girthOf(arc)
  const laid = face.flats.map((points): Vec2[] => {
    const middle: Vec2 = [
      points.reduce((s, p) => s + p[0], 0) / points.length,
      points.reduce((s, p) => s + p[1], 0) / points.length,
    ]
    const near = alongArc(arc, middle, girth / 2)
    return points.map((p): Vec2 => [clean(alongArc(arc, [p[0], p[1]], near), girth), p[2]])
  })
  const zs = laid.flat().map((p) => p[1])
  const [z0, z1] = [Math.min(...zs), Math.max(...zs)]
  const whole: Region = [
    [
      [0, z0],
      [girth, z0],
      [girth, z1],
      [0, z1],
    ],
  ]
  const intact = Math.abs(areaOf(laid) - areaOf(whole)) < TOLERANCE.rounding * areaOf(whole)
  const region = intact ? whole : uniteRegions(laid.map((l) => [l])).map(straightened)
  const borders = face.loops.flatMap((loop, l) =>
    loop.map((a, i) => {
      const b = loop[(i + 1) % loop.length] as Vec3
      const middle: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
      return { at: [alongArc(arc, middle, girth / 2), (a[2] + b[2]) / 2] as Vec2, beyond: face.beyond[l]?.[i] ?? '' }
    }),
  )
  const loops: Vec3[][] = []
  const beyond: string[][] = []
  for (const ring of region) {
    const [points, names]: [Vec3[], string[]] = [[], []]
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length] as Vec2
      // A step along the arc stays below a third of a turn, so that the way can be followed from point to point.
      const steps = Math.max(1, Math.ceil(Math.abs(b[0] - a[0]) / (arc.r * 2)))
      const name = borders.find((o) => offSegment(o.at, a, b) < 0.02)?.beyond ?? face.name
      for (let k = 0; k < steps; k++) {
        const t = k / steps
        points.push([...onFacets(arc, (a[0] + (b[0] - a[0]) * t) / girth), a[1] + (b[1] - a[1]) * t])
        names.push(name)
      }
    })
    loops.push(points)
    beyond.push(names)
  }
  return { ...face, loops, beyond, round: arc }
}

const clean = (u: number, girth: number) =>
  Math.abs(u) < TOLERANCE.rounding ? 0 : Math.abs(u - girth) < TOLERANCE.rounding ? girth : u

/** m2 of a face, along its true surface where it is round. */
export function faceArea(face: WorldFace): number {
  if (face.round) return areaOf(unrolled(face))
  if (face.bent) return face.flats.reduce((sum, f) => sum + areaIn(planeOf(f), f), 0)
  return face.loops.reduce((sum, loop) => sum + areaIn(face.plane, loop), 0)
}

/** How far a face leans: the upward part of its outward direction, 0 upright, 1 level looking up; the mean over a bent one. */
export function tiltOf(face: WorldFace): number {
  if (!face.bent) return face.round ? 0 : face.plane.n[2]
  let [sum, area] = [0, 0]
  for (const f of face.flats) {
    const plane = planeOf(f)
    const a = areaIn(plane, f)
    sum += plane.n[2] * a
    area += a
  }
  return area ? sum / area : 0
}

/**
 * A face's loops in (u, z): u in m along it, counter-clockwise round the mass, from its first corner (round: along its arc); z the
 * height.
 */
export function unrolled(face: WorldFace): Region {
  let region = known.get(face)
  if (!region) known.set(face, (region = unroll(face)))
  return region
}
const known = new WeakMap<WorldFace, Region>()

function unroll(face: WorldFace): Region {
  const arc = face.round
  if (arc) {
    const girth = girthOf(arc)
    const rings = face.loops.map((loop) => {
      let last = girth / 2
      return loop.map((p, i): Vec2 => {
        last = alongArc(arc, [p[0], p[1]], i === 0 ? girth / 2 : last)
        return [clean(last, girth), p[2]]
      })
    })
    const low = Math.min(...rings.flat().map((p) => p[0]))
    // The way round may have begun on the other side of the seam.
    const by = low > girth - TOLERANCE.point ? -girth : low < -TOLERANCE.point ? girth : 0
    return by === 0 ? rings : rings.map((ring) => ring.map(([u, z]): Vec2 => [clean(u + by, girth), z]))
  }
  const length = Math.hypot(face.plane.n[0], face.plane.n[1]) || 1
  const [dx, dy] = [-face.plane.n[1] / length, face.plane.n[0] / length]
  const origin = face.loops[0]?.[0] ?? [0, 0, 0]
  return face.loops.map((loop) => loop.map((p): Vec2 => [dx * (p[0] - origin[0]) + dy * (p[1] - origin[1]), p[2]]))
}

/** What tells where a form's faces are tied to: the level of its base and, where it is raised up to one, the level of its top. */
export interface Ties {
  zFrom: string
  from: number
  zTo: string | null
  to: number
  /** m: what is at this height, or above it too, goes with zTo */ top: number
  above: boolean
  form: string
}

/**
 * What a part remembers of its face: surface and boundary in doubles, heights measured from a level so that moving the level drifts
 * nothing.
 */
export function facePrint(face: WorldFace, ties: Ties): FacePrint {
  const corner = ([x, y, z]: Vec3): number[] => {
    const tied = ties.zTo !== null && (Math.abs(z - ties.top) < TOLERANCE.point || (ties.above && z > ties.top))
    return tied ? [exact(x), exact(y), exact(z - ties.to), 1] : [exact(x), exact(y), exact(z - ties.from)]
  }
  const { round: r } = face
  return {
    kind: 'face',
    zFrom: ties.zFrom,
    zTo: ties.zTo,
    normal: face.plane.n,
    distance: exact(face.plane.d - face.plane.n[2] * ties.from),
    loops: (face.bent ? face.flats : face.loops).map((l) => l.map(corner)),
    edges: face.beyond,
    form: ties.form,
    rows: null,
    round: r && [exact(r.x), exact(r.y), exact(r.r), exact(r.from), exact(r.sweep), r.n],
  }
}

/** The face as the part saw it, standing on its levels' heights now. */
export function printedFace(print: FacePrint, from: number, to: number, name: string): WorldFace {
  const loops = print.loops.map((l) => l.map(([x = 0, y = 0, z = 0, tied]): Vec3 => [x, y, z + (tied ? to : from)]))
  const moved = print.loops.some((l) => l.some((p) => p[3]))
  const first = loops[0]?.[0]
  const d =
    moved && first && print.edges.length
      ? print.normal[0] * first[0] + print.normal[1] * first[1] + print.normal[2] * first[2]
      : print.distance + print.normal[2] * from
  const [x, y, r, begin, sweep, n] = print.round ?? []
  const round = print.round ? { x: x ?? 0, y: y ?? 0, r: r ?? 0, from: begin ?? 0, sweep: sweep ?? 0, n: n ?? 4 } : null
  // A bent face's print holds its flat bits, which have no faces beyond.
  const bent = print.edges.length !== loops.length
  return { name, plane: { n: print.normal, d }, loops, beyond: print.edges, round, bent, flats: bent ? loops : [] }
}

/**
 * What a slab remembers: the form that it was cut from (its content, not its height), by what kinds of face it is bounded, and the
 * outline then.
 */
export const platePrint = (form: string, sides: string, region: Region): PlatePrint => ({
  kind: 'plate',
  form,
  sides,
  loops: region.map((l) => l.map(([x, y]) => [exact(x), exact(y)])),
})

/** Whether two planes are one, over the extent of the given points. */
export function samePlane(a: Plane, b: Plane, points: Vec3[]): boolean {
  const dot = a.n[0] * b.n[0] + a.n[1] * b.n[1] + a.n[2] * b.n[2]
  return dot > 0 && points.every((p) => Math.abs(b.n[0] * p[0] + b.n[1] * p[1] + b.n[2] * p[2] - b.d) < TOLERANCE.bond)
}

/** Returns true when two arcs lie on one circle, within the tolerance of the bond, and swell to the same side. */
export const sameArc = (a: Arc, b: Arc): boolean =>
  Math.hypot(a.x - b.x, a.y - b.y) < TOLERANCE.bond &&
  Math.abs(a.r - b.r) < TOLERANCE.bond &&
  Math.sign(a.sweep) === Math.sign(b.sweep)

/** Whether two boundaries have the same corners, within the bond's tolerance. */
export function sameCorners(a: readonly (readonly number[])[], b: readonly (readonly number[])[]): boolean {
  const meets = (p: readonly number[], all: readonly (readonly number[])[]) =>
    all.some((q) => p.every((c, i) => Math.abs(c - (q[i] ?? 0)) < TOLERANCE.bond))
  return a.length === b.length && a.every((p) => meets(p, b)) && b.every((p) => meets(p, a))
}

/** The plane of a flat bit of a face. */
export const planeOf = ([a = ZERO, b = ZERO, c = ZERO]: Vec3[]): Plane => planeThrough(a, b, c)
const ZERO: Vec3 = [0, 0, 0]

/** A length to a nanometre, so that prints of one face are the same text. */
export const exact = (value: number) => Math.round(value * 1e9) / 1e9 + 0
