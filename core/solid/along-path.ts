import { refuse, TOLERANCE } from '../values'
import { arcPoints, facetsFor, type Arc } from './arc'
import { capOf } from './kernel'
import type { Vec2 } from './place'
import { cornerAt, planeThrough } from './plane'
import type { Facet, Solid, Vec3 } from './solid'
import type { Outline } from './sweep'
import type { Surface } from './surfaces'
import { gapOf, minus, spanned, wayOf } from './vec2'

/** A corner of a path in plan, m; `round`: the radius (m) that its middle line turns it with, 0 for a mitre. */
export interface PathCorner {
  id: string
  at: Vec2
  round: number
  /** whether what begins here is a facet of something bent, whose faces are one by their name */
  bent?: boolean
}

/** What lies square to the path there: where a point of the section that is so far to the right comes to lie. */
export interface Station {
  at(right: number): Vec2
  /** the leg that begins here */ leg: {
    name: string
    way: Vec2 | null
    arc: (Arc & { turns: 1 | -1 }) | null
    bent?: boolean | undefined
  } | null
}

/**
 * A section (m to the right of the path and m up, as seen looking along it) carried along a path in plan, mitred at its corners or turned
 * with a radius; closed, or with two ends. Faces are named by the section's edge and the path's leg. Errors: 'geometry' where the path
 * turns more tightly than the section allows, or has corners that lie together.
 */
export function pathBody(
  section: Outline,
  path: PathCorner[],
  closed: boolean,
  names: { side(edge: string, leg: string): string; start: string; end: string },
): Solid {
  const stations = pathStations(section, path, closed)
  const count = section.points.length
  const positions: number[] = []
  for (const s of stations)
    for (const [u, v] of section.points) {
      const [x, y] = s.at(u)
      positions.push(x, y, v)
    }
  const last = closed ? stations.length : stations.length - 1
  const vertex = (s: number, i: number) => (s % stations.length) * count + (i % count)
  const at = (v: number) => cornerAt(positions, v)
  const [facets, triangles, facetOf]: [Facet[], number[], number[]] = [[], [], []]
  const put = (tris: number[][]) => {
    for (const tri of tris) {
      triangles.push(...tri)
      facetOf.push(facets.length - 1)
    }
  }
  const surfaces = new Map<string, Surface>()
  for (let i = 0; i < count; i++) {
    const [[ua, va], [ub, vb]] = [section.points[i], section.points[(i + 1) % count]] as [Vec2, Vec2]
    const edge = section.edges[i] ?? ''
    let open: string | null = null
    for (let s = 0; s < last; s++) {
      const leg = stations[s]?.leg
      if (!leg) continue
      const name = names.side(edge, leg.name)
      const [a, b, c, d] = [vertex(s, i), vertex(s + 1, i), vertex(s + 1, i + 1), vertex(s, i + 1)] as const
      const quad = [
        [a, b, c],
        [a, c, d],
      ]
      const isFlat = leg.arc === null && !leg.bent ? section.arcs[i] === null : Math.abs(vb - va) < TOLERANCE.zero
      if (isFlat) {
        // One facet for all of a level face that turns with the path.
        if (open !== name)
          facets.push({ name, plane: planeThrough(...(([a, b, c] as number[]).map(at) as [Vec3, Vec3, Vec3])) })
        open = name
        put(quad)
        continue
      }
      const surface = surfaceOf(surfaces, name, leg.arc, section.arcs[i] ? null : [ua, va, ub, vb])
      facets.push({ name, plane: planeThrough(...(([a, b, c] as number[]).map(at) as [Vec3, Vec3, Vec3])), surface })
      put(quad)
    }
  }
  if (!closed) {
    const cap = capOf([section.points])
    for (const [name, s, isStart] of [
      [names.start, 0, true],
      [names.end, stations.length - 1, false],
    ] as const) {
      const tris: number[][] = []
      for (let t = 0; t < cap.length; t += 3) {
        const tri = [0, 1, 2].map((k) => vertex(s, cap[t + k] as number))
        tris.push(isStart ? tri : tri.reverse())
      }
      facets.push({ name, plane: planeThrough(...(tris[0]?.map(at) as [Vec3, Vec3, Vec3])) })
      put(tris)
    }
  }
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: Uint32Array.from(facetOf),
    facets,
  }
}

/**
 * Where along a path its section is set: at its ends and mitres, and at the facets of its rounded corners. Errors: those of `pathBody`; no
 * kernel is asked.
 */
export function pathStations(section: Outline, path: PathCorner[], closed: boolean): Station[] {
  const rights = section.points.map((p) => p[0])
  const [least, most] = [Math.min(...rights), Math.max(...rights)]
  const n = path.length
  const corner = (i: number) => path[(i + n) % n] as PathCorner
  const legs = Array.from({ length: closed ? n : n - 1 }, (_, i) => {
    const [a, b] = [corner(i).at, corner(i + 1).at]
    if (gapOf(a, b) < TOLERANCE.least)
      refuse(
        'geometry',
        `Corners ${i + 1} and ${((i + 1) % n) + 1} of the path lie together.`,
        'Move one, or take it off.',
      )
    return { way: wayOf(a, b), long: gapOf(a, b), cut: 0 }
  })
  const stations: Station[] = []
  const straightAt = (p: Vec2, way: Vec2, leg: Station['leg']): Station => ({
    at: (right) => [p[0] + way[1] * right, p[1] - way[0] * right],
    leg,
  })
  for (let i = 0; i < n; i++) {
    const { id, at: p, round, bent } = corner(i)
    const [before, after] = [closed || i > 0 ? legs[(i + legs.length - 1) % legs.length] : undefined, legs[i]]
    const leg = after ? { name: id, way: after.way, arc: null, bent } : null
    const one = after ?? before
    if (!before || !after) {
      if (one) stations.push(straightAt(p, one.way, leg))
      continue
    }
    const cross = spanned(before.way, after.way)
    const dot = before.way[0] * after.way[0] + before.way[1] * after.way[1]
    if (Math.abs(cross) < TOLERANCE.slope && dot > 0) {
      stations.push(straightAt(p, after.way, leg))
      continue
    }
    if (dot < -1 + TOLERANCE.slope)
      refuse('geometry', `The path turns back on itself at corner ${i + 1}.`, 'Move that corner aside.')
    const turn = Math.atan2(cross, dot)
    // Half the angle that the path turns by: how far its tangents and mitres reach.
    const half = Math.tan(Math.abs(turn) / 2)
    if (round === 0) {
      before.cut += half * (turn > 0 ? -least : most)
      after.cut += half * (turn > 0 ? -least : most)
      const m: Vec2 = [(before.way[1] + after.way[1]) / (1 + dot), -(before.way[0] + after.way[0]) / (1 + dot)]
      stations.push({ at: (right) => [p[0] + m[0] * right, p[1] + m[1] * right], leg })
      continue
    }
    const turns = turn > 0 ? 1 : -1
    const inner = round + (turns > 0 ? least : -most)
    if (inner < TOLERANCE.least)
      refuse(
        'geometry',
        `The path turns corner ${i + 1} with a radius of ${round} m, more tightly than its section allows.`,
        `Type at least ${(round - inner + 0.01).toFixed(2)} m, or 0 for a mitre.`,
      )
    before.cut += half * round
    after.cut += half * round
    const a: Vec2 = [p[0] - before.way[0] * half * round, p[1] - before.way[1] * half * round]
    const centre: Vec2 = [a[0] - before.way[1] * round * turns, a[1] + before.way[0] * round * turns]
    const from = Math.atan2(a[1] - centre[1], a[0] - centre[0])
    const steps = facetsFor(round + Math.max(most, -least), turn)
    const arcAt = (right: number): Arc => ({
      x: centre[0],
      y: centre[1],
      r: round + turns * right,
      from,
      sweep: turn,
      n: steps,
    })
    const around = { name: `${id}-round`, way: null, arc: { ...arcAt(0), turns } as Arc & { turns: 1 | -1 } }
    const rails = new Map<number, Vec2[]>()
    const rail = (right: number) => {
      let points = rails.get(right)
      if (!points) rails.set(right, (points = arcPoints(arcAt(right))))
      return points
    }
    for (let k = 0; k <= steps; k++)
      stations.push({ at: (right) => rail(right)[k] as Vec2, leg: k < steps ? around : leg })
  }
  legs.forEach((leg, i) => {
    if (leg.cut > leg.long - TOLERANCE.point)
      refuse(
        'geometry',
        `Between corners ${i + 1} and ${((i + 1) % n) + 1} the path is shorter than its section needs to turn there.`,
        'Draw it longer, turn with a smaller radius, or make the section narrower.',
      )
  })
  return stations
}

/** The surface that a bit of section makes round a corner of the path: a cylinder where it is upright, else a cone. */
function surfaceOf(
  known: Map<string, Surface>,
  name: string,
  arc: (Arc & { turns: 1 | -1 }) | null,
  bit: [number, number, number, number] | null,
): Surface {
  const made = known.get(name)
  if (made) return made
  let surface: Surface = { kind: 'free' }
  if (arc && bit) {
    const [ua, va, ub, vb] = bit
    const up = vb > va
    const [low, high] = up ? [ua, ub] : [ub, ua]
    const rim = (u: number, z: number) => ({ x: arc.x, y: arc.y, r: arc.r + arc.turns * u, z })
    // What looks to the right is run along with the path, what looks to the left against it.
    const way = up ? { from: arc.from, sweep: arc.sweep } : { from: arc.from + arc.sweep, sweep: -arc.sweep }
    surface = {
      kind: low === high ? 'cylinder' : 'cone',
      rims: { low: rim(low, Math.min(va, vb)), high: rim(high, Math.max(va, vb)), ...way, n: arc.n },
      twist: null,
    }
  }
  known.set(name, surface)
  return surface
}

/** Whether a path (m) crosses itself. */
export function pathCrosses(points: readonly Vec2[], closed: boolean): boolean {
  const n = points.length
  const legs = Array.from({ length: closed ? n : n - 1 }, (_, i) => [points[i], points[(i + 1) % n]] as [Vec2, Vec2])
  return legs.some(([a, b], i) =>
    legs.some(([c, d], j) => {
      if (j <= i + 1 || (closed && i === 0 && j === legs.length - 1)) return false
      const [u, w] = [minus(b, a), minus(d, c)]
      const sides = (p: Vec2, way: Vec2, q: Vec2, r: Vec2) => spanned(way, minus(q, p)) * spanned(way, minus(r, p))
      return sides(a, u, c, d) <= 0 && sides(c, w, a, b) <= 0
    }),
  )
}
