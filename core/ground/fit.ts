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
  type Mesh,
  type Placement,
  type Rect,
  type Region,
  type Solid,
  type Vec2,
  TOLERANCE,
  gapOf,
} from '../solid'
import { tidy } from '../values'
import { roomOf, type Envelope } from './envelope'
import { overSlope } from './slopes'

/**
 * A limit that a form keeps or passes: a setback of a side, the boundary, the permitted height, a slope. Sides are numbered as they are
 * listed, from 1, and named by where they look.
 */
export interface LimitFigure {
  limit: 'height' | 'setback' | 'slope'
  side: number | null
  /** the side by where it looks: "south side"; null for the height */ name: string | null
  /** m; above zero: that much over, below: that much to spare */ over: number
}

/**
 * A mass against the envelope: each limit with its excess or its margin (m), the volume over (m3), and the distance to each boundary (m).
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
 * Measures a placed mass against the envelope. It measures the part above the datum only: the envelope does not limit basements. For
 * heights and slopes it gives the largest excess.
 */
export function fitOf(
  solid: Solid,
  at: Placement,
  top: number,
  rect: Rect,
  envelope: Envelope,
  planIn: () => PlanFit,
): Fit {
  const body = placeSolid(solid, at)
  const limits = heightLimits(envelope, top, body)
  // No face that looks up lies below the datum, and the mass keeps all limits but perhaps the height: its plan then decides, and the
  // kernel need not build the envelope's body.
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
  const isOver = found !== null && found.volume > TOLERANCE.volume
  return {
    limits: [...limits, ...setbackLimits(envelope, plan, clear)],
    over: isOver ? found.volume : 0,
    mesh: isOver ? found.mesh : null,
    plan,
    clear: envelope.ring.map((_, i) => clear[envelope.side.indexOf(i)] ?? 0),
  }
}

/** How triangles stand to the permitted height and the sloping limits, m; `top`: of their highest point. */
export function heightLimits(
  envelope: Envelope,
  top: number,
  { positions, triangles }: Pick<Solid, 'positions' | 'triangles'>,
): LimitFigure[] {
  const height: LimitFigure[] =
    envelope.limit === null ? [] : [{ limit: 'height', side: null, name: null, over: tidy(top - envelope.limit) }]
  const slopes = envelope.slopes.flatMap((slope): LimitFigure[] => {
    const over = overSlope(slope, positions, triangles)
    return over > -Infinity ? [{ limit: 'slope', ...called(envelope, slope.side), over: tidy(over) }] : []
  })
  return [...height, ...slopes]
}

/** How a plan stands to the setbacks, m: measured square to each side, also beyond the side's ends. `clear`: how far it is from each side. */
export function setbackLimits(
  envelope: Envelope,
  plan: Region,
  clear = clearances(envelope, plan, NO_RECT),
): LimitFigure[] {
  if (plan.length === 0) return []
  const strips = inStrips(envelope, plan)
  return envelope.ring.flatMap((_, i): LimitFigure[] => {
    const [setback, distance, deep] = [envelope.setbacks[i] ?? 0, clear[i] ?? Infinity, strips[i] ?? -Infinity]
    // Beside the end of a strip a plan may be nearer to the side than its setback, and not over it.
    const over = tidy(distance < 0 ? setback - distance : deep > -Infinity ? deep : Math.min(0, setback - distance))
    if (!Number.isFinite(over)) return []
    // The kernel's plan is single precision: a tenth of a millimetre is nothing.
    return [{ limit: 'setback', ...called(envelope, i), over: Math.abs(over) < TOLERANCE.touch ? 0 : over }]
  })
}
const NO_RECT: Rect = { x0: 0, y0: 0, x1: 0, y1: 0 }

/** By how much a plan reaches into the strip of each side, m, square to the side; -Infinity where it does not. */
function inStrips({ ring, setbacks, region }: Envelope, plan: Region): number[] {
  const deepest = ring.map(() => -Infinity)
  for (const p of subtractRegions(plan, region).flat()) {
    if (!inside(ring, p)) continue
    const off = ring.map((_, i) => squareTo(ring, i, p))
    const into = off.map((d, i) => (d > -TOLERANCE.point ? (setbacks[i] ?? 0) - d : -Infinity))
    // The point counts for the side it lies before; at a corner, where setback strips overlap, for the deepest strip.
    const before = ring.map(
      (a, i) => offSegment(p, a, ring[(i + 1) % ring.length] as Vec2) < (off[i] ?? 0) + TOLERANCE.point,
    )
    const own = into.map((deep, i) => (before[i] && deep > -TOLERANCE.touch ? deep : -Infinity))
    const found = own.some((deep) => deep > -Infinity)
      ? own
      : into.map((deep) => (deep === Math.max(...into) ? deep : -Infinity))
    found.forEach((deep, i) => (deepest[i] = Math.max(deepest[i] ?? -Infinity, deep)))
  }
  return deepest
}

/** m of a place from the line of a side, square to it; below zero outside. */
function squareTo(ring: Vec2[], i: number, p: Vec2): number {
  const [a, b] = [ring[i] as Vec2, ring[(i + 1) % ring.length] as Vec2]
  return ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / gapOf(b, a)
}

/** What a side of the ring goes by: its number as sides are listed, and its name. */
function called({ side, names }: Envelope, i: number): Pick<LimitFigure, 'side' | 'name'> {
  const k = side[i] ?? i
  return { side: k + 1, name: names[k] ?? `side ${k + 1}` }
}

/** m from a plan to each side of the ring; what lies outside counts below zero, square to the sides that it lies beyond. */
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
  const beyondSide = new Map<number, number>()
  for (const p of points) {
    if (inside(ring, p)) continue
    const near = edges.map(([a, b]) => offSegment(p, a, b))
    const least = Math.min(...near)
    // Beyond a corner a place lies beyond both of its sides.
    near.forEach((d, i) => {
      if (d < least + TOLERANCE.rounding) beyondSide.set(i, Math.max(beyondSide.get(i) ?? 0, -squareTo(ring, i, p)))
    })
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
