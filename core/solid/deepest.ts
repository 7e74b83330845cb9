import type { Vec2 } from './place'
import { rectOf, type Region } from './rect'

interface Cell {
  x: number
  y: number
  /** half the side, m */ half: number
  /** m from the edge; below zero: outside */ depth: number
  /** no place in it is farther from the edge, m */ most: number
}

/**
 * The place in a piece (an outline with its holes) that is farthest from its edge, and how far: m, to within `within`. Squares that
 * may hold a better place are quartered. How far a place is from one side is a convex function, and so is the mean of two: over a
 * square they are greatest at a corner, which bounds the nearer of two sides; for a long bar between two parallel sides that bound is
 * the very depth. Nothing: null.
 */
export function deepestIn(piece: Region, within: number): { at: Vec2; depth: number } | null {
  const sides = sidesOf(piece)
  if (sides.length === 0) return null
  const { x0, y0, x1, y1 } = rectOf(piece)
  let best = { x: (x0 + x1) / 2, y: (y0 + y1) / 2, depth: -Infinity }
  const cells: Cell[] = [{ ...best, half: Math.max(x1 - x0, y1 - y0) / 2, most: Infinity }]
  for (let cell = cells.pop(); cell; cell = cells.pop()) {
    if (cell.most <= best.depth + within) continue
    const h = cell.half / 2
    const quarters: Cell[] = []
    for (let k = 0; k < 4; k++) {
      const [x, y] = [cell.x + (k & 1 ? h : -h), cell.y + (k & 2 ? h : -h)]
      const depth = depthAt(sides, x, y)
      if (depth > best.depth) best = h < depth / 2 ? climbed(sides, { x, y, depth }, h, within / 4) : { x, y, depth }
      quarters.push({ x, y, half: h, depth, most: depth + h * Math.SQRT2 })
    }
    for (const q of quarters) if (q.most > best.depth + within && h < best.depth / 2) q.most = mostIn(sides, q)
    // The most promising one is looked at next.
    quarters.sort((a, b) => a.most - b.most)
    for (const q of quarters) if (q.most > best.depth + within) cells.push(q)
  }
  if (best.depth <= 0) return null
  const { x, y, depth } = climbed(sides, best, within, within / 1000)
  return { at: [x, y], depth }
}

/** The sides of a piece, four numbers each. */
function sidesOf(piece: Region): Float64Array {
  const sides = new Float64Array(4 * piece.reduce((n, loop) => n + loop.length, 0))
  let n = 0
  for (const loop of piece)
    for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
      const [a, b] = [loop[j] as Vec2, loop[i] as Vec2]
      sides.set([a[0], a[1], b[0], b[1]], n)
      n += 4
    }
  return sides
}

/** The square of m between a place and a side. */
function squaredOff(s: Float64Array, i: number, x: number, y: number): number {
  const [ax, ay] = [s[i] as number, s[i + 1] as number]
  const [dx, dy] = [(s[i + 2] as number) - ax, (s[i + 3] as number) - ay]
  const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)))
  const [ox, oy] = [x - ax - dx * t, y - ay - dy * t]
  return ox * ox + oy * oy
}

/** m from the edge; below zero outside. */
function depthAt(s: Float64Array, x: number, y: number): number {
  let least = Infinity
  let holds = false
  for (let i = 0; i < s.length; i += 4) {
    const [ax, ay, bx, by] = [s[i] as number, s[i + 1] as number, s[i + 2] as number, s[i + 3] as number]
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) holds = !holds
    least = Math.min(least, squaredOff(s, i, x, y))
  }
  return holds ? Math.sqrt(least) : -Math.sqrt(least)
}

/** m: a bound of how far a place in a square is from the nearest of the sides. */
function mostIn(s: Float64Array, { x, y, half, depth, most }: Cell): number {
  const near: number[][] = []
  let nearest: number[] = []
  for (let i = 0; i < s.length; i += 4) {
    // What is farther off than any place's nearest side can be bounds nothing.
    const off = Math.sqrt(squaredOff(s, i, x, y))
    if (off > depth + 3 * half * Math.SQRT2) continue
    const corners = CORNERS.map(([cx, cy]) => Math.sqrt(squaredOff(s, i, x + cx * half, y + cy * half)))
    near.push(corners)
    if (off === depth) nearest = corners
  }
  return near.reduce((least, d) => {
    let [alone, both] = [0, 0]
    for (let k = 0; k < 4; k++) {
      alone = Math.max(alone, d[k] as number)
      both = Math.max(both, ((d[k] as number) + (nearest[k] ?? Infinity)) / 2)
    }
    return Math.min(least, alone, both)
  }, most)
}
const CORNERS = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
] as const

/** A better place near one, by steps that are halved where none leads up. */
function climbed(s: Float64Array, from: Pick<Cell, 'x' | 'y' | 'depth'>, step: number, least: number) {
  let best = from
  for (let size = step; size > least;) {
    let next = best
    for (const [wx, wy] of WAYS) {
      const [x, y] = [best.x + wx * size, best.y + wy * size]
      const depth = depthAt(s, x, y)
      if (depth > next.depth) next = { x, y, depth }
    }
    if (next.depth > best.depth + least / 4) best = next
    else size /= 2
  }
  return best
}
const WAYS = Array.from({ length: 8 }, (_, i): Vec2 => [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)])
