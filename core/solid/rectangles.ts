import { TOLERANCE } from '../values'
import type { Rect, Region } from './rect'

/** A region that is one upright rectangle (its sides run along x and y), as that; null where it is another shape. */
export function uprightOf(region: Region): Rect | null {
  const [loop, more] = region
  if (!loop || more || loop.length !== 4) return null
  const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = loop as unknown as [
    [number, number],
    [number, number],
    [number, number],
    [number, number],
  ]
  const is = (a: number, b: number) => Math.abs(a - b) < TOLERANCE.rounding
  const alongX = is(y0, y1) && is(x1, x2) && is(y2, y3) && is(x3, x0)
  if (!alongX && !(is(x0, x1) && is(y1, y2) && is(x2, x3) && is(y3, y0))) return null
  // Clockwise ones are holes.
  if ((x1 - x0) * (y2 - y1) - (y1 - y0) * (x2 - x1) <= 0) return null
  return { x0: Math.min(x0, x2), x1: Math.max(x0, x2), y0: Math.min(y0, y2), y1: Math.max(y0, y2) }
}

/**
 * What two upright rectangles have in common, or what the second leaves of the first; sides within the tolerance of touch are the same.
 * Null where what is left is no rectangle: that is for the kernel.
 */
export function combinedUpright(a: Rect, b: Rect, how: 'intersect' | 'subtract'): Region | null {
  const met = (v: number, ...to: number[]) => to.find((t) => Math.abs(t - v) < TOLERANCE.touch) ?? v
  const x0 = Math.max(a.x0, met(b.x0, a.x0, a.x1))
  const x1 = Math.min(a.x1, met(b.x1, a.x0, a.x1))
  const y0 = Math.max(a.y0, met(b.y0, a.y0, a.y1))
  const y1 = Math.min(a.y1, met(b.y1, a.y0, a.y1))
  const isCommon = x1 > x0 && y1 > y0
  if (how === 'intersect') return isCommon ? rectangle(x0, y0, x1, y1) : []
  if (!isCommon) return rectangle(a.x0, a.y0, a.x1, a.y1)
  if (y0 === a.y0 && y1 === a.y1) return [...rectangle(a.x0, a.y0, x0, a.y1), ...rectangle(x1, a.y0, a.x1, a.y1)]
  if (x0 === a.x0 && x1 === a.x1) return [...rectangle(a.x0, a.y0, a.x1, y0), ...rectangle(a.x0, y1, a.x1, a.y1)]
  return null
}

function rectangle(x0: number, y0: number, x1: number, y1: number): Region {
  if ((x1 - x0) * (y1 - y0) <= TOLERANCE.area) return []
  return [
    [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ],
  ]
}
