import { gapOf, type Vec2 } from '../solid'
import type { Numbers } from '../values'
import type { Picture } from './schema'

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
 * are said to lie level or plumb, weighted by their length. null where there is no pair.
 */
export function calibrate(picture: Pick<Picture, 'pairs'>, numbers: Numbers): Calibration | null {
  if (picture.pairs.length === 0) return null
  const pairs = picture.pairs.map((p) => ({ ...p, px: gapOf(p.b, p.a), m: numbers.length(p.length) }))
  const scale = pairs.reduce((sum, p) => sum + p.px * p.m, 0) / pairs.reduce((sum, p) => sum + p.px * p.px, 0)
  const off = pairs.map((p) => scale * p.px - p.m)
  const rms = Math.sqrt(off.reduce((sum, o) => sum + o * o, 0) / off.length)
  const mean = Math.sqrt(pairs.reduce((sum, p) => sum + p.m * p.m, 0) / pairs.length)
  const tilts = pairs
    .filter((p) => p.lies !== 'anyhow')
    .map((p) => ({ tilt: tiltOf(p.a, p.b, p.lies === 'plumb'), px: p.px }))
  const weight = tilts.reduce((sum, t) => sum + t.px, 0)
  return {
    scale,
    tilt: weight ? tilts.reduce((sum, t) => sum + t.tilt * t.px, 0) / weight : 0,
    off,
    rms,
    percent: (100 * rms) / mean,
  }
}

/** Degrees that a line is turned from the level, or from plumb, counter-clockwise; whichever end comes first. */
export function tiltOf(a: Vec2, b: Vec2, plumb = false): number {
  const degrees = (Math.atan2(a[1] - b[1], b[0] - a[0]) * 180) / Math.PI - (plumb ? 90 : 0)
  const turned = ((degrees % 180) + 180) % 180
  return turned > 90 ? turned - 180 : turned
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
