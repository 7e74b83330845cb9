import { gapOf, meetingOf, minus, type Vec2 } from '../solid'
import { circleThrough, offLine, sidesOf, type FitArc, type FitCircle, type FitLine } from './fit'

/** An arc goes over so many facets at least, and at most; they lie farther off its pixels than so many pixels, and as many times farther than it does. */
const FEWEST = 2
const MOST = 16
const FACETS_OFF = 1.5
const TIMES = 2.5

/**
 * The sides of a closed run of pixels, by the corners (indices of pixels) of its straight approximation: facets that follow one circle are
 * an arc, the longest first; all others are straight.
 */
export function sidesWithArcs(pixels: Vec2[], corners: number[]): FitLine[] {
  const n = corners.length
  const at = (k: number) => corners[((k % n) + n) % n] as number
  const taken = new Array<boolean>(n).fill(false)
  const arcs: { first: number; count: number; arc: FitArc; from: number; length: number }[] = []
  for (let count = Math.min(MOST, n - 1); count >= FEWEST; count--)
    for (let first = 0; first < n; first++) {
      const facets = Array.from({ length: count }, (_, k) => (first + k) % n)
      if (facets.some((f) => taken[f])) continue
      const arc = arcOver(pixels, corners, first, count)
      if (!arc) continue
      const grown = extended(pixels, arc, at(first), lengthOf(pixels, at(first), at(first + count)))
      arcs.push({ first, count, arc: { ...arc, ends: endsOf(pixels, grown) }, ...grown })
      for (const f of facets) taken[f] = true
    }
  if (arcs.length === 0) return sidesOf(pixels, corners)
  return withArcs(pixels, corners, taken, arcs)
}

/** The sides in order: an arc where its first facet was, lines of what arcs leave of the other facets. */
function withArcs(
  pixels: Vec2[],
  corners: number[],
  taken: readonly boolean[],
  arcs: readonly { first: number; arc: FitArc; from: number; length: number }[],
): FitLine[] {
  const n = corners.length
  const isOfArc = new Uint8Array(pixels.length)
  for (const { from, length } of arcs) for (let k = 0; k < length; k++) isOfArc[(from + k) % pixels.length] = 1
  return corners.flatMap((from, i): FitLine[] => {
    const arc = arcs.find((a) => a.first === i)
    if (arc) {
      const [a, b] = arc.arc.ends
      const long = gapOf(a, b) || 1
      const way: Vec2 = [(b[0] - a[0]) / long, (b[1] - a[1]) / long]
      return [{ at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], way, weight: arc.length, arc: arc.arc }]
    }
    if (taken[i]) return []
    const length = lengthOf(pixels, from, corners[(i + 1) % n] as number)
    const own = Array.from({ length: length + 1 }, (_, k) => (from + k) % pixels.length).filter((p) => !isOfArc[p])
    // What arcs leave of it is too little for a side: they meet there.
    if (own.length < Math.max(8, length / 4)) return []
    return sidesOf(pixels, [own[0] as number, own.at(-1) as number]).slice(0, 1)
  })
}

/** The arc that some facets follow; null where they do not, or are nearly as good. */
function arcOver(pixels: Vec2[], corners: number[], first: number, count: number): FitArc | null {
  const n = corners.length
  const [from, to] = [corners[first % n] as number, corners[(first + count) % n] as number]
  const length = lengthOf(pixels, from, to)
  // The corners at its ends may lie a little beyond it.
  const inset = Math.max(2, Math.floor(length * 0.04))
  if (length < 6 * inset) return null
  const run = Array.from({ length: length - 2 * inset }, (_, k) => pixels[(from + inset + k) % pixels.length] as Vec2)
  const circle = circleThrough(run)
  if (!circle) return null
  const off = meanOff(run, (p) => Math.abs(gapOf(p, circle.at) - circle.r))
  let facets = 0
  for (let k = 0; k < count; k++) {
    const [a, b] = [corners[(first + k) % n] as number, corners[(first + k + 1) % n] as number]
    const [p, q] = [pixels[a] as Vec2, pixels[b] as Vec2]
    const long = gapOf(p, q) || 1
    const chord: FitLine = { at: p, way: [(q[0] - p[0]) / long, (q[1] - p[1]) / long], weight: 1 }
    const own = Array.from({ length: lengthOf(pixels, a, b) }, (_, m) => pixels[(a + m) % pixels.length] as Vec2)
    const facet = meanOff(own, (x) => Math.abs(offLine(chord, x)))
    // A straight facet at either end does not belong to it.
    if (facet < FACETS_OFF) return null
    facets += facet / count
  }
  if (facets < TIMES * off) return null
  const middle = run[run.length >> 1] as Vec2
  const [a, b] = [run[0] as Vec2, run.at(-1) as Vec2]
  const [u, w] = [minus(middle, a), minus(b, middle)]
  return { ...circle, turn: u[0] * w[1] - u[1] * w[0] > 0 ? 1 : -1, ends: [a, b] }
}

/** As many pixels on either side as lie on the arc too. */
function extended(pixels: Vec2[], arc: FitCircle, from: number, length: number): { from: number; length: number } {
  const n = pixels.length
  const isOn = (k: number) =>
    Math.abs(gapOf(pixels[((k % n) + n) % n] as Vec2, arc.at) - arc.r) < Math.max(1.5, 0.008 * arc.r)
  let [a, b] = [from, from + length]
  while (a < b && !isOn(a)) a++
  while (b > a && !isOn(b)) b--
  while (b - a < n - 1 && isOn(a - 1)) a--
  while (b - a < n - 1 && isOn(b + 1)) b++
  return { from: ((a % n) + n) % n, length: b - a + 1 }
}

const endsOf = (pixels: Vec2[], { from, length }: { from: number; length: number }): [Vec2, Vec2] => [
  pixels[from] as Vec2,
  pixels[(from + length - 1) % pixels.length] as Vec2,
]

const lengthOf = (pixels: Vec2[], from: number, to: number): number =>
  (to - from + pixels.length) % pixels.length || pixels.length

const meanOff = (points: readonly Vec2[], off: (p: Vec2) => number): number =>
  Math.sqrt(points.reduce((sum, p) => sum + off(p) ** 2, 0) / points.length)

/** Where neighbouring sides meet: where they cross, or touch, nearest to where the pixels turn. */
export const cornersOf = (sides: readonly FitLine[]): Vec2[] =>
  sides.map((a, i): Vec2 => {
    const b = sides[(i + 1) % sides.length] as FitLine
    if (a.arc && b.arc) return arcsMeet(a.arc, b.arc)
    if (a.arc) return lineMeets(b, a.arc, a.arc.ends[1])
    if (b.arc) return lineMeets(a, b.arc, b.arc.ends[0])
    return meetingOf(a.at, a.way, b.at, b.way, 0.02) ?? [(a.at[0] + b.at[0]) / 2, (a.at[1] + b.at[1]) / 2]
  })

function lineMeets(line: FitLine, { at, r }: FitArc, near: Vec2): Vec2 {
  const off = offLine(line, at)
  const along = (at[0] - line.at[0]) * line.way[0] + (at[1] - line.at[1]) * line.way[1]
  const point = (t: number): Vec2 => [line.at[0] + t * line.way[0], line.at[1] + t * line.way[1]]
  // Nearly tangent it touches.
  if (Math.abs(off) > r - Math.max(1.5, 0.01 * r)) return point(along)
  const half = Math.sqrt(r * r - off * off)
  const [p, q] = [point(along - half), point(along + half)]
  return gapOf(p, near) < gapOf(q, near) ? p : q
}

function arcsMeet(a: FitArc, b: FitArc): Vec2 {
  const near: Vec2 = [(a.ends[1][0] + b.ends[0][0]) / 2, (a.ends[1][1] + b.ends[0][1]) / 2]
  const d = gapOf(a.at, b.at)
  const along = d > 0 ? (d * d + a.r * a.r - b.r * b.r) / (2 * d) : 0
  const half2 = a.r * a.r - along * along
  if (d < 1) return near
  const way: Vec2 = [(b.at[0] - a.at[0]) / d, (b.at[1] - a.at[1]) / d]
  const foot: Vec2 = [a.at[0] + along * way[0], a.at[1] + along * way[1]]
  const half = Math.sqrt(Math.max(0, half2))
  const [p, q]: [Vec2, Vec2] = [
    [foot[0] - half * way[1], foot[1] + half * way[0]],
    [foot[0] + half * way[1], foot[1] - half * way[0]],
  ]
  return gapOf(p, near) < gapOf(q, near) ? p : q
}

/** The bulge of an arc between two corners: the tangent of a quarter of what it sweeps, above zero where it turns left. */
export function bulgeOf({ at, turn }: FitArc, from: Vec2, to: Vec2): number {
  const angle = (p: Vec2) => Math.atan2(p[1] - at[1], p[0] - at[0])
  const swept = turn * (angle(to) - angle(from))
  return turn * Math.tan((swept - Math.floor(swept / (2 * Math.PI)) * 2 * Math.PI) / 4)
}
