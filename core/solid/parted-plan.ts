import { TOLERANCE } from '../values'
import { arcBetween } from './arc'
import type { Vec2 } from './place'
import type { Outline } from './sweep'
import { gapOf, minus, onLine, spanned } from './vec2'

/** A corner of a plan, m, and the side from it to the next: its name, and its bulge (see `arcBetween`). */
export interface PlanCorner {
  id: string
  at: Vec2
  bulge: number
}
/** A plan by its corners: its outer line first and counter-clockwise, holes clockwise. */
export type Plan = PlanCorner[][]

/** A line in plan: n is square to it, of length 1; points p on it have n . p = d. */
export interface PlanLine {
  n: Vec2
  d: number
}

/** Outlines as corners again: facets of one arc are one side. */
export function planOfOutlines(lines: readonly Outline[]): Plan {
  return lines.map(({ points, edges, arcs }) => {
    const n = points.length
    const begins = (i: number) => {
      const [arc, before] = [arcs[i], arcs[(i - 1 + n) % n]]
      return !arc || arc !== before || edges[i] !== edges[(i - 1 + n) % n]
    }
    const starts = points.flatMap((_, i) => (begins(i) ? [i] : []))
    const [round] = arcs
    // A whole circle begins nowhere: it is taken by its quarters, which lie on it.
    if (starts.length === 0 && round)
      return [0, 1, 2, 3].map((q): PlanCorner => {
        const a = round.from + (round.sweep * q) / 4
        const at: Vec2 = [round.x + round.r * Math.cos(a), round.y + round.r * Math.sin(a)]
        return { id: q ? `${edges[0] ?? ''}-${q + 1}` : (edges[0] ?? ''), at, bulge: Math.tan(round.sweep / 16) }
      })
    return starts.map((i, k): PlanCorner => {
      const arc = arcs[i] ?? null
      const facets = ((starts[(k + 1) % starts.length] ?? 0) - i + n) % n || n
      return { id: edges[i] ?? '', at: points[i] as Vec2, bulge: arc ? Math.tan((arc.sweep * facets) / arc.n / 4) : 0 }
    })
  })
}

/** m2 of a closed line by its corners, arcs in closed form: above zero where it runs counter-clockwise. */
export function cornersArea(line: readonly PlanCorner[]): number {
  return line.reduce((sum, { at, bulge }, i) => {
    const next = (line[(i + 1) % line.length] as PlanCorner).at
    const arc = arcBetween(at, next, bulge)
    return sum + spanned(at, next) / 2 + (arc ? (arc.r ** 2 * (arc.sweep - Math.sin(arc.sweep))) / 2 : 0)
  }, 0)
}

/** m2 of a plan, its holes taken off. */
export const planArea = (plan: Plan): number => plan.reduce((sum, line) => sum + cornersArea(line), 0)

/** m round a plan, its holes too. */
export const planLength = (plan: Plan): number =>
  plan.reduce((sum, line) => sum + line.reduce((part, _, i) => part + sideLength(line, i), 0), 0)

/** m of a side. */
export function sideLength(line: readonly PlanCorner[], i: number): number {
  const [a, b] = [line[i] as PlanCorner, line[(i + 1) % line.length] as PlanCorner]
  const arc = arcBetween(a.at, b.at, a.bulge)
  return arc ? arc.r * Math.abs(arc.sweep) : gapOf(a.at, b.at)
}

/** The point in the middle of a side, on its arc where it is one. */
export function sideMiddle(line: readonly PlanCorner[], i: number): Vec2 {
  const [a, b] = [line[i] as PlanCorner, line[(i + 1) % line.length] as PlanCorner]
  return between({ ...a, b: b.at }, 0.5)
}

interface Side extends PlanCorner {
  b: Vec2
}

/** The point of a side at a share of its way. */
function between({ at, b, bulge }: Side, t: number): Vec2 {
  const arc = arcBetween(at, b, bulge)
  if (!arc) return onLine(at, minus(b, at), t)
  const a = arc.from + arc.sweep * t
  return [arc.x + arc.r * Math.cos(a), arc.y + arc.r * Math.sin(a)]
}

/** m beside a line; what lies on it lies there exactly. */
function off(line: PlanLine, p: Vec2): number {
  const s = line.n[0] * p[0] + line.n[1] * p[1] - line.d
  return Math.abs(s) < TOLERANCE.point ? 0 : s
}

/** The shares of a side's way at which it crosses the line, its ends left out. */
function crossings(side: Side, line: PlanLine): number[] {
  const arc = arcBetween(side.at, side.b, side.bulge)
  if (!arc) {
    const [s, e] = [off(line, side.at), off(line, side.b)]
    return s * e < 0 ? [s / (s - e)] : []
  }
  const away = line.n[0] * arc.x + line.n[1] * arc.y - line.d
  if (Math.abs(away) >= arc.r - TOLERANCE.point) return []
  const towards = Math.atan2(line.n[1], line.n[0])
  const half = Math.acos(-away / arc.r)
  return [towards + half, towards - half]
    .map((a) => {
      const turned = (a - arc.from) * Math.sign(arc.sweep)
      return (turned - Math.floor(turned / (2 * Math.PI)) * 2 * Math.PI) / Math.abs(arc.sweep)
    })
    .filter(
      (t) =>
        t * Math.abs(arc.sweep) * arc.r > TOLERANCE.point && (1 - t) * Math.abs(arc.sweep) * arc.r > TOLERANCE.point,
    )
    .sort((a, b) => a - b)
}

/** The sides of a plan, each wholly on one side of the line, in turn. */
function partedSides(corners: readonly PlanCorner[], line: PlanLine): Side[] {
  return corners.flatMap((c, i): Side[] => {
    const side = { ...c, b: (corners[(i + 1) % corners.length] as PlanCorner).at }
    const at = crossings(side, line)
    const stops = [0, ...at, 1]
    const points = [side.at, ...at.map((t) => onto(line, between(side, t))), side.b]
    const quarter = Math.atan(side.bulge)
    return stops
      .slice(1)
      .map((t, k) => ({
        id: c.id,
        at: points[k] as Vec2,
        b: points[k + 1] as Vec2,
        bulge: side.bulge === 0 ? 0 : Math.tan(quarter * (t - (stops[k] as number))),
      }))
  })
}

/** The point of the line that is nearest. */
function onto(line: PlanLine, p: Vec2): Vec2 {
  const s = line.n[0] * p[0] + line.n[1] * p[1] - line.d
  return [p[0] - line.n[0] * s, p[1] - line.n[1] * s]
}

/**
 * What of a plan (m) lies on one side of a line: where its n points to (1), or on the other (-1). It may be none, or several plans. Sides along
 * the line are named by `cut`; the others keep their names. Arcs stay arcs.
 */
export function partBeside(plan: Plan, line: PlanLine, keep: 1 | -1, cut: string): Plan[] {
  const whole: PlanCorner[][] = []
  const chains: Side[][] = []
  for (const corners of plan) {
    const sides = partedSides(corners, line)
    const kept = sides.map((s) => Math.sign(off(line, between(s, 0.5))) === keep)
    if (kept.every(Boolean)) {
      whole.push(corners)
      continue
    }
    const first = kept.findIndex((k, i) => k && !kept[(i - 1 + kept.length) % kept.length])
    if (first < 0) continue
    let now: Side[] | null = null
    for (let i = 0; i < sides.length; i++) {
      const j = (first + i) % sides.length
      if (!kept[j]) now = null
      else if (now) now.push(sides[j] as Side)
      else chains.push((now = [sides[j] as Side]))
    }
  }
  return grouped([...whole, ...joinedChains(chains, line, keep, cut)])
}

/** Chains of sides that begin and end on the line, joined along it to closed lines. */
function joinedChains(chains: Side[][], line: PlanLine, keep: 1 | -1, cut: string): PlanCorner[][] {
  // Along the line with what is kept to the left.
  const way: Vec2 = [line.n[1] * keep, -line.n[0] * keep]
  const along = (p: Vec2) => way[0] * p[0] + way[1] * p[1]
  const stops = chains
    .flatMap((chain, i) => [
      { chain: i, ends: false, t: along((chain[0] as Side).at) },
      { chain: i, ends: true, t: along((chain.at(-1) as Side).b) },
    ])
    .sort((a, b) => a.t - b.t)
  const next = new Map<number, number>()
  const left = [...stops]
  let open: number | null = null
  while (left.length) {
    // Where several lie at one place, one that closes what is open comes first.
    const t = (left[0] as (typeof left)[number]).t
    const here = left.findIndex((s) => s.ends === (open === null) && s.t < t + TOLERANCE.point)
    const [stop] = left.splice(Math.max(0, here), 1)
    if (!stop) break
    if (stop.ends) open = stop.chain
    else if (open !== null) {
      next.set(open, stop.chain)
      open = null
    }
  }
  const done = new Set<number>()
  return chains.flatMap((_, start) => {
    if (done.has(start)) return []
    const loop: PlanCorner[] = []
    for (let i: number | undefined = start; i !== undefined && !done.has(i); i = next.get(i)) {
      done.add(i)
      const chain = chains[i] as Side[]
      loop.push(...chain.map(({ id, at, bulge }) => ({ id, at, bulge })))
      const end = (chain.at(-1) as Side).b
      const follows = next.get(i)
      const to = follows === undefined ? null : ((chains[follows] as Side[])[0] as Side).at
      if (to && gapOf(end, to) > TOLERANCE.point) loop.push({ id: cut, at: end, bulge: 0 })
    }
    return Math.abs(cornersArea(loop)) > TOLERANCE.area ? [loop] : []
  })
}

/** Outer lines with the holes that lie in each. */
function grouped(lines: PlanCorner[][]): Plan[] {
  const outer = lines.filter((l) => cornersArea(l) > 0)
  const plans: Plan[] = outer.map((l) => [l])
  for (const hole of lines.filter((l) => cornersArea(l) <= 0)) {
    const p = (hole[0] as PlanCorner).at
    const around = outer
      .map((l, i) => ({ i, area: cornersArea(l), holds: holds(l, p) }))
      .filter((o) => o.holds)
      .sort((a, b) => a.area - b.area)[0]
    plans[around?.i ?? 0]?.push(hole)
  }
  return plans
}

/** Whether a point lies within a closed line of corners: by how often what runs east from it crosses the line. */
export function holds(line: readonly PlanCorner[], p: Vec2): boolean {
  let inside = false
  for (let i = 0; i < line.length; i++) {
    const a = line[i] as PlanCorner
    const side = { ...a, b: (line[(i + 1) % line.length] as PlanCorner).at }
    for (const bit of bitsOf(side)) {
      const [ya, yb] = [bit.at[1] > p[1], bit.b[1] > p[1]]
      if (ya === yb) continue
      const t = (p[1] - bit.at[1]) / (bit.b[1] - bit.at[1])
      if (bit.at[0] + (bit.b[0] - bit.at[0]) * t > p[0]) inside = !inside
    }
  }
  return inside
}

/** A side in straight bits, near enough to tell on which side a point lies. */
function bitsOf(side: Side): Side[] {
  if (side.bulge === 0) return [side]
  const n = 16
  const points = Array.from({ length: n + 1 }, (_, k) => between(side, k / n))
  return points.slice(1).map((b, k) => ({ ...side, bulge: 0, at: points[k] as Vec2, b }))
}

/** The extent of a plan along a direction (of length 1): from, to, m. Arcs count with their farthest points. */
export function extentAlong(plan: Plan, way: Vec2): [number, number] {
  const reach = (p: Vec2) => p[0] * way[0] + p[1] * way[1]
  let [from, to] = [Infinity, -Infinity]
  for (const line of plan)
    for (let i = 0; i < line.length; i++) {
      const a = line[i] as PlanCorner
      const b = (line[(i + 1) % line.length] as PlanCorner).at
      const arc = arcBetween(a.at, b, a.bulge)
      const far = arc ? farthest(arc, way) : []
      for (const s of [reach(a.at), reach(b), ...far.map(reach)]) {
        from = Math.min(from, s)
        to = Math.max(to, s)
      }
    }
  return [from, to]
}

/** The points of an arc that lie farthest along a direction and against it, as far as they are on it. */
function farthest(arc: NonNullable<ReturnType<typeof arcBetween>>, way: Vec2): Vec2[] {
  const a = Math.atan2(way[1], way[0])
  return [a, a + Math.PI].flatMap((to): Vec2[] => {
    const turned = (to - arc.from) * Math.sign(arc.sweep)
    const on = turned - Math.floor(turned / (2 * Math.PI)) * 2 * Math.PI
    return on <= Math.abs(arc.sweep) ? [[arc.x + arc.r * Math.cos(to), arc.y + arc.r * Math.sin(to)]] : []
  })
}

/** What of a plan lies in a sector about a point: counter-clockwise from a direction, up to half a turn wide (degrees). */
export function sectorOf(plan: Plan, about: Vec2, from: number, wide: number): Plan[] {
  const left = (degrees: number): PlanLine => {
    const a = (degrees * Math.PI) / 180
    const n: Vec2 = [-Math.sin(a), Math.cos(a)]
    return { n, d: n[0] * about[0] + n[1] * about[1] }
  }
  return partBeside(plan, left(from), 1, 'cut').flatMap((p) =>
    wide > 180 - TOLERANCE.rounding ? [p] : partBeside(p, left(from + wide), -1, 'cut'),
  )
}
