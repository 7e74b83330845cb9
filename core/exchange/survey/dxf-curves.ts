import { arcBetween, arcPoints, gapOf, TOLERANCE, type Vec3 } from '../../solid'
import { numberOf, type Entity } from './dxf-entities'
import { withArcs, type DrawnLine } from './dxf-lines'

/** Splits of a stretch of a curve at most: a thousandth of it. */
const MOST_SPLITS = 10

/** A curve over its parameters as points that lie off it by less than `within`. */
function sampled(at: (t: number) => Vec3, stops: number[], within: number): Vec3[] {
  const out: Vec3[] = []
  const walk = (t0: number, p0: Vec3, t1: number, p1: Vec3, depth: number) => {
    const t = (t0 + t1) / 2
    const p = at(t)
    const off = Math.hypot(...[0, 1, 2].map((k) => (p[k] ?? 0) - ((p0[k] ?? 0) + (p1[k] ?? 0)) / 2))
    if (depth >= MOST_SPLITS || (depth >= 2 && off < within)) {
      out.push(p0)
      return
    }
    walk(t0, p0, t, p, depth + 1)
    walk(t, p, t1, p1, depth + 1)
  }
  stops.slice(1).forEach((t, i) => {
    const from = stops[i] ?? 0
    walk(from, at(from), t, at(t), 0)
  })
  out.push(at(stops.at(-1) ?? 0))
  return out
}

/** A non-uniform rational B-spline. */
interface Spline {
  degree: number
  knots: number[]
  points: Vec3[]
  weights: number[]
}

/** Points of a spline by de Boor's algorithm (C. de Boor, A Practical Guide to Splines, 1978); null where its knots do not fit. */
function splineLine({ degree: d, knots, points, weights }: Spline, within: number): Vec3[] | null {
  if (d < 1 || d > 25 || points.length <= d || knots.length !== points.length + d + 1) return null
  if (knots.some((k, i) => i > 0 && k < (knots[i - 1] ?? k))) return null
  const at = (t: number): Vec3 => {
    let span = d
    while (span < points.length - 1 && t >= (knots[span + 1] ?? Infinity)) span++
    const w = Array.from({ length: d + 1 }, (_, j) => {
      const weight = weights[span - d + j] ?? 1
      const p = points[span - d + j] ?? [0, 0, 0]
      return [p[0] * weight, p[1] * weight, p[2] * weight, weight]
    })
    for (let r = 1; r <= d; r++)
      for (let j = d; j >= r; j--) {
        const [low = 0, high = 0] = [knots[span - d + j], knots[span + 1 + j - r]]
        const share = high > low ? (t - low) / (high - low) : 0
        w[j] = [0, 1, 2, 3].map((k) => (1 - share) * (w[j - 1]?.[k] ?? 0) + share * (w[j]?.[k] ?? 0))
      }
    const [x = 0, y = 0, z = 0, weight = 1] = w[d] ?? []
    return [x / weight, y / weight, z / weight]
  }
  const stops = [...new Set(knots.slice(d, points.length + 1))]
  return stops.length > 1 ? sampled(at, stops, within) : null
}

/** The points of an ellipse, or of a part of it, about a centre: its half axes, and from and to which parameter, radians. */
function ellipseLine(centre: Vec3, major: Vec3, minor: Vec3, from: number, to: number, within: number): Vec3[] {
  const at = (t: number) =>
    [0, 1, 2].map((k) => (centre[k] ?? 0) + Math.cos(t) * (major[k] ?? 0) + Math.sin(t) * (minor[k] ?? 0)) as Vec3
  const n = 8
  return sampled(
    at,
    Array.from({ length: n + 1 }, (_, i) => from + ((to - from) * i) / n),
    within,
  )
}

/**
 * The smooth line through points: a cubic spline over the lengths of its chords, with the directions that are told at its ends, or free
 * there (second derivative zero); closed, it goes on over its end as over any point. Its slopes by the usual three-term system (C. de Boor,
 * A Practical Guide to Splines, 1978, IV).
 */
function fittedLine(through: Vec3[], closed: boolean, ends: (Vec3 | undefined)[], within: number): Vec3[] {
  const own = through.filter((p, i) => i === 0 || apart(p, through[i - 1] as Vec3) > TOLERANCE.touch)
  if (closed && own.length > 1 && apart(own[0] as Vec3, own.at(-1) as Vec3) < TOLERANCE.touch) own.pop()
  if (own.length < 3) return own
  // Three rounds: the slopes of the second do not depend on the ends.
  const points = closed ? [...own, ...own, ...own, own[0] as Vec3] : own
  const h = points.slice(1).map((p, i) => apart(p, points[i] as Vec3))
  const slopes = [0, 1, 2].map((k) =>
    slopesOf(
      points.map((p) => p[k] as number),
      h,
      closed ? [] : ends.map((d) => d && direction(d)[k]),
    ),
  )
  const first = closed ? own.length : 0
  const at = (t: number): Vec3 => {
    const i = Math.min(points.length - 2, Math.floor(t))
    const [u, long] = [t - i, h[i] as number]
    return [0, 1, 2].map((k) => {
      const [a, b] = [points[i]?.[k] as number, points[i + 1]?.[k] as number]
      const [c, d] = [(slopes[k]?.[i] as number) * long, (slopes[k]?.[i + 1] as number) * long]
      return a + u * (c + u * (3 * (b - a) - 2 * c - d + u * (2 * (a - b) + c + d)))
    }) as Vec3
  }
  return sampled(
    at,
    Array.from({ length: closed ? own.length + 1 : own.length }, (_, i) => first + i),
    within,
  )
}

/** The slopes at the points of a cubic spline of one coordinate, by the gaps between them. */
function slopesOf(x: number[], h: number[], ends: (number | undefined)[]): number[] {
  const n = x.length
  const [low, middle, high, right]: [number[], number[], number[], number[]] = [[], [], [], []]
  const rise = (i: number) => ((x[i + 1] as number) - (x[i] as number)) / (h[i] as number)
  for (let i = 0; i < n; i++) {
    const isEnd = i === 0 || i === n - 1
    const told = isEnd ? ends[i === 0 ? 0 : 1] : undefined
    low[i] = i === 0 || told !== undefined ? 0 : isEnd ? 1 : (h[i] as number)
    middle[i] = told !== undefined ? 1 : isEnd ? 2 : 2 * ((h[i - 1] as number) + (h[i] as number))
    high[i] = i === n - 1 || told !== undefined ? 0 : isEnd ? 1 : (h[i - 1] as number)
    right[i] =
      told ??
      (isEnd ? 3 * rise(i === 0 ? 0 : n - 2) : 3 * ((h[i] as number) * rise(i - 1) + (h[i - 1] as number) * rise(i)))
  }
  for (let i = 1; i < n; i++) {
    const share = (low[i] as number) / (middle[i - 1] as number)
    middle[i] = (middle[i] as number) - share * (high[i - 1] as number)
    right[i] = (right[i] as number) - share * (right[i - 1] as number)
  }
  const slopes = new Array<number>(n).fill(0)
  for (let i = n - 1; i >= 0; i--)
    slopes[i] = ((right[i] as number) - (high[i] as number) * (slopes[i + 1] ?? 0)) / (middle[i] as number)
  return slopes
}

const apart = (a: Vec3, b: Vec3) => Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2])
const direction = (d: Vec3): Vec3 => {
  const long = Math.hypot(...d) || 1
  return [d[0] / long, d[1] / long, d[2] / long]
}

const all = (e: Entity, code: number): number[] => e.groups.flatMap(([c, v]) => (c === code ? [Number(v)] : []))
const pointsOf = (e: Entity, code: number): Vec3[] => {
  const [x, y, z] = [all(e, code), all(e, code + 10), all(e, code + 20)]
  return x.map((v, i): Vec3 => [v, y[i] ?? 0, z[i] ?? 0])
}
const isClosed = (points: Vec3[]): boolean => {
  const [a, b] = [points[0], points.at(-1)]
  return Boolean(a && b && points.length > 3 && Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]) < TOLERANCE.touch)
}
const asLine = (points: Vec3[]): DrawnLine =>
  isClosed(points) ? { points: points.slice(0, -1), closed: true } : { points, closed: false }

/** The line of a spline or an ellipse, where it lies; `within`: what its points may lie off it. Null where it cannot be told. */
export function curveOf(e: Entity, within: number): DrawnLine | null {
  if (e.type === 'SPLINE') {
    const through = pointsOf(e, 11)
    const spline = { degree: numberOf(e, 71, 3), knots: all(e, 40), points: pointsOf(e, 10), weights: all(e, 41) }
    if (spline.points.length === 0) {
      const closed = (numberOf(e, 70) & 1) !== 0
      const points =
        through.length > 1 ? fittedLine(through, closed, [pointsOf(e, 12)[0], pointsOf(e, 13)[0]], within) : null
      return points && asLine(points)
    }
    const points = splineLine(spline, within)
    return points && points.every((p) => p.every(Number.isFinite)) ? asLine(points) : null
  }
  const point = (k: number): Vec3 => [numberOf(e, k), numberOf(e, k + 10), numberOf(e, k + 20)]
  const [centre, major, ratio] = [point(10), point(11), numberOf(e, 40, 1)]
  const n: Vec3 = [numberOf(e, 210), numberOf(e, 220), numberOf(e, 230, 1)]
  const minor: Vec3 = [
    (n[1] * major[2] - n[2] * major[1]) * ratio,
    (n[2] * major[0] - n[0] * major[2]) * ratio,
    (n[0] * major[1] - n[1] * major[0]) * ratio,
  ]
  const from = numberOf(e, 41)
  const to = numberOf(e, 42, 2 * Math.PI)
  if (!(Math.hypot(...major) > 0 && ratio > 0)) return null
  return asLine(ellipseLine(centre, major, minor, from, to > from ? to : to + 2 * Math.PI, within))
}

/** The closed outlines of a hatch in its own plane: of its outer boundaries, or of its only one. */
export function hatchOutlines(e: Entity, within: number): Vec3[][] {
  const groups = e.groups
  const z = Number(groups.find(([c]) => c === 30)?.[1] ?? 0)
  let i = groups.findIndex(([c]) => c === 91)
  const count = Math.min(Number(groups[i]?.[1] ?? 0), 10_000)
  const paths: { outer: boolean; points: Vec3[] }[] = []
  const next = (code: number): number => {
    while (i < groups.length && groups[i]?.[0] !== code) i++
    return Number(groups[i++]?.[1] ?? NaN)
  }
  for (let k = 0; k < count && i >= 0 && i < groups.length; k++) {
    const flags = next(92)
    const points =
      (flags & 2) !== 0 ? polylinePath(next, z, () => groups[i]?.[0]) : edgePath(next, z, within, () => groups[i]?.[0])
    paths.push({ outer: (flags & 17) !== 0, points })
  }
  const outer = paths.filter((p) => p.outer || paths.length === 1)
  return outer.map(({ points }) => (isClosed(points) ? points.slice(0, -1) : points)).filter((p) => p.length >= 3)
}

type Next = (code: number) => number
type Peek = () => number | undefined
const MOST_CORNERS = 100_000

/** The boundary of a hatch as a polyline with bulges. */
function polylinePath(next: Next, z: number, peek: Peek): Vec3[] {
  const count = Math.min(next(93), MOST_CORNERS)
  const corners: { p: Vec3; bulge: number }[] = []
  for (let k = 0; k < count; k++) {
    const p: Vec3 = [next(10), next(20), z]
    corners.push({ p, bulge: peek() === 42 ? next(42) : 0 })
  }
  return withArcs(corners, true)
}

/** The boundary of a hatch as lines, arcs, ellipses and splines one after another. */
function edgePath(next: Next, z: number, within: number, peek: Peek): Vec3[] {
  const count = Math.min(next(93), MOST_CORNERS)
  const points: Vec3[] = []
  for (let k = 0; k < count; k++) {
    const kind = next(72)
    const edge = kind === 4 ? splineEdge(next, z, within, peek) : plainEdge(kind, next, z, within)
    for (const p of edge) {
      const last = points.at(-1)
      if (!last || gapOf([last[0], last[1]], [p[0], p[1]]) > TOLERANCE.touch) points.push(p)
    }
  }
  return points
}

function plainEdge(kind: number, next: Next, z: number, within: number): Vec3[] {
  const a: Vec3 = [next(10), next(20), z]
  if (kind === 1) return [a, [next(11), next(21), z]]
  const major: Vec3 = kind === 3 ? [next(11), next(21), 0] : [0, 0, 0]
  const size = next(40)
  const [from, to] = [(next(50) * Math.PI) / 180, (next(51) * Math.PI) / 180]
  // Clockwise, its angles count the other way round.
  const sign = next(73) === 0 ? -1 : 1
  if (kind === 3) return ellipseLine(a, major, [-major[1] * size, major[0] * size, 0], sign * from, sign * to, within)
  const end = (angle: number): [number, number] => [a[0] + size * Math.cos(angle), a[1] + size * Math.sin(angle)]
  const arc = arcBetween(end(sign * from), end(sign * to), Math.tan((sign * (to - from)) / 4))
  const whole = Math.abs(to - from) > 2 * Math.PI - TOLERANCE.slope
  if (whole) return ellipseLine(a, [size, 0, 0], [0, size, 0], sign * from, sign * to, within)
  return arc ? arcPoints(arc).map(([x, y]): Vec3 => [x, y, z]) : []
}

function splineEdge(next: Next, z: number, within: number, peek: Peek): Vec3[] {
  const [degree, rational] = [next(94), next(73)]
  const [knots, count] = [Math.min(next(95), MOST_CORNERS), Math.min(next(96), MOST_CORNERS)]
  const spline: Spline = { degree, knots: [], points: [], weights: [] }
  for (let k = 0; k < knots; k++) spline.knots.push(next(40))
  for (let k = 0; k < count; k++) {
    spline.points.push([next(10), next(20), z])
    spline.weights.push(rational && peek() === 42 ? next(42) : 1)
  }
  return splineLine(spline, within) ?? spline.points
}
