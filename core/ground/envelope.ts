import {
  aboveHeight,
  areaOf,
  beyond,
  isOpenAbove,
  isWhole,
  inside,
  offSegment,
  placeSolid,
  subtractRegions,
  type Allowed,
  type Mesh,
  type Placement,
  type Plane,
  type Rect,
  type Region,
  type Solid,
  type Vec2,
  TOLERANCE,
  gapOf,
} from '../solid'
import { tidy, type Numbers } from '../values'
import type { Site } from './schema'
import { buildable, orderedRing } from './site'

/**
 * A limit that a form keeps or passes: a setback of a side, the boundary, the permitted height, a slope. Sides are numbered as they are
 * listed, from 1.
 */
export interface LimitFigure {
  limit: 'height' | 'setback' | 'slope'
  side: number | null
  /** m; above zero: that much over, below: that much to spare */ over: number
}

/** The room that setbacks, the permitted height and slopes leave above the datum. */
export interface Envelope {
  ring: Vec2[]
  /** the kept corner that each side of `ring` begins at */
  side: number[]
  setbacks: number[]
  region: Region
  area: number
  limit: number | null
  slopes: { side: number; plane: Plane; from: number; angle: number }[]
}

/** The envelope of a site. Lengths in m, slopes in degrees. Errors: as its numbers'. */
export function envelopeOf(site: Site, numbers: Numbers): Envelope {
  const { ring, side } = orderedRing(site, numbers)
  const setbacks = side.map((k) => numbers.length(site.corners[k]?.setback ?? 0))
  const region = buildable(ring, setbacks)
  const slopes = side.flatMap((k, i) => {
    const slope = site.corners[k]?.slope
    if (!slope) return []
    const [a, b] = [ring[i] as Vec2, ring[(i + 1) % ring.length] as Vec2]
    const long = gapOf(b, a)
    const inward: Vec2 = [-(b[1] - a[1]) / long, (b[0] - a[0]) / long]
    const [from, angle] = [numbers.length(slope.from), numbers.angle(slope.angle)]
    const t = Math.tan((angle * Math.PI) / 180)
    // z <= from + t * (distance inwards): -t * inward . p + z <= from - t * inward . a
    const l = Math.hypot(t, 1)
    return [
      {
        side: i,
        from,
        angle,
        plane: {
          n: [(-t * inward[0]) / l, (-t * inward[1]) / l, 1 / l] as [number, number, number],
          d: (from - t * (inward[0] * a[0] + inward[1] * a[1])) / l,
        },
      },
    ]
  })
  return {
    ring,
    side,
    setbacks,
    region,
    area: areaOf(region),
    limit: site.limit === null ? null : numbers.length(site.limit),
    slopes,
  }
}

/** The envelope as a room up to a height (m), where no lower one is permitted. */
export const roomOf = (envelope: Envelope, top: number): Allowed => ({
  region: envelope.region,
  from: 0,
  to: envelope.limit ?? Math.max(1, top),
  planes: envelope.slopes.map((s) => s.plane),
})

/**
 * How a mass stands in the envelope: what it passes and by how much (m, m3), what it keeps and with how much to spare, and how far it is
 * from each boundary.
 */
export interface Fit {
  limits: LimitFigure[]
  over: number
  mesh: Mesh | null
  plan: Region
  /** m from the mass to each side, as sides are listed; below zero: over it */ clear: number[]
}

/** A plan in the envelope: m2 of it that lie outside, and how far it is from each side of the ring, m. */
export interface PlanFit {
  plan: Region
  outside: number
  clear: number[]
}

/** How a plan (m) lies in the envelope. `rect`: its extent. */
export const planFit = (envelope: Envelope, plan: Region, rect: Rect): PlanFit => ({
  plan,
  outside: areaOf(subtractRegions(plan, envelope.region)),
  clear: clearances(envelope, plan, rect),
})

/**
 * Measures a placed mass against the envelope. Only what stands above the datum is measured: the envelope says nothing of what lies below
 * it. Heights and slopes are taken at the form's corners, where a plane is passed farthest.
 */
export function fitOf(
  solid: Solid,
  at: Placement,
  top: number,
  rect: Rect,
  envelope: Envelope,
  planIn: () => PlanFit,
): Fit {
  const limits: LimitFigure[] = []
  const body = placeSolid(solid, at)
  const placed = body.positions
  if (envelope.limit !== null) limits.push({ limit: 'height', side: null, over: tidy(top - envelope.limit) })
  for (const { side, plane } of envelope.slopes) {
    let over = -Infinity
    for (let i = 0; i < placed.length; i += 3) {
      if ((placed[i + 2] as number) < TOLERANCE.rounding) continue
      // Straight up from the plane, as heights are measured.
      over = Math.max(
        over,
        (plane.n[0] * (placed[i] as number) +
          plane.n[1] * (placed[i + 1] as number) +
          plane.n[2] * (placed[i + 2] as number) -
          plane.d) /
          plane.n[2],
      )
    }
    if (over > -Infinity) limits.push({ limit: 'slope', side: listed(envelope, side), over: tidy(over) })
  }
  // What is seen from above is all over the datum, under all planes and within the region: only the height can be passed then, and no
  // body needs to be made of the envelope.
  const plain = isOpenAbove(body, 0) && limits.every((l) => l.over <= 0 || l.limit === 'height') && isWhole(solid)
  const own = plain ? planIn() : null
  const within = own && own.outside < TOLERANCE.rounding ? own.plan : null
  const found =
    top <= TOLERANCE.point
      ? null
      : !within
        ? beyond(solid, at, roomOf(envelope, top + 10))
        : envelope.limit !== null && envelope.limit < top
          ? { plan: within, ...aboveHeight(body, Math.max(0, envelope.limit)) }
          : { plan: within, volume: 0, mesh: null }
  const plan = found?.plan ?? []
  const clear = own && plan === own.plan ? own.clear : clearances(envelope, plan, rect)
  const strips = found && !within && found.volume > TOLERANCE.volume ? inStrips(envelope, plan) : []
  envelope.ring.forEach((_, i) => {
    const distance = clear[i] ?? Infinity
    // The kernel's plan is single precision: a tenth of a millimetre is nothing.
    const over = tidy(Math.max((envelope.setbacks[i] ?? 0) - distance, strips[i] ?? -Infinity))
    if (Number.isFinite(over))
      limits.push({ limit: 'setback', side: listed(envelope, i), over: Math.abs(over) < TOLERANCE.touch ? 0 : over })
  })
  const bySide = envelope.ring.map((_, i) => clear[envelope.side.indexOf(i)] ?? 0)
  return {
    limits,
    over: found && found.volume > TOLERANCE.volume ? found.volume : 0,
    mesh: found && found.volume > TOLERANCE.volume ? found.mesh : null,
    plan,
    clear: bySide,
  }
}

/**
 * By how much a plan reaches into the strip of each side, m, measured square to the side: at a corner that looks in, where strips meet in
 * their mitre, that is more than the distance to the side tells.
 */
function inStrips({ ring, setbacks, region }: Envelope, plan: Region): number[] {
  const deepest = ring.map(() => -Infinity)
  for (const p of subtractRegions(plan, region).flat()) {
    const near = ring.map((a, i) => offSegment(p, a, ring[(i + 1) % ring.length] as Vec2))
    const least = Math.min(...near)
    ring.forEach((a, i) => {
      if ((near[i] ?? 0) > least + TOLERANCE.point) return
      const b = ring[(i + 1) % ring.length] as Vec2
      const off = ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / gapOf(b, a)
      if (off >= -TOLERANCE.point) deepest[i] = Math.max(deepest[i] ?? 0, (setbacks[i] ?? 0) - off)
    })
  }
  return deepest
}

/** The number that a side of the ring goes by, as sides are listed. */
const listed = (envelope: Envelope, i: number) => (envelope.side[i] ?? i) + 1

/** m from a plan to each side of the ring; what lies outside counts below zero, for the side that it lies beyond. */
function clearances({ ring }: Envelope, plan: Region, rect: Rect): number[] {
  const points = plan.length
    ? plan.flat()
    : ([
        [rect.x0, rect.y0],
        [rect.x1, rect.y0],
        [rect.x1, rect.y1],
        [rect.x0, rect.y1],
      ] as Vec2[])
  const edges = ring.map((p, i) => [p, ring[(i + 1) % ring.length] as Vec2] as const)
  const outside = points.filter((p) => !inside(ring, p))
  const nearestOf = (p: Vec2) =>
    edges.reduce(
      (best, [a, b], i) => {
        const d = offSegment(p, a, b)
        return d < best.d - TOLERANCE.rounding ? { i, d } : best
      },
      { i: 0, d: Infinity },
    )
  const beyondSide = new Map<number, number>()
  for (const p of outside) {
    const { i, d } = nearestOf(p)
    beyondSide.set(i, Math.max(beyondSide.get(i) ?? 0, d))
  }
  return edges.map(([a, b], i) => {
    const over = beyondSide.get(i)
    if (over !== undefined && over > TOLERANCE.touch) return tidy(-over)
    // The nearest of the plan's corners to the side, or of the side's corners to the plan's edges.
    let least = points.reduce((d, p) => Math.min(d, offSegment(p, a, b)), Infinity)
    for (const loop of plan)
      loop.forEach((p, k) => {
        const q = loop[(k + 1) % loop.length] as Vec2
        least = Math.min(least, offSegment(a, p, q), offSegment(b, p, q))
      })
    return Math.round(least * 1e4) / 1e4
  })
}

/**
 * The vector (m) that brings a mass to a distance from a side, given how far it is from it now. Sides are counted as they are listed,
 * from 0.
 */
export function towardSide(
  envelope: Pick<Envelope, 'ring' | 'side'>,
  side: number,
  now: number,
  distance: number,
): Vec2 {
  const i = Math.max(0, envelope.side.indexOf(side))
  const [a, b] = [envelope.ring[i] as Vec2, envelope.ring[(i + 1) % envelope.ring.length] as Vec2]
  const long = gapOf(b, a)
  const by = distance - now
  return [tidy((-(b[1] - a[1]) / long) * by), tidy(((b[0] - a[0]) / long) * by)]
}
