import type { Vec2 } from './place'
import { TOLERANCE } from '../values'

/** A part of the plan: closed loops in metres, outer ones counter-clockwise, holes clockwise. */
export type Region = Vec2[][]

/** An extent in plan, m. */
export interface Rect {
  x0: number
  y0: number
  x1: number
  y1: number
}

/** The least upright rectangle about a region, m; one without extent about nothing. */
export function rectOf(region: Region): Rect {
  const rect = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity }
  for (const loop of region)
    for (const [x, y] of loop) {
      rect.x0 = Math.min(rect.x0, x)
      rect.y0 = Math.min(rect.y0, y)
      rect.x1 = Math.max(rect.x1, x)
      rect.y1 = Math.max(rect.y1, y)
    }
  return rect
}

/** Returns true when two rectangles overlap, or come closer than `by` m; below zero: overlap by more than that. */
export const rectsMeet = (a: Rect, b: Rect, by: number = TOLERANCE.point): boolean =>
  a.x0 <= b.x1 + by && b.x0 <= a.x1 + by && a.y0 <= b.y1 + by && b.y0 <= a.y1 + by
