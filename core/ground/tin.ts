import Constrainautor from './constrain.js'
import Delaunator from 'delaunator'
import { TOLERANCE, type Vec2 } from '../solid'
import { refuse } from '../values'
import { splitLines } from './break-lines'
import { FewEdges } from './few-edges'
import type { Survey } from './survey'

/** Triangulated ground: points, triangles (counter-clockwise from above), and a grid that finds the triangle at a place. m */
export interface Tin {
  points: Float64Array
  triangles: Uint32Array
  low: number
  high: number
  grid: Grid
  /** lines that could not be kept whole, by number */ lost: number
}
export interface Grid {
  x0: number
  y0: number
  cell: number
  nx: number
  ny: number
  start: Uint32Array
  items: Uint32Array
}

/** Triangulates a survey; the lines' pieces are sides of triangles. Errors: 'geometry' for fewer than three points, or all in a line. */
export function triangulateSurvey(survey: Survey): Tin {
  const { points, segments } = splitLines(survey)
  const n = points.length / 3
  if (n < 3)
    return refuse(
      'geometry',
      `The survey has ${n} ${n === 1 ? 'point' : 'points'} at different places.`,
      'Ground needs at least three.',
    )
  const [ox, oy] = [points[0] as number, points[1] as number]
  const flat = new Float64Array(n * 2)
  for (let i = 0; i < n; i++) {
    flat[i * 2] = (points[i * 3] as number) - ox
    flat[i * 2 + 1] = (points[i * 3 + 1] as number) - oy
  }
  const made = new Delaunator(flat)
  if (made.triangles.length === 0)
    return refuse('geometry', 'All points of the survey lie in a line.', 'Add points beside it.')
  let lost = 0
  if (segments.length) {
    const bound = new Constrainautor(made)
    const all = bound.flips
    const few = new FewEdges()
    bound.flips = few
    for (let i = 0; i < segments.length; i += 2)
      try {
        bound.constrainOne(segments[i] as number, segments[i + 1] as number)
      } catch {
        lost++
      }
    few.forEach((edge) => all.add(edge))
    bound.flips = all
    bound.delaunify(true)
  }
  const triangles = Uint32Array.from(made.triangles)
  // The package winds clockwise as seen in a plane whose y goes up.
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t] as number, triangles[t + 1] as number, triangles[t + 2] as number]
    if (twice(points, a, b, c) < 0) {
      triangles[t + 1] = c
      triangles[t + 2] = b
    }
  }
  let [low, high] = [Infinity, -Infinity]
  for (let i = 2; i < points.length; i += 3) {
    low = Math.min(low, points[i] as number)
    high = Math.max(high, points[i] as number)
  }
  return { points, triangles, low, high, grid: gridOf(points, triangles), lost }
}

const twice = (p: Float64Array, a: number, b: number, c: number) =>
  ((p[b * 3] as number) - (p[a * 3] as number)) * ((p[c * 3 + 1] as number) - (p[a * 3 + 1] as number)) -
  ((p[b * 3 + 1] as number) - (p[a * 3 + 1] as number)) * ((p[c * 3] as number) - (p[a * 3] as number))

function gridOf(points: Float64Array, triangles: Uint32Array): Grid {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  for (let i = 0; i < points.length; i += 3) {
    x0 = Math.min(x0, points[i] as number)
    x1 = Math.max(x1, points[i] as number)
    y0 = Math.min(y0, points[i + 1] as number)
    y1 = Math.max(y1, points[i + 1] as number)
  }
  const count = triangles.length / 3
  const cell = Math.max(
    TOLERANCE.point,
    Math.sqrt(Math.max(TOLERANCE.rounding, (x1 - x0) * (y1 - y0)) / Math.max(1, count)) * 1.5,
    (x1 - x0) / 2000,
    (y1 - y0) / 2000,
  )
  const [nx, ny] = [Math.max(1, Math.ceil((x1 - x0) / cell)), Math.max(1, Math.ceil((y1 - y0) / cell))]
  const clampX = (x: number) => Math.min(nx - 1, Math.max(0, Math.floor((x - x0) / cell))),
    clampY = (y: number) => Math.min(ny - 1, Math.max(0, Math.floor((y - y0) / cell)))
  const reach = new Float64Array(2)
  const cellsOf = (t: number, each: (c: number) => void) => {
    const [a, b, c] = [
      (triangles[t * 3] as number) * 3,
      (triangles[t * 3 + 1] as number) * 3,
      (triangles[t * 3 + 2] as number) * 3,
    ]
    const [ay, by, cy] = [points[a + 1] as number, points[b + 1] as number, points[c + 1] as number]
    const last = clampY(Math.max(ay, by, cy))
    for (let j = clampY(Math.min(ay, by, cy)); j <= last; j++) {
      reach[0] = Infinity
      reach[1] = -Infinity
      sideIn(points, a, b, y0 + j * cell, y0 + (j + 1) * cell, reach)
      sideIn(points, b, c, y0 + j * cell, y0 + (j + 1) * cell, reach)
      sideIn(points, c, a, y0 + j * cell, y0 + (j + 1) * cell, reach)
      if ((reach[0] as number) > (reach[1] as number)) {
        reach[0] = Math.min(points[a] as number, points[b] as number, points[c] as number)
        reach[1] = Math.max(points[a] as number, points[b] as number, points[c] as number)
      }
      const to = clampX(reach[1] as number)
      for (let i = clampX(reach[0] as number); i <= to; i++) each(j * nx + i)
    }
  }
  const start = new Uint32Array(nx * ny + 1)
  for (let t = 0; t < count; t++)
    cellsOf(t, (c) => {
      start[c + 1] = (start[c + 1] as number) + 1
    })
  for (let c = 0; c < nx * ny; c++) start[c + 1] = (start[c + 1] as number) + (start[c] as number)
  const items = new Uint32Array(start[nx * ny] as number)
  const next = start.slice()
  for (let t = 0; t < count; t++)
    cellsOf(t, (c) => {
      items[next[c] as number] = t
      next[c] = (next[c] as number) + 1
    })
  return { x0, y0, cell, nx, ny, start, items }
}

/**
 * Widens [from, to] by how far a triangle's side reaches in x within a row of cells: long thin ones pass through few of the cells that
 * lie round them.
 */
function sideIn(p: Float64Array, a: number, b: number, low: number, high: number, reach: Float64Array): void {
  const ax = p[a] as number,
    ay = p[a + 1] as number,
    bx = p[b] as number,
    by = p[b + 1] as number
  if ((ay < low && by < low) || (ay > high && by > high)) return
  // Where the side enters and leaves the row; a level one lies in it whole.
  let xa = ax,
    xb = bx
  if (ay < low) xa = ax + ((low - ay) / (by - ay)) * (bx - ax)
  else if (ay > high) xa = ax + ((high - ay) / (by - ay)) * (bx - ax)
  if (by < low) xb = ax + ((low - ay) / (by - ay)) * (bx - ax)
  else if (by > high) xb = ax + ((high - ay) / (by - ay)) * (bx - ax)
  reach[0] = Math.min(reach[0] as number, xa, xb)
  reach[1] = Math.max(reach[1] as number, xa, xb)
}

/** Calls with each cell of the grid that a straight line passes, m. */
export function cellsAlong({ x0, y0, cell, nx, ny }: Grid, a: Vec2, b: Vec2, each: (cell: number) => void): void {
  const within = (n: number, most: number) => Math.min(most - 1, Math.max(0, Math.floor(n / cell)))
  const line = Float64Array.of(a[0], a[1], 0, b[0], b[1], 0)
  const reach = new Float64Array(2)
  const last = within(Math.max(a[1], b[1]) - y0, ny)
  for (let j = within(Math.min(a[1], b[1]) - y0, ny); j <= last; j++) {
    reach[0] = Infinity
    reach[1] = -Infinity
    sideIn(line, 0, 3, y0 + j * cell, y0 + (j + 1) * cell, reach)
    const to = within((reach[1] as number) - x0, nx)
    for (let i = within((reach[0] as number) - x0, nx); i <= to; i++) each(j * nx + i)
  }
}

/** The ground's height at a place, m; null beyond the survey. */
export function heightAt({ points, triangles, grid }: Tin, x: number, y: number): number | null {
  const [i, j] = [Math.floor((x - grid.x0) / grid.cell), Math.floor((y - grid.y0) / grid.cell)]
  const c = Math.min(grid.ny - 1, Math.max(0, j)) * grid.nx + Math.min(grid.nx - 1, Math.max(0, i))
  for (let k = grid.start[c] as number; k < (grid.start[c + 1] as number); k++) {
    const t = (grid.items[k] as number) * 3
    const [a, b, d] = [(triangles[t] as number) * 3, (triangles[t + 1] as number) * 3, (triangles[t + 2] as number) * 3]
    const [ax, ay, bx, by, dx, dy] = [
      points[a] as number,
      points[a + 1] as number,
      points[b] as number,
      points[b + 1] as number,
      points[d] as number,
      points[d + 1] as number,
    ]
    const det = (bx - ax) * (dy - ay) - (by - ay) * (dx - ax)
    if (Math.abs(det) < TOLERANCE.zero) continue
    const u = ((x - ax) * (dy - ay) - (y - ay) * (dx - ax)) / det
    const v = ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / det
    if (u >= -TOLERANCE.rounding && v >= -TOLERANCE.rounding && u + v <= 1 + TOLERANCE.rounding)
      return (
        (points[a + 2] as number) +
        u * ((points[b + 2] as number) - (points[a + 2] as number)) +
        v * ((points[d + 2] as number) - (points[a + 2] as number))
      )
  }
  return null
}

/** Lines of equal height, m apart: pairs of points (x, y, z each). */
export function contoursOf({ points, triangles, low, high }: Tin, apart: number): Float32Array {
  const out: number[] = []
  if (!(apart > 0) || (high - low) / apart > 2000) return new Float32Array()
  for (let t = 0; t < triangles.length; t += 3) {
    const v = [0, 1, 2].map((k) => (triangles[t + k] as number) * 3)
    const z = v.map((i) => points[i + 2] as number)
    for (let level = Math.ceil(Math.min(...z) / apart) * apart; level <= Math.max(...z); level += apart) {
      const cut: number[] = []
      for (let k = 0; k < 3; k++) {
        const [i, j, zi, zj] = [v[k] as number, v[(k + 1) % 3] as number, z[k] as number, z[(k + 1) % 3] as number]
        if (zi < level === zj < level) continue
        const f = (level - zi) / (zj - zi)
        cut.push(
          (points[i] as number) + f * ((points[j] as number) - (points[i] as number)),
          (points[i + 1] as number) + f * ((points[j + 1] as number) - (points[i + 1] as number)),
          level,
        )
      }
      if (cut.length === 6) out.push(...cut)
    }
  }
  return Float32Array.from(out)
}
