import { refuse, TOLERANCE } from '../values'
import type { Vec2 } from './place'
import { loopArea, type Vec3 } from './solid'
import { apart, bendsOf, joinedSteps } from './skeleton-lines'
import { gapOf, minus, onLine, spanned, wayOf } from './vec2'

/** A face of a roof: the number of the edge (through all loops) that it rises from, its stage, and its corners, m. */
export interface RoofFace {
  edge: number
  stage: number
  loop: Vec3[]
}

/**
 * How edges move inwards from a height on: by so many m for every m that the roof rises, each edge by its number. 0 stands still: a gable.
 */
export interface RoofStage {
  from: number
  speed(edge: number): number
}

/**
 * The roof over closed loops (m; outer ones counter-clockwise, holes clockwise) whose edges all rise at once: the straight skeleton, with
 * a speed for each edge, and from a height on another. All edges are moved to the next moment at which a corner comes to an edge; there
 * what touches is parted, what falls together ends as a ridge, and the rest goes on. Heights count from the eaves. Errors: 'geometry'
 * where a roof does not close, or is not one (its faces do not cover the outline).
 */
export function roofOver(loops: Vec2[][], stages: RoofStage[]): RoofFace[] {
  const front = new Front(loops, stages)
  front.run()
  return checked(loops, front.faces())
}

interface Line {
  /** inwards */ n: Vec2
  way: Vec2
  d: number
  speed: number
}
/** A corner between the edge that ends there and the one that begins there. */
interface Corner {
  before: number
  after: number
  p: Vec2
}
interface Segment {
  from: Vec2
  to: Vec2
  owner: number
}

class Front {
  private readonly ends: { a: Vec2; b: Vec2 }[] = []
  private lines: Line[] = []
  private loops: Corner[][]
  private t = 0
  private stage = 0
  private readonly traces = new Map<string, [Vec3, Vec3][]>()

  constructor(
    loops: Vec2[][],
    private readonly stages: RoofStage[],
  ) {
    let first = 0
    this.loops = loops.map((loop) => {
      const n = loop.length
      loop.forEach((a, i) => this.ends.push({ a, b: loop[(i + 1) % n] as Vec2 }))
      const corners = loop.map((p, i): Corner => ({ before: first + ((i + n - 1) % n), after: first + i, p }))
      first += n
      return corners
    })
    this.lines = this.ends.map(({ a, b }, i) => {
      const way = wayOf(a, b)
      const n: Vec2 = [-way[1], way[0]]
      return { n, way, d: n[0] * a[0] + n[1] * a[1], speed: stages[0]?.speed(i) ?? 0 }
    })
    for (const segment of this.segments()) this.trace(segment.owner, segment.from, 0, segment.to, 0)
  }

  run(): void {
    for (let round = 0; this.loops.length > 0; round++) {
      const change = this.stages[this.stage + 1]?.from ?? Infinity
      const next = Math.min(this.nextMoment(), change)
      if (!Number.isFinite(next) || round > 20 * this.ends.length + 50)
        refuse('geometry', 'The roof does not close: its edges never meet.', 'Let more of its edges rise.')
      this.moveTo(next)
      if (next === change) this.nextStage()
      else this.settle()
    }
  }

  /** Each edge's boundaries, joined: with the corners at which it bends, and those at which a neighbour does. */
  faces(): RoofFace[] {
    const whole = [...this.traces].flatMap(([key, steps]) => {
      const [edge, stage] = key.split('/').map(Number) as [number, number]
      return joinedSteps(steps).map((loop) => ({ edge, stage, loop }))
    })
    const nodes = this.ends.map(({ a }): Vec3 => [a[0], a[1], 0])
    const nodeAt = (p: Vec3) => nodes.find((q) => apart(p, q) < 2 * TOLERANCE.point)
    for (const { loop } of whole) for (const p of bendsOf(loop)) if (!nodeAt(p)) nodes.push(p)
    return whole.flatMap((face) => {
      const kept = face.loop.map(nodeAt).filter((p): p is Vec3 => p !== undefined)
      const loop = kept.filter((p, i) => p !== kept[(i + 1) % kept.length])
      return loop.length >= 3 ? [{ ...face, loop }] : []
    })
  }

  private segments(): Segment[] {
    return this.loops.flatMap((loop) =>
      loop.map((c, i): Segment => ({ from: c.p, to: (loop[(i + 1) % loop.length] as Corner).p, owner: c.after })),
    )
  }

  private trace(edge: number, from: Vec2, z0: number, to: Vec2, z1: number): void {
    if (gapOf(from, to) < TOLERANCE.rounding && Math.abs(z0 - z1) < TOLERANCE.rounding) return
    const key = `${edge}/${this.stage}`
    const list = this.traces.get(key)
    const step: [Vec3, Vec3] = [
      [from[0], from[1], z0],
      [to[0], to[1], z1],
    ]
    if (list) list.push(step)
    else this.traces.set(key, [step])
  }

  /** How a corner moves, m for every m of height. */
  private velocity({ before, after }: Corner): Vec2 {
    const [a, b] = [this.lines[before] as Line, this.lines[after] as Line]
    const det = spanned(a.n, b.n)
    if (Math.abs(det) < TOLERANCE.fine) {
      const speed = (a.speed + b.speed) / 2
      return [a.n[0] * speed, a.n[1] * speed]
    }
    return [(a.speed * b.n[1] - b.speed * a.n[1]) / det, (a.n[0] * b.speed - b.n[0] * a.speed) / det]
  }

  /** Where the lines of a corner's edges meet at a height, free of what has added up; where they are parallel, as it was told. */
  private exact({ before, after }: Corner, t: number, told: Vec2): Vec2 {
    const [a, b] = [this.lines[before] as Line, this.lines[after] as Line]
    const det = spanned(a.n, b.n)
    if (Math.abs(det) < TOLERANCE.point) return told
    const [d, e] = [a.d + a.speed * t, b.d + b.speed * t]
    const met: Vec2 = [(d * b.n[1] - e * a.n[1]) / det, (a.n[0] * e - b.n[0] * d) / det]
    return gapOf(met, told) < TOLERANCE.touch ? met : told
  }

  /** The height at which the next corner comes to an edge. */
  private nextMoment(): number {
    const v = new Map<Corner, Vec2>()
    for (const loop of this.loops) for (const c of loop) v.set(c, this.velocity(c))
    let next = Infinity
    const candidate = (dt: number) => {
      if (dt > -TOLERANCE.fine) next = Math.min(next, this.t + Math.max(0, dt))
    }
    const all = this.loops.flatMap((loop) => loop.map((c, i) => [c, loop[(i + 1) % loop.length] as Corner] as const))
    for (const [c, d] of all) {
      const { way } = this.lines[c.after] as Line
      const [gap, [vx, vy], [wx, wy]] = [minus(d.p, c.p), v.get(c) as Vec2, v.get(d) as Vec2]
      const long = gap[0] * way[0] + gap[1] * way[1]
      const rate = (wx - vx) * way[0] + (wy - vy) * way[1]
      if (rate < -TOLERANCE.zero) candidate(long / -rate)
    }
    for (const [c] of all) {
      const [a, b] = [this.lines[c.before] as Line, this.lines[c.after] as Line]
      if (spanned(a.way, b.way) > -TOLERANCE.fine) continue
      const [vx, vy] = v.get(c) as Vec2
      for (const [e, f] of all) {
        if (e.after === c.before || e.after === c.after) continue
        const line = this.lines[e.after] as Line
        const off = line.n[0] * c.p[0] + line.n[1] * c.p[1] - (line.d + line.speed * this.t)
        const rate = line.n[0] * vx + line.n[1] * vy - line.speed
        if (off < -TOLERANCE.point || rate > -TOLERANCE.zero) continue
        const dt = Math.max(0, off / -rate)
        if (this.t + dt >= next) continue
        const at = onLine(c.p, [vx, vy], dt)
        const [p, q] = [onLine(e.p, v.get(e) as Vec2, dt), onLine(f.p, v.get(f) as Vec2, dt)]
        const along = (x: Vec2) => x[0] * line.way[0] + x[1] * line.way[1]
        if (along(at) > along(p) - TOLERANCE.point && along(at) < along(q) + TOLERANCE.point) candidate(dt)
      }
    }
    return next
  }

  private moveTo(t: number): void {
    for (const loop of this.loops)
      for (const c of loop) {
        const to = this.exact(c, t, onLine(c.p, this.velocity(c), t - this.t))
        this.trace(c.before, c.p, this.t, to, t)
        this.trace(c.after, to, t, c.p, this.t)
        c.p = to
      }
    this.t = t
  }

  /** From here on edges move at other speeds: faces end, and others begin. */
  private nextStage(): void {
    for (const { owner, from, to } of this.segments()) this.trace(owner, to, this.t, from, this.t)
    this.stage++
    const stage = this.stages[this.stage] as RoofStage
    this.lines = this.lines.map((line, i) => {
      const speed = stage.speed(i)
      return { ...line, speed, d: line.d + (line.speed - speed) * this.t }
    })
    for (const { owner, from, to } of this.segments()) this.trace(owner, from, this.t, to, this.t)
  }

  /** Parts what touches, ends what falls together as ridges, and links the rest anew. */
  private settle(): void {
    const nodes: Vec2[] = []
    const nodeOf = (p: Vec2): number => {
      const known = nodes.findIndex((q) => gapOf(p, q) < NEAR)
      return known >= 0 ? known : nodes.push(p) - 1
    }
    const rough = this.segments().map((s) => ({ from: nodeOf(s.from), to: nodeOf(s.to), owner: s.owner }))
    const parted = rough.flatMap(({ from, to, owner }) => {
      if (from === to) return []
      const [p, q] = [nodes[from] as Vec2, nodes[to] as Vec2]
      const [way, long] = [wayOf(p, q), gapOf(p, q)]
      const on = nodes
        .map((x, n) => ({ n, t: (x[0] - p[0]) * way[0] + (x[1] - p[1]) * way[1], x }))
        .filter(
          ({ n, t, x }) => n !== from && n !== to && t > NEAR && t < long - NEAR && gapOf(x, onLine(p, way, t)) < NEAR,
        )
        .sort((a, b) => a.t - b.t)
      const stops = [from, ...on.map(({ n }) => n), to]
      return stops.slice(1).map((n, i) => ({ from: stops[i] as number, to: n, owner }))
    })
    const open: typeof parted = []
    for (const s of parted) {
      const twin = open.findIndex((o) => o.from === s.to && o.to === s.from)
      if (twin < 0) {
        open.push(s)
        continue
      }
      const [other] = open.splice(twin, 1)
      const [p, q] = [nodes[s.from] as Vec2, nodes[s.to] as Vec2]
      this.trace(s.owner, q, this.t, p, this.t)
      this.trace((other as { owner: number }).owner, p, this.t, q, this.t)
    }
    this.loops = []
    const left = new Set(open)
    for (const first of open) {
      if (!left.has(first)) continue
      const ring: typeof parted = []
      for (let s: (typeof parted)[number] | undefined = first; s && left.has(s);) {
        left.delete(s)
        ring.push(s)
        const [p, q] = [nodes[s.from] as Vec2, nodes[s.to] as Vec2]
        const way = minus(q, p)
        const end: number = s.to
        const turn = (o: (typeof parted)[number]) => {
          const out = minus(nodes[o.to] as Vec2, q)
          return Math.atan2(spanned(way, out), way[0] * out[0] + way[1] * out[1])
        }
        s = open.filter((o) => o.from === end && (left.has(o) || o === first)).sort((a, b) => turn(b) - turn(a))[0]
      }
      const corners = ring.map((s, i): Corner => ({
        before: (ring[(i + ring.length - 1) % ring.length] as (typeof parted)[number]).owner,
        after: s.owner,
        p: nodes[s.from] as Vec2,
      }))
      const loop = corners.filter((c) => c.before !== c.after)
      for (const c of loop) c.p = this.exact(c, this.t, c.p)
      if (loop.length > 1) this.loops.push(loop)
    }
  }
}

/** m: what comes nearer in a moment has come together */
const NEAR = TOLERANCE.fine / 10

/** The faces, where they are a roof: they cover the outline once. */
function checked(loops: Vec2[][], faces: RoofFace[]): RoofFace[] {
  const plan = loops.reduce((sum, l) => sum + loopArea(l), 0)
  const areas = faces.map((f) => loopArea(f.loop))
  const sum = areas.reduce((a, b) => a + b, 0)
  if (
    areas.some((a) => a < -TOLERANCE.area / 10) ||
    Math.abs(sum - plan) > TOLERANCE.rounding * 100 * plan + TOLERANCE.area / 100
  )
    refuse('geometry', 'The faces of the roof do not cover its outline.', 'Change an angle or the outline a little.')
  return faces
}
