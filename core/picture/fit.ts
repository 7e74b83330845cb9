import { type Vec2, gapOf } from '../solid'

/**
 * A side: a straight line through `at` along `way` (unit length), and how many pixels it stands for; or, where `arc` is there, an arc, and
 * the line that of its chord.
 */
export interface FitLine {
  at: Vec2
  way: Vec2
  weight: number
  arc?: FitArc
}

/** A circle: its middle and radius, pixels. */
export interface FitCircle {
  at: Vec2
  r: number
}

/** An arc of a circle: whether it turns left (1) or right (-1), and about where it ends. */
export interface FitArc extends FitCircle {
  turn: 1 | -1
  ends: [Vec2, Vec2]
}

/**
 * The straight sides of a closed run of pixels, whose corners lie near the pixels `corners` (by index), fitted by least squares away from
 * the corners.
 */
export function sidesOf(pixels: Vec2[], corners: number[]): FitLine[] {
  return corners.map((from, i) => {
    const to = corners[(i + 1) % corners.length] as number
    const n = (to - from + pixels.length) % pixels.length || pixels.length
    const inset = Math.min(Math.floor(n / 4), Math.max(2, Math.floor(n * 0.08)))
    const run = Array.from(
      { length: Math.max(2, n + 1 - 2 * inset) },
      (_, k) => pixels[(from + inset + k) % pixels.length] as Vec2,
    )
    return trimmed(run)
  })
}

/** A line through points, once more without those that lie farther off than twice the usual: specks, and ink that ran. */
function trimmed(points: Vec2[]): FitLine {
  const first = through(points)
  const off = points.map((p) => Math.abs(offLine(first, p)))
  const usual = Math.sqrt(off.reduce((sum, o) => sum + o * o, 0) / off.length)
  const kept = points.filter((_, i) => (off[i] ?? 0) <= Math.max(1, 2 * usual))
  return kept.length >= 2 ? { ...through(kept), weight: points.length } : first
}

/** The line of least squares (at a right angle to it) through points. */
function through(points: Vec2[]): FitLine {
  const n = points.length
  const at: Vec2 = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n]
  let [xx, xy, yy] = [0, 0, 0]
  for (const p of points) {
    const [x, y] = [p[0] - at[0], p[1] - at[1]]
    xx += x * x
    xy += x * y
    yy += y * y
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2
  return { at, way: [Math.cos(angle), Math.sin(angle)], weight: n }
}

/** How far a point lies off a line, in pixels; above zero to its left. */
export const offLine = (line: FitLine, p: Vec2): number =>
  (p[1] - line.at[1]) * line.way[0] - (p[0] - line.at[0]) * line.way[1]

/**
 * Sides within `within` degrees of the two main directions are turned into them, about their middles. Main is the direction, and its
 * square, that most of the length has.
 */
export function squared(sides: FitLine[], within: number, main = mainDirection(sides)): FitLine[] {
  return sides.map((side) => {
    if (side.arc) return side
    const turned = Math.atan2(side.way[1], side.way[0]) - main
    const off = turned - Math.round(turned / (Math.PI / 2)) * (Math.PI / 2)
    if (Math.abs(off) > (within * Math.PI) / 180) return side
    const true_ = main + Math.round(turned / (Math.PI / 2)) * (Math.PI / 2)
    return { ...side, way: [Math.cos(true_), Math.sin(true_)] }
  })
}

/** Degrees about a direction within which sides count for it. */
const NEAR_MAIN = 6

/**
 * The main direction, radians: most of the length lies near it or square to it. A long slanting side counts for a direction of its own, so
 * that it does not turn the square sides.
 */
export function mainDirection(all: FitLine[]): number {
  const sides = all.filter((s) => !s.arc)
  const angles = sides.map((s) => Math.atan2(s.way[1], s.way[0]))
  /** radians from one direction to another, up to an eighth of a turn either way */
  const between = (a: number, b: number) => a - b - Math.round((a - b) / (Math.PI / 2)) * (Math.PI / 2)
  const near = (main: number) =>
    sides.flatMap((s, i) => {
      const off = between(angles[i] ?? 0, main)
      return Math.abs(off) <= (NEAR_MAIN * Math.PI) / 180 ? [{ off, weight: s.weight ** 2 }] : []
    })
  const lengthNear = (main: number) => near(main).reduce((sum, n) => sum + Math.sqrt(n.weight), 0)
  const best = angles.reduce((most, a) => (lengthNear(a) > lengthNear(most) ? a : most), angles[0] ?? 0)
  const own = near(best)
  const weight = own.reduce((sum, n) => sum + n.weight, 0)
  return weight > 0 ? best + own.reduce((sum, n) => sum + n.off * n.weight, 0) / weight : best
}

/**
 * The sides without those shorter than `short` pixels (specks on the line, rounded corners), and with those that go on in one line
 * (within `apart` pixels) as one.
 */
export function plainSides(all: FitLine[], short: number, apart: number): FitLine[] {
  const long = all.filter((s) => s.arc !== undefined || s.weight >= short)
  const sides = long.length >= 3 || long.some((s) => s.arc) ? long : [...all]
  for (let i = 0; i < sides.length && sides.length > 3;) {
    const k = (i + 1) % sides.length
    const [a, b] = [sides[i] as FitLine, sides[k] as FitLine]
    if (
      a.arc ||
      b.arc ||
      Math.abs(a.way[0] * b.way[1] - a.way[1] * b.way[0]) > 0.06 ||
      Math.abs(offLine(a.weight >= b.weight ? a : b, a.weight >= b.weight ? b.at : a.at)) > apart
    ) {
      i++
      continue
    }
    const w = a.weight + b.weight
    sides[i] = {
      at: [(a.at[0] * a.weight + b.at[0] * b.weight) / w, (a.at[1] * a.weight + b.at[1] * b.weight) / w],
      way: a.weight >= b.weight ? a.way : b.way,
      weight: w,
    }
    sides.splice(k, 1)
    i = Math.max(0, i - 1)
  }
  return sides
}

/** Each side of a loop that runs to the left about what it encloses (1), or to the right (-1), moved by its own `by` away from it. */
export function spread(sides: FitLine[], corners: Vec2[], by: readonly number[], round: 1 | -1): FitLine[] {
  return sides.map((side, i) => {
    const { arc } = side
    if (arc) return { ...side, arc: { ...arc, r: arc.r + arc.turn * round * (by[i] ?? 0) } }
    const [a, b] = [corners[i] as Vec2, corners[(i + 1) % corners.length] as Vec2]
    const long = gapOf(b, a) || 1
    const out = round * (by[i] ?? 0)
    return { ...side, at: [side.at[0] + (out * (b[1] - a[1])) / long, side.at[1] - (out * (b[0] - a[0])) / long] }
  })
}

/**
 * Half of the stroke's width at each side of a loop, pixels: half of the gap to the nearest parallel side beyond it. `usual` where none lies
 * within eight times of it.
 */
export function halfInk(sides: FitLine[], others: readonly FitLine[], usual: number): number[] {
  const middle: Vec2 = [
    sides.reduce((sum, s) => sum + s.at[0], 0) / sides.length,
    sides.reduce((sum, s) => sum + s.at[1], 0) / sides.length,
  ]
  return sides.map((side) => {
    if (side.arc) return halfBeside(side.arc, others, usual)
    const inner = Math.sign(offLine(side, middle)) || 1
    const gaps = others.flatMap((o) => {
      if (o.arc || Math.abs(o.way[0] * side.way[1] - o.way[1] * side.way[0]) > 0.1) return []
      // Above zero beyond the side; beside one another where they overlap along it.
      const beyond = -inner * offLine(side, o.at)
      const along = Math.abs((o.at[0] - side.at[0]) * side.way[0] + (o.at[1] - side.at[1]) * side.way[1])
      return beyond > 0 && beyond < 8 * usual && along < (o.weight + side.weight) / 2 ? [beyond] : []
    })
    return gaps.length ? Math.min(...gaps) / 2 : usual
  })
}

/** Half of the gap from an arc to the nearest one about its middle; `usual` where there is none. */
function halfBeside(arc: FitArc, others: readonly FitLine[], usual: number): number {
  const gaps = others.flatMap(({ arc: o }) => {
    const gap = o ? Math.abs(o.r - arc.r) : 0
    // What goes on along the same arc is no other side of the ink.
    return o && gapOf(o.at, arc.at) < Math.max(4, usual) && gap > usual / 2 && gap < 8 * usual ? [gap] : []
  })
  return gaps.length ? Math.min(...gaps) / 2 : usual
}

/**
 * The circle of least squares (of x2 + y2 + ax + by + c: I. Kasa, 1976) through a closed run of pixels. Null where the pixels lie farther off
 * it than a hand-drawn line does.
 */
export function circleThrough(pixels: readonly Vec2[]): FitCircle | null {
  const n = pixels.length
  const [mx, my] = [pixels.reduce((s, p) => s + p[0], 0) / n, pixels.reduce((s, p) => s + p[1], 0) / n]
  let [xx, yy, xy, xr, yr, rr] = [0, 0, 0, 0, 0, 0]
  for (const p of pixels) {
    const [x, y] = [p[0] - mx, p[1] - my]
    const d = x * x + y * y
    xx += x * x
    yy += y * y
    xy += x * y
    xr += x * d
    yr += y * d
    rr += d
  }
  const det = xx * yy - xy * xy
  if (!(det > 0)) return null
  const [x, y] = [(xr * yy - yr * xy) / (2 * det), (yr * xx - xr * xy) / (2 * det)]
  const at: Vec2 = [mx + x, my + y]
  const r = Math.sqrt(rr / n + x * x + y * y)
  const off = pixels.map((p) => Math.abs(gapOf(p, at) - r)).sort((a, b) => a - b)
  return (off[Math.floor(0.95 * (n - 1))] ?? Infinity) <= Math.max(1.2, 0.012 * r) ? { at, r } : null
}
