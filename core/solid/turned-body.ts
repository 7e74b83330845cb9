import { TOLERANCE } from '../values'
import { arcPoints, facetsFor, isCircle } from './arc'
import { capOf } from './kernel'
import type { Vec2 } from './place'
import { cornerAt, planeThrough } from './plane'
import type { Facet, Solid, Vec3 } from './solid'
import { noteTilt, type Surface } from './surfaces'
import { gapOf } from './vec2'

/** An edge of a profile: from a point (m from the axis, m up) to another, along the circle that it is a bit of, where it is round. */
export interface ProfileEdge extends ProfileCurve {
  name: string
  /** the edge that it is a bit of, or that it is cut into, where that is another one */
  whole?: ProfileCurve
}
interface ProfileCurve {
  a: Vec2
  b: Vec2
  arc: { r: number; z: number; radius: number; from: number; sweep: number } | null
}

/** A corner of a profile that is divided: the edge that begins there. */
interface Stop {
  at: Vec2
  edge: ProfileEdge
}

/**
 * A closed profile's corners in turn, arcs divided: with corners at the given heights (m, the storeys), where the cut is exact, and between
 * them such a hair off the arc that the volume of each bit is exact too (the integral of r2 over the height).
 */
export function profileStops(profile: ProfileEdge[], storeys: readonly number[]): Stop[] {
  return profile.flatMap((edge): Stop[] => {
    const { arc } = edge
    if (!arc) return [{ at: edge.a, edge }]
    const on = (turn: number, more = 0): Vec2 => [
      arc.r + (arc.radius + more) * Math.cos(turn),
      arc.z + (arc.radius + more) * Math.sin(turn),
    ]
    const inside = (turn: number) => {
      const t = (turn - arc.from) / arc.sweep
      return t > TOLERANCE.point && t < 1 - TOLERANCE.point
    }
    const fixed = storeys.flatMap((z) => {
      const off = (z - arc.z) / arc.radius
      if (Math.abs(off) >= 1) return []
      const up = Math.asin(off)
      return [up, Math.PI - up].flatMap((a) => [-2, -1, 0, 1, 2].map((k) => a + 2 * Math.PI * k)).filter(inside)
    })
    const turns = [arc.from, ...fixed, arc.from + arc.sweep].sort((a, b) => (a - b) * Math.sign(arc.sweep))
    return turns.slice(1).flatMap((to, i) => {
      const from = turns[i] as number
      const n = Math.max(2, Math.ceil(Math.abs(to - from) / Math.sqrt((8 * TOLERANCE.curve) / arc.radius)))
      const [first, last] = [i === 0 ? edge.a : on(from), i === turns.length - 2 ? edge.b : on(to)]
      const points = (more: number) => [
        first,
        ...Array.from({ length: n - 1 }, (_, k) => on(from + ((to - from) * (k + 1)) / n, more)),
        last,
      ]
      const want = turnedMoment(arc, from, to)
      const off = (more: number) => momentOf(points(more)) - want
      let [g0, v0] = [0, off(0)]
      let [g1, v1]: [number, number] = [TOLERANCE.touch, off(TOLERANCE.touch)]
      for (let k = 0; k < 6 && Math.abs(v1) > TOLERANCE.zero && v1 !== v0; k++) {
        const g2 = g1 - (v1 * (g1 - g0)) / (v1 - v0)
        ;[g0, v0] = [g1, v1]
        ;[g1, v1] = [g2, off(g2)]
      }
      const more = Math.abs(g1) < 3 * TOLERANCE.curve ? g1 : 0
      return points(more)
        .slice(0, -1)
        .map((at) => ({ at, edge }))
    })
  })
}

/** The integral of r2 over the height along straight lines. */
const momentOf = (points: Vec2[]): number =>
  points.slice(1).reduce((sum, [r1, z1], i) => {
    const [r0, z0] = points[i] as Vec2
    return sum + ((z1 - z0) / 3) * (r0 * r0 + r0 * r1 + r1 * r1)
  }, 0)

/** The same along an arc about (r, z), between two turns. */
function turnedMoment({ r, radius }: NonNullable<ProfileEdge['arc']>, from: number, to: number): number {
  const at = (a: number) => {
    const [s, c] = [Math.sin(a), Math.cos(a)]
    return radius * (r * r * s + r * radius * (a + s * c) + radius * radius * (s - (s * s * s) / 3))
  }
  return at(to) - at(from)
}

/**
 * A closed profile (counter-clockwise, with the axis to its left) turned about the upright axis through the origin, from an angle over a
 * sweep (radians). Each facet has its true surface; areas of level cuts and the volume are those of the true form. `ends` names what a part
 * of a turn begins and ends with.
 */
export function turnedBody(
  stops: Stop[],
  turn: { from: number; sweep: number },
  ends: { start: string; end: string },
): Solid {
  const { from, sweep } = turn
  const whole = isCircle({ sweep })
  const most = Math.max(...stops.map((s) => s.at[0]))
  const n = facetsFor(most, sweep)
  const count = whole ? n : n + 1
  const positions: number[] = []
  const rings = stops.map(({ at: [r, z] }) => {
    const first = positions.length / 3
    if (r < TOLERANCE.point) {
      positions.push(0, 0, z)
      return () => first
    }
    for (const [x, y] of arcPoints({ x: 0, y: 0, r, from, sweep, n })) positions.push(x, y, z)
    return (j: number) => first + (j % count)
  })
  const at = (v: number) => cornerAt(positions, v)
  const [facets, triangles, facetOf]: [Facet[], number[], number[]] = [[], [], []]
  const put = (facet: number, ...tris: number[][]) => {
    for (const tri of tris) {
      if (new Set(tri).size < 3) continue
      triangles.push(...tri)
      facetOf.push(facet)
    }
  }
  const surfaces = new Map<string, Surface>()
  stops.forEach((stop, i) => {
    const next = stops[(i + 1) % stops.length] as Stop
    const [p, q] = [stop.at, next.at]
    if (p[0] < TOLERANCE.point && q[0] < TOLERANCE.point) return
    const [low, high] = [rings[i], rings[(i + 1) % stops.length]] as [(j: number) => number, (j: number) => number]
    const isLevel = Math.abs(p[1] - q[1]) < TOLERANCE.zero
    if (isLevel) {
      const up = q[0] < p[0] ? 1 : -1
      const { name, whole } = stop.edge
      const plane = { n: [0, 0, up] as Vec3, d: up * p[1] }
      facets.push(whole ? { name, plane, tilt: tiltOf(whole, p, q) } : { name, plane })
    }
    const surface = isLevel ? null : surfaceAt(surfaces, stop.edge, p, q, { from, sweep, n })
    for (let j = 0; j < n; j++) {
      const [a, b, c, d] = [low(j), low(j + 1), high(j + 1), high(j)]
      if (surface) {
        const tri = new Set([a, b, c]).size === 3 ? [a, b, c] : [a, c, d]
        facets.push({ name: stop.edge.name, plane: planeThrough(...(tri.map(at) as [Vec3, Vec3, Vec3])), surface })
      }
      put(facets.length - 1, [a, b, c], [a, c, d])
    }
  })
  if (!whole) {
    const loop = stops.map((s): Vec2 => s.at)
    const cap = capOf([loop])
    for (const [name, j, sense] of [
      [ends.start, 0, 1],
      [ends.end, n, -1],
    ] as const) {
      const a = from + (sweep * j) / n
      facets.push({ name, plane: { n: [sense * Math.sin(a), -sense * Math.cos(a), 0], d: 0 } })
      for (let t = 0; t < cap.length; t += 3) {
        const tri = [0, 1, 2].map((k) => (rings[cap[t + k] as number] as (j: number) => number)(j))
        put(facets.length - 1, sense > 0 ? tri : tri.reverse())
      }
    }
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: Uint32Array.from(facetOf),
    facets,
  }
}

/** The surface over a bit of a profile: a cylinder, a cone, or a turned arc; on either side of the arc's own middle another one. */
function surfaceAt(
  known: Map<string, Surface>,
  { name, a, b, arc, whole }: ProfileEdge,
  p: Vec2,
  q: Vec2,
  turn: { from: number; sweep: number; n: number },
): Surface {
  const outwards = q[1] > p[1]
  // Seen from above, what looks at the axis is run round the other way.
  const way = outwards ? turn : { from: turn.from + turn.sweep, sweep: -turn.sweep, n: turn.n }
  const side = arc && (p[0] + q[0]) / 2 < arc.r ? -1 : 1
  const key = `${name} ${a.join()} ${side} ${outwards}`
  const made = known.get(key)
  if (made) return made
  const [low, high] = outwards ? [a, b] : [b, a]
  const surface: Surface = arc
    ? {
        kind: 'turned',
        x: 0,
        y: 0,
        profile: {
          r0: low[0],
          z0: low[1],
          r1: high[0],
          z1: high[1],
          round: { r: arc.r, z: arc.z, radius: arc.radius, side },
        },
        ...way,
      }
    : {
        kind: low[0] === high[0] ? 'cylinder' : 'cone',
        rims: { low: { x: 0, y: 0, r: low[0], z: low[1] }, high: { x: 0, y: 0, r: high[0], z: high[1] }, ...way },
        twist: null,
      }
  known.set(key, surface)
  if (whole) noteTilt(surface, tiltOf(whole, p, q))
  return surface
}

/**
 * The mean tilt of the surface over a whole edge, on that side of its arc's middle on which a bit of it from p to q lies. With the axis to
 * the left, a step (dr, dz) looks up by -dr, and has an area in proportion to r.
 */
function tiltOf({ a, b, arc }: ProfileCurve, p: Vec2, q: Vec2): number {
  const side = arc && (p[0] + q[0]) / 2 < arc.r ? -1 : 1
  const at = (t: number): Vec2 => {
    if (!arc) return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
    const turn = arc.from + arc.sweep * t
    return [arc.r + arc.radius * Math.cos(turn), arc.z + arc.radius * Math.sin(turn)]
  }
  let [up, area] = [0, 0]
  for (let i = 0; i < TILT_STEPS; i++) {
    const [from, to] = [at(i / TILT_STEPS), at((i + 1) / TILT_STEPS)]
    const r = (from[0] + to[0]) / 2
    if (arc && (r < arc.r ? -1 : 1) !== side) continue
    up -= r * (to[0] - from[0])
    area += r * gapOf(from, to)
  }
  return area > 0 ? up / area : 0
}
const TILT_STEPS = 200
