import { TOLERANCE } from '../values'
import { asLately } from './lately'
import type { Vec2 } from './place'
import { cornerAt, planeThrough } from './plane'
import type { Facet, Solid } from './solid'
import { divided, endsInPoint, sweptArea, sweptVolume, type Sweep, type SweepNames } from './sweep'
import { turnAt, type Surface, type Twist } from './surfaces'
import { sideSurfaces, sweptEnds } from './swept-sides'
import { gapOf } from './vec2'

/**
 * A twisted sweep: its sides lie in rows at the fixed heights (its ends, where the twist begins and ends, the storeys) and between them.
 * A *belt* is what lies from a fixed height to the next. Each has its exact volume by itself, so that one which lies as it lay in the body
 * that was made before is taken over, facets and all: when a level moves, the belts under and over it are new.
 */
export function twistedBody(sweep: Sweep, twist: Twist, names: SweepNames, storeys: readonly number[]): Solid {
  const { fixed, counts, parts } = rowsOf(sweep, twist, storeys)
  const made = latelyMade(sweep, twist, names, parts)
  const { columns, apex } = made
  const n = columns.length
  const rows = counts.reduce((sum, count) => sum + count, 0)
  const positions = new Float64Array(3 * (rows * n + (apex ? 1 : n)))
  const belts = new Map<string, Belt>()
  let row = 0
  const inTurn = counts.map((count, i) => {
    const [z0, z1] = [fixed[i] as number, fixed[i + 1] as number]
    const key = `${z0} ${z1} ${count}`
    const belt = made.belts.get(key) ?? beltOf(made, z0, z1, count)
    belts.set(key, belt)
    const isLast = i === counts.length - 1
    positions.set(
      isLast ? belt.corners.subarray(0, positions.length - row * n * 3) : belt.corners.subarray(0, count * n * 3),
      row * n * 3,
    )
    row += count
    return belt
  })
  made.belts = belts
  const facets: Facet[] = [
    { name: names.base, plane: { n: [0, 0, -1], d: -sweep.z0 } },
    { name: names.top, plane: { n: [0, 0, 1], d: sweep.z1 } },
  ]
  columns.forEach((_, v) => {
    for (const belt of inTurn) for (const facet of belt.sides[v] as Facet[]) facets.push(facet)
  })
  if (made.mesh?.counts !== counts.join()) made.mesh = { counts: counts.join(), lists: meshOf(made, counts) }
  return { positions, ...made.mesh.lists, facets }
}

/** The triangles of a twisted body whose belts have so many rows. */
function meshOf({ columns, loops, apex }: Made, counts: number[]): Pick<Solid, 'triangles' | 'facetOf'> {
  const n = columns.length
  const rows = counts.flatMap((count) => Array.from({ length: count }, (_, r) => r))
  const { triangles, facetOf } = sweptEnds(loops, apex ? null : rows.length * n)
  let facet = 2
  columns.forEach((column, v) =>
    rows.forEach((r, row) => {
      const closes = apex && row === rows.length - 1
      for (const [a, b, c] of bitsOf(column, v, n, r, closes)) {
        triangles.push(row * n + a, row * n + b, closes ? rows.length * n : row * n + c)
        facetOf.push(facet++)
      }
    }),
  )
  return asLately(triangles, facetOf)
}

/** A segment of the divided loops, and its corner at its beginning. */
interface Column {
  /** its place in its loop, and the column that it leads to */
  at: number
  next: number
  low: Vec2
  high: Vec2
  name: string
  surface: Surface | null
}

interface Belt {
  /** m, xyz, row by row from its lower to its upper end */
  corners: Float64Array
  /** the facets of each column, upwards */
  sides: Facet[][]
}

/** What twisted bodies of one sweep have in common, and the belts of the one that was made last. */
interface Made {
  key: string
  sweep: Sweep
  twist: Twist
  loops: ReturnType<typeof divided>[]
  columns: Column[]
  apex: boolean
  belts: Map<string, Belt>
  mesh: { counts: string; lists: Pick<Solid, 'triangles' | 'facetOf'> } | null
}

const lately: Made[] = []
const MOST_KEPT = 4

function latelyMade(sweep: Sweep, twist: Twist, names: SweepNames, parts: number): Made {
  const loops = sweep.low.map((loop, l) => divided(loop, sweep.high[l] ?? loop, parts))
  const sides = loops.map((l) => l.edges.map((edge) => names.side(edge)))
  const key = JSON.stringify([loops, sides, sweep.z0, sweep.z1, twist])
  const known = lately.find((m) => m.key === key)
  if (known) return known
  const columns: Column[] = []
  loops.forEach((loop, l) => {
    const [start, surfaces] = [columns.length, sideSurfaces(sweep, loop)]
    loop.low.forEach((low, at) =>
      columns.push({
        at,
        next: start + ((at + 1) % loop.low.length),
        low,
        high: loop.high[at] ?? low,
        name: sides[l]?.[at] ?? '',
        surface: surfaces[at] ?? null,
      }),
    )
  })
  const made: Made = { key, sweep, twist, loops, columns, apex: endsInPoint(sweep), belts: new Map(), mesh: null }
  lately.unshift(made)
  lately.length = Math.min(lately.length, MOST_KEPT)
  return made
}

/** Places of a sweep's columns at a height (m), turned. */
function rowAt({ sweep: { z0, z1 }, twist, columns }: Made, z: number, into: Float64Array, first: number): void {
  const t = (z - z0) / (z1 - z0)
  const [c, s] = [Math.cos(turnAt(twist, z)), Math.sin(turnAt(twist, z))]
  let v = first
  for (const { low, high } of columns) {
    const [x, y] = [low[0] + (high[0] - low[0]) * t - twist.x, low[1] + (high[1] - low[1]) * t - twist.y]
    into[v++] = twist.x + c * x - s * y
    into[v++] = twist.y + s * x + c * y
    into[v++] = z
  }
}

/**
 * The triangles of a bit of side in a row of a belt, by its columns in this row and the one above; both diagonals in turn, so that no
 * area is lost.
 */
function bitsOf({ at, next }: Column, v: number, n: number, row: number, closes: boolean): [number, number, number][] {
  const [a, b, c, d] = [v, next, next + n, v + n]
  if (closes) return [[a, b, c]]
  return (at + row) % 2 === 0
    ? [
        [a, b, c],
        [a, c, d],
      ]
    : [
        [a, b, d],
        [b, c, d],
      ]
}

/** A belt between two heights (m) with so many rows. */
function beltOf(made: Made, z0: number, z1: number, count: number): Belt {
  const { columns, sweep, apex } = made
  const n = columns.length
  const corners = new Float64Array((count + 1) * n * 3)
  for (let r = 0; r <= count; r++) rowAt(made, r === count ? z1 : z0 + ((z1 - z0) * r) / count, corners, r * n * 3)
  const bits = columns.map((column, v) =>
    Array.from({ length: count }, (_, r) =>
      bitsOf(column, v, n, r, apex && z1 === sweep.z1 && r === count - 1).map((bit) => bit.map((k) => r * n + k)),
    ).flat(),
  )
  if (count > 1) growBetween(made, corners, bits, z0, z1, count)
  const sides = columns.map(({ name, surface }, v) =>
    (bits[v] ?? []).map(([a = 0, b = 0, c = 0]): Facet => {
      const plane = planeThrough(cornerAt(corners, a), cornerAt(corners, b), cornerAt(corners, c))
      return surface ? { name, plane, surface } : { name, plane }
    }),
  )
  return { corners, sides }
}

/**
 * Moves the points of the rows between outwards from the axis by one factor, so that the belt has its volume (m3). Heights staying, that is
 * a parabola in the factor: a triangle's share is the sum of its corners' heights, each times the area that the two others span about the
 * axis, which grows with the factor once for each of the two that is moved.
 */
function growBetween(
  { sweep, twist, columns }: Made,
  p: Float64Array,
  bits: number[][][],
  z0: number,
  z1: number,
  count: number,
): void {
  const n = columns.length
  const isMoved = (v: number) => (v >= n && v < count * n ? 1 : 0)
  const six = [2 * (z1 * sweptArea(sweep, z1) - z0 * sweptArea(sweep, z0)), 0, 0]
  for (const column of bits)
    for (const bit of column)
      for (let k = 0; k < 3; k++) {
        const [a, b, c] = [bit[k] as number, bit[(k + 1) % 3] as number, bit[(k + 2) % 3] as number]
        const [bx, by] = [(p[b * 3] as number) - twist.x, (p[b * 3 + 1] as number) - twist.y]
        const [cx, cy] = [(p[c * 3] as number) - twist.x, (p[c * 3 + 1] as number) - twist.y]
        const moved = isMoved(b) + isMoved(c)
        six[moved] = (six[moved] as number) + (p[a * 3 + 2] as number) * (bx * cy - cx * by)
      }
  const [none, once, twice] = six.map((v) => v / 6) as [number, number, number]
  const want = sweptVolume(sweep, z0, z1)
  let by = 0
  for (let k = 0; k < 6; k++) {
    const off = none + once * (1 + by) + twice * (1 + by) ** 2 - want
    const slope = once + 2 * twice * (1 + by)
    if (Math.abs(slope) < TOLERANCE.zero) break
    by -= off / slope
  }
  for (let v = n; v < count * n; v++) {
    p[v * 3] = twist.x + ((p[v * 3] as number) - twist.x) * (1 + by)
    p[v * 3 + 1] = twist.y + ((p[v * 3 + 1] as number) - twist.y) * (1 + by)
  }
}

/**
 * The fixed heights of a twisted body (m), into how many rows each belt is divided so that no row turns far, and into how many parts its
 * sides, so that no facet lies far off the true face.
 */
function rowsOf(
  sweep: Sweep,
  twist: Twist,
  storeys: readonly number[],
): { fixed: number[]; counts: number[]; parts: number } {
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
    ...all.flatMap((l) => l.points.map((p, i) => gapOf(l.points[(i + 1) % l.points.length] as Vec2, p))),
  )
  const step = Math.sqrt((8 * TOLERANCE.curve) / radius)
  const turns = fixed.slice(1).map((z, i) => Math.abs(turnAt(twist, z) - turnAt(twist, fixed[i] as number)))
  const counts = turns.map((turn) => (turn === 0 ? 1 : Math.max(2, Math.ceil(turn / step))))
  const most = Math.max(0, ...turns.map((turn, i) => turn / (counts[i] as number)))
  // Two triangles lie off a twisted bit of side by a quarter of its length times the turn.
  const parts = 2 * Math.max(1, Math.min(12, Math.ceil((longest * most) / (4 * 25 * TOLERANCE.curve) / 2)))
  return { fixed, counts, parts }
}
