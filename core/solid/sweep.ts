import { gapOf } from './vec2'
import { refuse } from '../values'
import type { Arc } from './arc'
import { capOf } from './kernel'
import { asLately } from './lately'
import type { Vec2 } from './place'
import { cornerAt, planeThrough } from './plane'
import { loopArea, type Facet, type Solid } from './solid'
import { turnAt, type Surface, type Twist } from './surfaces'
import { TOLERANCE } from '../values'

/**
 * A closed line in plan as points (m): per segment from a point to the next the name of the edge it belongs to, and the arc it is a
 * facet of. Outer loops run counter-clockwise, holes clockwise.
 */
export interface Outline {
  points: Vec2[]
  edges: string[]
  arcs: (Arc | null)[]
}

/**
 * An outline carried up: straight lines lead from the points of `low` at z0 to those of `high` at z1, and the whole turns about an
 * upright axis meanwhile. The loops of both have the same points and names, in the same order.
 */
export interface Sweep {
  low: Outline[]
  high: Outline[]
  z0: number
  z1: number
  twist: Twist | null
}

export interface SweepNames {
  base: string
  top: string
  side(edge: string): string
}

/**
 * The body of a sweep. Flat sides are one facet each, arcs one for each of theirs. What is twisted gets rows at the given heights (m,
 * the storeys), where its cut is exact, and between them; those between lie a hair outside, so that its volume is exact too.
 */
export function sweepBody(sweep: Sweep, names: SweepNames, storeys: readonly number[] = []): Solid {
  if (sweep.z1 - sweep.z0 <= 0)
    refuse('size', 'A body needs a height above zero.', 'Type a height of at least one millimetre.')
  if (!sweep.twist || sweep.twist.angle === 0) return bodyOf(sweep, names, [{ z: sweep.z0 }, { z: sweep.z1 }], 1)
  const { rows, parts } = rowsOf(sweep, sweep.twist, storeys)
  const body = bodyOf(sweep, names, rows, parts)
  grown(body, sweep.twist, new Set(rows.filter((r) => r.between).map((r) => r.z)), sweptVolume(sweep))
  return body
}

/**
 * Moves the points of the rows between outwards from the axis by one factor, so that the body has its volume (m3). Heights staying, that is
 * a parabola in the factor: a triangle's share is the sum of its corners' heights, each times the area that the two others span about the
 * axis, which grows with the factor once for each of the two that is moved.
 */
function grown(body: Solid, twist: Twist, between: ReadonlySet<number>, want: number): void {
  const p = body.positions
  const isMoved = new Uint8Array(p.length / 3)
  for (let v = 0; v < isMoved.length; v++) isMoved[v] = between.has(p[v * 3 + 2] as number) ? 1 : 0
  const six = [0, 0, 0]
  for (let i = 0; i < body.triangles.length; i++) {
    const t = i - (i % 3)
    const a = body.triangles[i] as number
    const b = body.triangles[t + ((i + 1) % 3)] as number
    const c = body.triangles[t + ((i + 2) % 3)] as number
    const [bx, by] = [(p[b * 3] as number) - twist.x, (p[b * 3 + 1] as number) - twist.y]
    const [cx, cy] = [(p[c * 3] as number) - twist.x, (p[c * 3 + 1] as number) - twist.y]
    const n = (isMoved[b] as number) + (isMoved[c] as number)
    six[n] = (six[n] as number) + (p[a * 3 + 2] as number) * (bx * cy - cx * by)
  }
  const [none, once, twice] = six.map((v) => v / 6) as [number, number, number]
  let by = 0
  for (let k = 0; k < 6; k++) {
    const off = none + once * (1 + by) + twice * (1 + by) ** 2 - want
    const slope = once + 2 * twice * (1 + by)
    if (Math.abs(slope) < TOLERANCE.zero) break
    by -= off / slope
  }
  for (let v = 0; v < isMoved.length; v++)
    if (isMoved[v]) {
      p[v * 3] = twist.x + ((p[v * 3] as number) - twist.x) * (1 + by)
      p[v * 3 + 1] = twist.y + ((p[v * 3 + 1] as number) - twist.y) * (1 + by)
    }
  const { triangles, facetOf, facets } = body
  const corner = (i: number) => cornerAt(p, triangles[i] as number)
  for (let t = 0; t < facetOf.length; t++) {
    const facet = facets[facetOf[t] as number] as Facet
    if (facet.plane === NO_PLANE) facet.plane = planeThrough(corner(t * 3), corner(t * 3 + 1), corner(t * 3 + 2))
  }
}

/** m3: the area of the cut is a parabola over the height, so Simpson's rule is exact. */
export function sweptVolume(sweep: Sweep): number {
  const area = (t: number) =>
    sweep.low.reduce(
      (sum, loop, l) => sum + loopArea(loop.points.map((p, i) => between(p, sweep.high[l]?.points[i] ?? p, t))),
      0,
    )
  return ((sweep.z1 - sweep.z0) / 6) * (area(0) + 4 * area(0.5) + area(1))
}

/** The outline of a sweep at a height (m), without its names. */
export function sweptAt(sweep: Sweep, z: number): Vec2[][] {
  const t = (z - sweep.z0) / (sweep.z1 - sweep.z0)
  return sweep.low.map((loop, l) =>
    loop.points.map((p, i) => turned(sweep.twist, between(p, sweep.high[l]?.points[i] ?? p, t), z)),
  )
}

/** The same with its names; arcs stay arcs where it is upright or turned, and nothing else. */
export function outlinesAt(sweep: Sweep, z: number): Outline[] {
  const loops = sweptAt(sweep, z)
  const { twist } = sweep
  const a = twist ? turnAt(twist, z) : 0
  const moved = new Map<Arc, Arc>()
  return sweep.low.map((line, l) => ({
    points: loops[l] ?? line.points,
    edges: line.edges,
    arcs: line.arcs.map((arc) => {
      if (!arc || sweep.low !== sweep.high) return null
      const known = moved.get(arc)
      if (known) return known
      const [x, y] = turned(twist, [arc.x, arc.y], z)
      const next = { ...arc, x, y, from: arc.from + a }
      moved.set(arc, next)
      return next
    }),
  }))
}

const between = (a: Vec2, b: Vec2, t: number): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]

function turned(twist: Twist | null, [x, y]: Vec2, z: number): Vec2 {
  if (!twist) return [x, y]
  const a = turnAt(twist, z)
  const [c, s] = [Math.cos(a), Math.sin(a)]
  return [twist.x + c * (x - twist.x) - s * (y - twist.y), twist.y + s * (x - twist.x) + c * (y - twist.y)]
}

/** The heights of a twisted body's rows, and into how many parts its sides are divided so that no facet lies far off the true face. */
function rowsOf(
  sweep: Sweep,
  twist: Twist,
  storeys: readonly number[],
): { rows: { z: number; between: boolean }[]; parts: number } {
  const { z0, z1 } = sweep
  const fixed = [
    ...new Set([
      z0,
      z1,
      ...[twist.from, twist.to, ...storeys].filter((z) => z > z0 + TOLERANCE.height && z < z1 - TOLERANCE.height),
    ]),
  ]
    .sort((a, b) => a - b)
    .filter((z, i, all) => i === 0 || z - (all[i - 1] as number) > TOLERANCE.height)
  const all = [...sweep.low, ...sweep.high]
  const radius = Math.max(...all.flatMap((l) => l.points.map(([x, y]) => Math.hypot(x - twist.x, y - twist.y))), 0.01)
  const longest = Math.max(
    ...all.flatMap((l) =>
      l.points.map((p, i) => {
        const q = l.points[(i + 1) % l.points.length] as Vec2
        return gapOf(q, p)
      }),
    ),
  )
  const step = Math.sqrt((8 * TOLERANCE.curve) / radius)
  let most = 0
  const rows = fixed.flatMap((z, i) => {
    const next = fixed[i + 1]
    if (next === undefined) return [{ z, between: false }]
    const turn = Math.abs(turnAt(twist, next) - turnAt(twist, z))
    const count = turn === 0 ? 1 : Math.max(2, Math.ceil(turn / step))
    most = Math.max(most, turn / count)
    return Array.from({ length: count }, (_, k) => ({ z: z + ((next - z) * k) / count, between: k > 0 }))
  })
  // Two triangles lie off a twisted bit of side by a quarter of its length times the turn; both diagonals in turn, so that no area is lost.
  return { rows, parts: 2 * Math.max(1, Math.min(12, Math.ceil((longest * most) / (4 * 25 * TOLERANCE.curve) / 2))) }
}

function bodyOf(sweep: Sweep, names: SweepNames, rows: { z: number }[], parts: number): Solid {
  const { low, high, z0, z1, twist } = sweep
  const twisted = twist !== null && twist.angle !== 0
  const loops = low.map((loop, l) => divided(loop, high[l] ?? loop, parts))
  const count = loops.reduce((n, l) => n + l.low.length, 0)
  const apex = high.every((l) =>
    l.points.every(
      (p) => Math.hypot(p[0] - (high[0]?.points[0]?.[0] ?? 0), p[1] - (high[0]?.points[0]?.[1] ?? 0)) < TOLERANCE.point,
    ),
  )
  const positions = new Float64Array((apex ? count * (rows.length - 1) + 1 : count * rows.length) * 3)
  rows.forEach(({ z }, r) => {
    const t = (z - z0) / (z1 - z0)
    const [c, s] = twist ? [Math.cos(turnAt(twist, z)), Math.sin(turnAt(twist, z))] : [1, 0]
    let v = r * count * 3
    for (const loop of loops)
      for (let i = 0; i < loop.low.length; i++) {
        if (apex && r === rows.length - 1 && v > r * count * 3) return
        const [p, q] = [loop.low[i] as Vec2, loop.high[i] as Vec2]
        const [x, y] = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]
        positions[v++] = twist ? twist.x + c * (x - twist.x) - s * (y - twist.y) : x
        positions[v++] = twist ? twist.y + s * (x - twist.x) + c * (y - twist.y) : y
        positions[v++] = z
      }
  })
  const facets: Facet[] = [
    { name: names.base, plane: { n: [0, 0, -1], d: -z0 } },
    { name: names.top, plane: { n: [0, 0, 1], d: z1 } },
  ]
  const triangles: number[] = []
  const facetOf: number[] = []
  const base = capOf(loops.map((l) => l.low))
  for (let i = 0; i < base.length; i += 3) {
    triangles.push(base[i] as number, base[i + 2] as number, base[i + 1] as number)
    facetOf.push(0)
  }
  if (!apex) {
    const top = capOf(loops.map((l) => l.high))
    const first = (rows.length - 1) * count
    for (let i = 0; i < top.length; i += 3) {
      triangles.push(first + (top[i] as number), first + (top[i + 1] as number), first + (top[i + 2] as number))
      facetOf.push(1)
    }
  }
  const at = (v: number) => cornerAt(positions, v)
  const facet = (name: string, surface: Surface | null, a: number, b: number, c: number) => {
    // That of a twisted body is told when its rows between have been moved.
    const plane = twisted ? NO_PLANE : planeThrough(at(a), at(b), at(c))
    facets.push(surface ? { name, plane, surface } : { name, plane })
    triangle(a, b, c)
  }
  const triangle = (a: number, b: number, c: number) => {
    triangles.push(a, b, c)
    facetOf.push(facets.length - 1)
  }
  let start = 0
  loops.forEach((loop) => {
    const surfaces = new Map<string, Surface>()
    const surfaceOf = (i: number): Surface | null => {
      const [a, b] = [loop.arcsLow[i] ?? null, loop.arcsHigh[i] ?? null]
      if (!a && !twisted) return null
      const key = `${loop.edges[i]} ${a ? `${a.x} ${a.y} ${a.from}` : ''}`
      let surface = surfaces.get(key)
      if (!surface)
        surfaces.set(
          key,
          (surface = {
            kind: twisted ? 'twisted' : a && b && a.r === b.r && a.x === b.x && a.y === b.y ? 'cylinder' : 'cone',
            twist: twisted ? twist : null,
            rims:
              a && b
                ? {
                    low: { x: a.x, y: a.y, r: a.r, z: z0 },
                    high: { x: b.x, y: b.y, r: b.r, z: z1 },
                    from: a.from,
                    sweep: a.sweep,
                    n: a.n,
                  }
                : null,
          }),
        )
      return surface
    }
    const n = loop.low.length
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n
      const [surface, name] = [surfaceOf(i), names.side(loop.edges[i] ?? '')]
      for (let r = 0; r + 1 < rows.length; r++) {
        const [a, b] = [r * count + start + i, r * count + start + j]
        const closing = apex && r + 2 === rows.length
        const [c, d] = closing ? [(rows.length - 1) * count, (rows.length - 1) * count] : [b + count, a + count]
        if (closing) facet(name, surface, a, b, c)
        else if (!twisted) {
          facet(name, surface, a, b, c)
          triangle(a, c, d)
        } else if ((i + r) % 2 === 0) {
          facet(name, surface, a, b, c)
          facet(name, surface, a, c, d)
        } else {
          facet(name, surface, a, b, d)
          facet(name, surface, b, c, d)
        }
      }
    }
    start += n
  })
  return { positions, ...asLately(triangles, facetOf), facets }
}
const NO_PLANE: Facet['plane'] = { n: [0, 0, 0], d: 0 }

/** A loop with its straight segments divided, below and above alike. */
function divided(low: Outline, high: Outline, parts: number) {
  const out = {
    low: [] as Vec2[],
    high: [] as Vec2[],
    edges: [] as string[],
    arcsLow: [] as (Arc | null)[],
    arcsHigh: [] as (Arc | null)[],
  }
  low.points.forEach((p, i) => {
    const [q, j] = [high.points[i] as Vec2, (i + 1) % low.points.length]
    const steps = low.arcs[i] ? 1 : parts
    for (let k = 0; k < steps; k++) {
      out.low.push(between(p, low.points[j] as Vec2, k / steps))
      out.high.push(between(q, high.points[j] as Vec2, k / steps))
      out.edges.push(low.edges[i] ?? '')
      out.arcsLow.push(low.arcs[i] ?? null)
      out.arcsHigh.push(high.arcs[i] ?? null)
    }
  })
  return out
}
