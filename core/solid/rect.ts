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
  let x0 = Infinity
  let y0 = Infinity
  let x1 = -Infinity
  let y1 = -Infinity
  for (const loop of region)
    for (const p of loop) {
      if (p[0] < x0) x0 = p[0]
      if (p[0] > x1) x1 = p[0]
      if (p[1] < y0) y0 = p[1]
      if (p[1] > y1) y1 = p[1]
    }
  return { x0, y0, x1, y1 }
}

/** Things by their extents in plan, so that those near a place are found without going through all. */
export class RectIndex<T> {
  private readonly tiles = new Map<string, { rect: Rect; thing: T; order: number }[]>()
  private readonly side: number

  /** `side`: m of the tiles that they are sorted into; as wide as most of the things */
  constructor(things: readonly { rect: Rect; thing: T }[], side: number) {
    this.side = side
    for (const [order, { rect, thing }] of things.entries())
      for (const tile of this.tilesOf(rect)) {
        const list = this.tiles.get(tile)
        if (list) list.push({ rect, thing, order })
        else this.tiles.set(tile, [{ rect, thing, order }])
      }
  }

  /** Those that overlap a rectangle, or touch it, in the order in which they were given. */
  meeting(rect: Rect): T[] {
    const found = new Map<number, T>()
    for (const tile of this.tilesOf(rect))
      for (const { rect: own, thing, order } of this.tiles.get(tile) ?? [])
        if (rectsMeet(own, rect)) found.set(order, thing)
    return [...found].sort(([a], [b]) => a - b).map(([, thing]) => thing)
  }

  private *tilesOf({ x0, y0, x1, y1 }: Rect): Generator<string> {
    const at = (c: number) => Math.floor(c / this.side)
    const by = TOLERANCE.point
    for (let i = at(x0 - by); i <= at(x1 + by); i++) for (let k = at(y0 - by); k <= at(y1 + by); k++) yield `${i} ${k}`
  }
}

/** Returns true when two rectangles overlap, or come closer than `by` m; below zero: overlap by more than that. */
export const rectsMeet = (a: Rect, b: Rect, by: number = TOLERANCE.point): boolean =>
  a.x0 <= b.x1 + by && b.x0 <= a.x1 + by && a.y0 <= b.y1 + by && b.y0 <= a.y1 + by
