import { gapOf, type Vec2 } from '../solid'
import { TOLERANCE, type Numbers } from '../values'
import type { Pair, Picture } from './schema'

/**
 * A picture's scale: m to a pixel, the tilt that is taken off (degrees, above zero where the picture rises to the right), and how well
 * its pairs agree.
 */
export interface Calibration {
  scale: number
  tilt: number
  /** for each pair, what the picture says less what was typed, m */
  off: number[]
  /** the root of the mean square of `off`, m, and in percent of the typed lengths */
  rms: number
  percent: number
}

/** m to a pixel of a picture that nobody has calibrated: 150 dots to an inch of a drawing at 1:100. */
const UNCALIBRATED = (0.0254 / 150) * 100

/**
 * The scale by least squares over all pairs (the sum of (scale * pixels - length)^2 is least), and the tilt as the mean of those that
 * are said to lie level or plumb. null where there is no pair.
 */
export function calibrate(picture: Pick<Picture, 'pairs'>, numbers: Numbers): Calibration | null {
  if (picture.pairs.length === 0) return null
  const pairs = picture.pairs.map((p) => ({ ...p, px: gapOf(p.b, p.a), m: numbers.length(p.length) }))
  const scale = pairs.reduce((sum, p) => sum + p.px * p.m, 0) / pairs.reduce((sum, p) => sum + p.px * p.px, 0)
  const off = pairs.map((p) => scale * p.px - p.m)
  const rms = Math.sqrt(off.reduce((sum, o) => sum + o * o, 0) / off.length)
  const mean = Math.sqrt(pairs.reduce((sum, p) => sum + p.m * p.m, 0) / pairs.length)
  return { scale, tilt: meanTilt(pairs) ?? 0, off, rms, percent: (100 * rms) / mean }
}

/**
 * The mean tilt (degrees, above -90 up to 90) of the pairs that are said to lie level or plumb, weighted by their pixels; null where
 * there is none. Tilts are directions without a sense, so the mean is that of the doubled angles: 89 and -89 degrees give 90, not 0.
 */
function meanTilt(pairs: readonly Pick<Pair, 'a' | 'b' | 'lies'>[]): number | null {
  let [c, s] = [0, 0]
  for (const p of pairs) {
    if (p.lies === 'anyhow') continue
    const doubled = (tiltOf(p.a, p.b, p.lies === 'plumb') * Math.PI) / 90
    c += gapOf(p.b, p.a) * Math.cos(doubled)
    s += gapOf(p.b, p.a) * Math.sin(doubled)
  }
  return c === 0 && s === 0 ? null : asTilt((Math.atan2(s, c) * 90) / Math.PI)
}

/** Degrees as a tilt: above -90, up to 90. */
function asTilt(degrees: number): number {
  const turned = ((degrees % 180) + 180) % 180
  return turned > 90 + TOLERANCE.rounding ? turned - 180 : turned
}

/** Degrees: beyond this tilt the first level or plumb pair of a picture is asked about; few sheets lie more crooked in a scan. */
const CROOKED = 10
/** Degrees that a pair may differ from the tilt of the others before it is asked about. */
const DISAGREES = 5

/** Why a pair that is told to lie level or plumb is asked about. */
export interface PairDoubt {
  /** degrees that the pair tilts the picture */
  tilt: number
  /** degrees that the picture's other pairs tilt it; null where they say nothing of it */
  others: number | null
  /** how the pair would agree: the other of level and plumb, or neither */
  better: Pair['lies']
}

/** Whether a pair contradicts what is told of it: it tilts the picture by far, or otherwise than the other pairs do. */
export function doubtOf(others: readonly Pair[], pair: Pair): PairDoubt | null {
  if (pair.lies === 'anyhow') return null
  const tilt = tiltOf(pair.a, pair.b, pair.lies === 'plumb')
  const mean = meanTilt(others)
  const limit = mean === null ? CROOKED : DISAGREES
  if (Math.abs(asTilt(tilt - (mean ?? 0))) <= limit) return null
  const other = pair.lies === 'level' ? 'plumb' : 'level'
  const agrees = Math.abs(asTilt(tiltOf(pair.a, pair.b, other === 'plumb') - (mean ?? 0))) <= limit
  return { tilt, others: mean, better: agrees ? other : 'anyhow' }
}

/** Degrees that a line is turned from the level, or from plumb, counter-clockwise; whichever end comes first. */
export function tiltOf(a: Vec2, b: Vec2, plumb = false): number {
  const degrees = (Math.atan2(a[1] - b[1], b[0] - a[0]) * 180) / Math.PI - (plumb ? 90 : 0)
  return asTilt(degrees)
}

/** How pixels become metres in the picture's own plane: right and up from the picture's upper left corner. */
export interface Scaling {
  scale: number
  c: number
  s: number
}

/** How pixels of a picture become metres, and which way they are turned: by its pairs, or by a usual scale while it has none. */
export function scalingOf(picture: Pick<Picture, 'pairs' | 'turn'>, numbers: Numbers): Scaling {
  const found = calibrate(picture, numbers)
  const by = ((numbers.angle(picture.turn) - (found?.tilt ?? 0)) * Math.PI) / 180
  return { scale: found?.scale ?? UNCALIBRATED, c: Math.cos(by), s: Math.sin(by) }
}

/** A pixel in metres right and up from the picture's upper left corner. */
export function fromPixel({ scale, c, s }: Scaling, [x, y]: readonly number[]): Vec2 {
  const [u, w] = [(x ?? 0) * scale, -(y ?? 0) * scale]
  return [u * c - w * s, u * s + w * c]
}

/** The pixel of a point in metres right and up from the picture's upper left corner. */
export function toPixel({ scale, c, s }: Scaling, [u, w]: Vec2): Vec2 {
  return [(u * c + w * s) / scale, -(-u * s + w * c) / scale]
}
