import {
  arcPoints,
  areaOf,
  boxOf,
  enclosed,
  equalAreaFactor,
  facetsFor,
  loopArea,
  sweptAt,
  turnedArea,
  TOLERANCE,
  uniteRegions,
  type Face,
  type Region,
  type Solid,
  type Sweep,
  type Twist,
  type Vec2,
  onLine,
  minus,
  linesMeet,
} from '../solid'

/** The plan of a form from above, m: all that looks up; of a twisted one all that its outline passes over as it turns. */
export function planFromAbove(flats: () => Face[], sweep: Sweep | null, solid: Solid): Region {
  if (sweep?.twist && sweep.twist.angle !== 0) return twistedPlan(sweep, sweep.twist)
  // Upright it has the plan of its outline, and no face needs to be put together.
  if (sweep && sweep.low === sweep.high) return uniteRegions([sweep.low.map((l) => l.points)])
  if (solid.triangles.length > 3 * MANY) return shadowOf(solid)
  return uniteRegions(
    flats()
      .filter((f) => f.plane.n[2] > TOLERANCE.slope)
      .map((f): Region => f.loops.map((l) => l.points.map(([x, y]): Vec2 => [x, y])))
      .filter((r) => areaOf(r) > TOLERANCE.area),
  )
}

/** triangles of a body from which on its plan is made of them at once: their corners are the very same where they meet */
const MANY = 500

/** triangles in a band of heights for which the kernel unites silhouettes fastest, and how many bands still pay */
const IN_A_BAND = 2500
const BANDS = 6

/**
 * The plan of the triangles that look up. Edges that two of them share cancel out; the silhouette that remains winds about each point as
 * often as there are triangles over it, and has far fewer edges to unite. The silhouettes of a body of many triangles cross less often in
 * bands of heights, so the kernel unites each band first, then the bands.
 */
function shadowOf({ positions: p, triangles }: Solid): Region {
  const count = p.length / 3
  const { z0, z1 } = boxOf(p)
  const bands = Array.from(
    { length: Math.min(BANDS, Math.ceil(triangles.length / 3 / IN_A_BAND)) },
    () => new Set<number>(),
  )
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number]
    if (turnedArea(p, a * 3, b * 3, c * 3) <= TOLERANCE.rounding) continue
    const up = ((p[a * 3 + 2] as number) - z0) / (z1 - z0)
    const edges = bands[Math.min(bands.length - 1, Math.floor(up * bands.length))] as Set<number>
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const)
      if (!edges.delete(to * count + from)) edges.add(from * count + to)
  }
  const at = (v: number): Vec2 => [p[v * 3] as number, p[v * 3 + 1] as number]
  const shadows = bands
    .filter((edges) => edges.size > 0)
    .map((edges) => enclosed(loopsOfEdges(edges, count).map((loop) => loop.map(at))))
  return shadows.length > 1 ? enclosed(shadows.flat()) : (shadows[0] ?? [])
}

/** Directed edges (from * count + to), as many into each vertex as out of it, as closed loops of vertices. */
function loopsOfEdges(edges: Iterable<number>, count: number): number[][] {
  const out = new Map<number, number[]>()
  for (const edge of edges) {
    const from = Math.floor(edge / count)
    const known = out.get(from)
    if (known) known.push(edge % count)
    else out.set(from, [edge % count])
  }
  const loops: number[][] = []
  for (const [start, ways] of out)
    while (ways.length) {
      const loop: number[] = []
      let now = start
      do {
        loop.push(now)
        now = out.get(now)?.pop() ?? start
      } while (now !== start)
      loops.push(loop)
    }
  return loops
}

/** The plan of what is turned all round about zero: a disc, or a ring where it is open in the middle (m). Its facets enclose the true area. */
export function ringPlan({ from, to }: { from: number; to: number }): Region {
  const circle = (r: number): Vec2[] =>
    arcPoints({ x: 0, y: 0, r, from: 0, sweep: 2 * Math.PI, n: facetsFor(r, 2 * Math.PI) })
  return from > TOLERANCE.least ? [circle(to), circle(from).reverse()] : [circle(to)]
}

/**
 * The outlines at even steps of the turn, and what their sides pass over from one to the next. Those between lie a hair further from the
 * axis, so that the ways of the corners enclose the areas of their true arcs; both senses of a twist give the same.
 */
function twistedPlan(sweep: Sweep, twist: Twist): Region {
  const [from, to] = [Math.max(sweep.z0, twist.from), Math.min(sweep.z1, twist.to)]
  // Twisted over its whole height it has the same plan however high it is.
  const whole = from === twist.from && to === twist.to && from === sweep.z0 && to === sweep.z1
  const key = JSON.stringify([
    sweep.low,
    sweep.high,
    twist.x,
    twist.y,
    twist.angle,
    whole ? null : [sweep.z0, sweep.z1, twist.from, twist.to],
  ])
  const known = plans.get(key)
  if (known) return known
  const plan = turned(sweep, twist, from, to)
  if (plans.size > 50) plans.clear()
  plans.set(key, plan)
  return plan
}
const plans = new Map<string, Region>()

function turned(sweep: Sweep, twist: Twist, from: number, to: number): Region {
  const turn = ((Math.abs(twist.angle) * Math.PI) / 180) * ((to - from) / (twist.to - twist.from))
  const radius = Math.max(
    ...[...sweep.low, ...sweep.high].flatMap((l) => l.points.map(([x, y]) => Math.hypot(x - twist.x, y - twist.y))),
    0.01,
  )
  const steps = Math.max(2, Math.ceil(turn / Math.sqrt((8 * TOLERANCE.curve) / radius)))
  const factor = equalAreaFactor(turn, steps)
  const outwards = (loop: Vec2[]) =>
    loop.map(([x, y]): Vec2 => [twist.x + (x - twist.x) * factor, twist.y + (y - twist.y) * factor])
  const turning = Array.from({ length: steps + 1 }, (_, k) => {
    const row = sweptAt(sweep, from + ((to - from) * k) / steps)
    return k > 0 && k < steps ? row.map(outwards) : row
  })
  const rows = [
    ...(from > sweep.z0 ? [sweptAt(sweep, sweep.z0)] : []),
    ...turning,
    ...(to < sweep.z1 ? [sweptAt(sweep, sweep.z1)] : []),
  ]
  const passed = rows.slice(1).map((row, r) => [
    ...row,
    ...row.flatMap((loop, l) =>
      loop.flatMap((d, i): Vec2[][] => {
        const below = rows[r]?.[l] ?? loop
        const j = (i + 1) % loop.length
        return passedOver(below[i] ?? d, below[j] ?? d, loop[j] ?? d, d)
      }),
    ),
  ])
  // Outlines of all steps at once cross one another in as many places as there are pairs of them; in groups of neighbours they rarely do.
  const groups: Region[] = []
  for (let i = 0; i < passed.length; i += IN_A_GROUP)
    groups.push(enclosed([...(rows[i] ?? []), ...passed.slice(i, i + IN_A_GROUP).flat()]))
  return groups.length > 1 ? enclosed(groups.flat()) : (groups[0] ?? [])
}

/** steps of a turn that are united first */
const IN_A_GROUP = 24

/** What a side passes over on its way from a-b to d-c, as triangles: two that meet in a point where it turns about a point of itself. */
function passedOver(a: Vec2, b: Vec2, c: Vec2, d: Vec2): Vec2[][] {
  const x = crossingOf(a, b, d, c)
  return (
    x
      ? [
          [a, x, d],
          [b, x, c],
        ]
      : [
          [a, b, c],
          [a, c, d],
        ]
  ).map((t): Vec2[] => (loopArea(t) < 0 ? t.reverse() : t))
}

/** Where two segments cross; null where they do not. */
function crossingOf(a: Vec2, b: Vec2, c: Vec2, d: Vec2): Vec2 | null {
  const way = minus(b, a)
  const met = linesMeet(a, way, c, minus(d, c))
  return met && met.t > 0 && met.t < 1 && met.s > 0 && met.s < 1 ? onLine(a, way, met.t) : null
}
