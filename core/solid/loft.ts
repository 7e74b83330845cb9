import { refuse, TOLERANCE } from '../values'
import { capOf } from './kernel'
import type { Vec2 } from './place'
import { cornerAt, dotOf, planeThrough } from './plane'
import { loopArea, type Facet, type Solid, type Vec3 } from './solid'
import type { Outline, SweepNames } from './sweep'
import type { Surface } from './surfaces'
import { gapOf } from './vec2'

/** An outline at a height, m. */
export interface Section {
  z: number
  line: Outline
}

/** What becomes of faces that are not flat: they stay warped, or are folded along the diagonal that rises to the right, or to the left. */
export type Fold = 'warped' | 'right' | 'left'

/** Sections that correspond: corner by corner, with the names of the sides between each and the next. */
export interface Rails {
  zs: number[]
  rows: Vec2[][]
  edges: string[]
  /** whether a side is a bit of an arc, somewhere */
  round: boolean[]
}

/**
 * The sections corner by corner: where all have as many, each with the nearest; else corners are put in where another has one, at the same
 * part of the way round.
 */
export function railsOf(sections: Section[]): Rails {
  const zs = sections.map((s) => s.z)
  const lines = sections.map((s) => s.line)
  const [first] = lines as [Outline]
  const isLike = lines.every((l) => l.points.length === first.points.length && l.arcs.every((a) => a === null))
  if (isLike) {
    let before = first.points
    const rows = lines.map((l) => (before = rotated(l.points, nearestTurn(before, l.points))))
    return { zs, rows, edges: first.edges, round: first.edges.map(() => false) }
  }
  let before = first
  const turned = lines.map((l, i) => (i === 0 ? l : (before = startedLike(before, l))))
  const stops = turned.flatMap((l) => fractionsOf(l.points).slice(0, -1)).sort((a, b) => a - b)
  const at = stops.filter((t, i) => i === 0 || t - (stops[i - 1] as number) > TOLERANCE.point)
  const on = (l: Outline, t: number) => {
    const f = fractionsOf(l.points)
    const i = Math.max(
      0,
      f.findLastIndex((x) => x <= t + TOLERANCE.point / 2),
    )
    const k = Math.min(i, l.points.length - 1)
    const [a, b] = [l.points[k], l.points[(k + 1) % l.points.length]] as [Vec2, Vec2]
    const long = (f[k + 1] as number) - (f[k] as number)
    const s = long === 0 ? 0 : Math.max(0, (t - (f[k] as number)) / long)
    return { k, point: s < TOLERANCE.rounding ? a : ([a[0] + (b[0] - a[0]) * s, a[1] + (b[1] - a[1]) * s] as Vec2) }
  }
  return {
    zs,
    rows: turned.map((l) => at.map((t) => on(l, t).point)),
    edges: at.map((t) => first.edges[on(first, t).k] ?? ''),
    round: at.map((t) => turned.some((l) => l.arcs[on(l, t).k])),
  }
}

const rotated = <T>(list: T[], by: number): T[] => [...list.slice(by), ...list.slice(0, by)]

/** How far the second line must begin later, so that its corners lie nearest to those of the first, both about their own middles. */
function nearestTurn(a: Vec2[], b: Vec2[]): number {
  const [p, q] = [centred(a), centred(b)]
  const off = (k: number) => p.reduce((sum, x, i) => sum + gapOf(x, q[(i + k) % q.length] as Vec2) ** 2, 0)
  let best = 0
  for (let k = 1; k < q.length; k++) if (off(k) < off(best) - TOLERANCE.point) best = k
  return best
}

function centred(points: Vec2[]): Vec2[] {
  const [x, y] = [0, 1].map((k) => points.reduce((s, p) => s + (p[k] as number), 0) / points.length) as Vec2
  return points.map((p) => [p[0] - x, p[1] - y])
}

/** The parts of the way round at which the corners lie, and 1. */
function fractionsOf(points: Vec2[]): number[] {
  const steps = points.map((p, i) => gapOf(p, points[(i + 1) % points.length] as Vec2))
  const all = steps.reduce((a, b) => a + b, 0)
  let sum = 0
  return [0, ...steps.map((s) => (sum += s) / all)]
}

/** The second line begun at the corner that goes best with the first corner of the other. */
function startedLike(a: Outline, b: Outline): Outline {
  const [p, q] = [resampled(a.points), resampled(b.points)]
  const turn = nearestTurn(p, q) / q.length
  const f = fractionsOf(b.points)
  const gaps = b.points.map((_, i) => {
    const gap = Math.abs((f[i] as number) - turn)
    return Math.min(gap, 1 - gap)
  })
  const k = gaps.indexOf(Math.min(...gaps))
  return { points: rotated(b.points, k), edges: rotated(b.edges, k), arcs: rotated(b.arcs, k) }
}

const SAMPLES = 96
function resampled(points: Vec2[]): Vec2[] {
  const f = fractionsOf(points)
  return Array.from({ length: SAMPLES }, (_, s) => {
    const t = s / SAMPLES
    const k = f.findLastIndex((x) => x <= t)
    const [a, b] = [points[k % points.length], points[(k + 1) % points.length]] as [Vec2, Vec2]
    const u = (t - (f[k] as number)) / ((f[k + 1] as number) - (f[k] as number) || 1)
    return [a[0] + (b[0] - a[0]) * u, a[1] + (b[1] - a[1]) * u]
  })
}

/** The cut at a height within a band between two sections, m: along straight lines, or folded. */
export function railsAt(rails: Rails, z: number, fold: Fold): Vec2[] {
  const k = Math.min(
    rails.zs.length - 2,
    Math.max(
      0,
      rails.zs.findLastIndex((s) => s <= z),
    ),
  )
  const [low, high] = [rails.rows[k], rails.rows[k + 1]] as [Vec2[], Vec2[]]
  const [z0, z1] = [rails.zs[k], rails.zs[k + 1]] as [number, number]
  const t = (z - z0) / (z1 - z0)
  const mix = (a: Vec2, b: Vec2): Vec2 => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
  return low.flatMap((a, i) => {
    const j = (i + 1) % low.length
    const [b, c, d] = [low[j], high[j], high[i]] as [Vec2, Vec2, Vec2]
    return fold === 'warped' ? [mix(a, d)] : [mix(a, d), fold === 'right' ? mix(a, c) : mix(b, d)]
  })
}

/** m3 within the rails: between two sections the area of the cut is a parabola over the height, so Simpson's rule is exact. */
export function railsVolume(rails: Rails, fold: Fold): number {
  return rails.zs.slice(1).reduce((sum, z1, k) => {
    const z0 = rails.zs[k] as number
    const band = { ...rails, zs: [z0, z1], rows: rails.rows.slice(k, k + 2) }
    const at = (z: number) => loopArea(railsAt(band, z, fold))
    return sum + ((z1 - z0) / 6) * (at(z0) + 4 * at((z0 + z1) / 2) + at(z1))
  }, 0)
}

/**
 * The body between sections, each corner led to its own by a straight line. What is flat stays one facet; a warped side has rows at the
 * given heights (m, the storeys), where its cut is exact, and as many bits along as it needs. Their diagonals run to and fro, so that what
 * one leaves out the next puts in: the volume is exact. Errors: 'geometry' where sections cross on the way.
 */
export function loftBody(rails: Rails, names: SweepNames, fold: Fold, storeys: readonly number[] = []): Solid {
  const { zs, rows: lines } = rails
  const count = lines[0]?.length ?? 0
  const [z0, z1] = [zs[0] as number, zs.at(-1) as number]
  const quad = (k: number, i: number): [Vec3, Vec3, Vec3, Vec3] => {
    const j = (i + 1) % count
    const [low, high, a, b] = [lines[k], lines[k + 1], zs[k], zs[k + 1]] as [Vec2[], Vec2[], number, number]
    const up = (p: Vec2 | undefined, z: number): Vec3 => [p?.[0] ?? 0, p?.[1] ?? 0, z]
    return [up(low[i], a), up(low[j], a), up(high[j], b), up(high[i], b)]
  }
  const warps = lines.slice(1).map((_, k) => lines[0]?.map((_p, i) => warpAt(quad(k, i))) ?? [])
  const isBent = fold === 'warped' && warps.some((w) => w.some((off) => off > FLAT))
  // Two triangles lie off a warped bit by a quarter of what its corners are off, in a row: an even number of bits along each side.
  const rows = zs.flatMap((z, k) => {
    const next = zs[k + 1]
    if (next === undefined) return [z]
    return [z, ...(isBent ? storeys.filter((s) => s > z + TOLERANCE.height && s < next - TOLERANCE.height) : [])]
  })
  const tallest = Math.max(...rows.slice(1).map((z, r) => (z - (rows[r] as number)) / (z1 - z0)))
  const parts = Array.from({ length: count }, (_, i) => {
    const most = isBent ? Math.max(...warps.map((w) => w[i] as number)) : 0
    return most > FLAT ? 2 * Math.min(16, Math.max(1, Math.ceil((most * tallest) / (4 * 25 * TOLERANCE.curve) / 2))) : 1
  })
  const around = parts.reduce((a, b) => a + b, 0)
  const positions: number[] = []
  for (const z of rows) {
    const ring = railsAt(rails, z, 'warped')
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % count] as Vec2
      const n = parts[i] as number
      for (let s = 0; s < n; s++) positions.push(p[0] + ((q[0] - p[0]) * s) / n, p[1] + ((q[1] - p[1]) * s) / n, z)
    })
  }
  const at = (v: number) => cornerAt(positions, v)
  const ring = (r: number): Vec2[] => Array.from({ length: around }, (_, v) => at(r * around + v).slice(0, 2) as Vec2)
  const facets: Facet[] = [
    { name: names.base, plane: { n: [0, 0, -1], d: -z0 } },
    { name: names.top, plane: { n: [0, 0, 1], d: z1 } },
  ]
  const [triangles, facetOf]: [number[], number[]] = [[], []]
  const cap = (r: number, facet: number) => {
    const tris = capOf([ring(r)])
    for (let t = 0; t < tris.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => r * around + (tris[t + k] as number)) as [number, number, number]
      triangles.push(...(facet === 0 ? [a, c, b] : [a, b, c]))
      facetOf.push(facet)
    }
  }
  cap(0, 0)
  cap(rows.length - 1, 1)
  const add = (name: string, tris: number[][], surface?: Surface) => {
    const plane = planeThrough(...(tris[0]?.map(at) as [Vec3, Vec3, Vec3]))
    facets.push(surface ? { name, plane, surface } : { name, plane })
    for (const tri of tris) {
      triangles.push(...tri)
      facetOf.push(facets.length - 1)
    }
  }
  let start = 0
  for (let i = 0; i < count; i++) {
    const [n, name] = [parts[i] as number, names.side(rails.edges[i] ?? '')]
    for (let k = 0; k + 1 < zs.length; k++) {
      const band = rows.flatMap((z, r) => (z >= (zs[k] as number) && z < (zs[k + 1] as number) ? [r] : []))
      const isFlat = (warps[k]?.[i] ?? 0) <= FLAT
      const surface: Surface | undefined = rails.round[i]
        ? roundOf(rails, i)
        : isFlat || fold !== 'warped'
          ? undefined
          : { kind: 'ruled', corners: quad(k, i) }
      const flat: number[][] = []
      for (const r of band)
        for (let s = 0; s < n; s++) {
          const [a, b] = [start + s, (start + s + 1) % around].map((v) => r * around + v) as [number, number]
          const [c, d] = [b + around, a + around]
          const rises = fold === 'right' || (fold === 'warped' && (s + r) % 2 === 0)
          const pair = rises
            ? [
                [a, b, c],
                [a, c, d],
              ]
            : [
                [a, b, d],
                [b, c, d],
              ]
          if (isFlat && !surface) flat.push(...pair)
          else for (const tri of pair) add(name, [tri], surface)
        }
      if (flat.length) add(name, flat)
    }
    start += n
  }
  const volume = railsVolume(rails, fold)
  if (!(volume > 0) || rows.some((_, r) => loopArea(ring(r)) <= 0))
    refuse('geometry', 'The outlines turn inside out on the way.', 'Draw them so that their corners correspond.')
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    facetOf: Uint32Array.from(facetOf),
    facets,
  }
}

/** Whether all sides between sections are flat. */
export const railsAreFlat = ({ zs, rows }: Rails): boolean =>
  zs.slice(1).every((z1, k) =>
    (rows[k] as Vec2[]).every((a, i) => {
      const [low, high, z0] = [rows[k], rows[k + 1], zs[k]] as [Vec2[], Vec2[], number]
      const j = (i + 1) % low.length
      const at = (p: Vec2 | undefined, z: number): Vec3 => [p?.[0] ?? 0, p?.[1] ?? 0, z]
      return warpAt([at(a, z0), at(low[j], z0), at(high[j], z1), at(high[i], z1)]) <= FLAT
    }),
  )

/** m: what a fourth corner may be off, and the face is flat */
const FLAT = TOLERANCE.fine

/** m: how far the fourth corner of a side is off the plane of the others, at its middle */
function warpAt([a, b, c, d]: [Vec3, Vec3, Vec3, Vec3]): number {
  const plane = planeThrough(a, b, c)
  return Math.abs(dotOf(plane.n, d) - plane.d)
}

/** The bits of one round side are one curved face. */
function roundOf(rails: Rails, i: number): Surface {
  let known = rounds.get(rails)
  if (!known) rounds.set(rails, (known = new Map()))
  const edge = rails.edges[i] ?? ''
  const surface: Surface = known.get(edge) ?? { kind: 'free' }
  known.set(edge, surface)
  return surface
}
const rounds = new WeakMap<Rails, Map<string, Surface>>()
