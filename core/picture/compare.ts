import { offSegment, type Region, type Vec2, gapOf } from '../solid'

/** How far a line lies off an outline: at most, and on average along the line, m; and where it is farthest. */
export interface Comparison {
  greatest: number
  mean: number
  at: Vec2
  length: number
}

/**
 * Compares a line (open or closed, m) with the edges of a region in the same plane. Distances are taken at points no farther apart than
 * `step`, corners included; between two points the distance changes by less than half of that, so the greatest is found to half a step.
 * null where either is empty.
 */
export function compareLine(lines: Vec2[][], closed: boolean, outline: Region, step = 0.01): Comparison | null {
  const edges = outline.flatMap((loop) => loop.map((p, i) => [p, loop[(i + 1) % loop.length] as Vec2] as const))
  const pieces = lines.flatMap((line) =>
    line.flatMap((p, i) => {
      const q = line[i + 1] ?? (closed ? line[0] : undefined)
      return q ? [[p, q] as const] : []
    }),
  )
  if (edges.length === 0 || pieces.length === 0) return null
  const off = (p: Vec2) => edges.reduce((least, [a, b]) => Math.min(least, offSegment(p, a, b)), Infinity)
  let [greatest, sum, length] = [-1, 0, 0]
  let at: Vec2 = [0, 0]
  for (const [p, q] of pieces) {
    const long = gapOf(q, p)
    const n = Math.max(1, Math.min(4000, Math.ceil(long / step)))
    let last: number | null = null
    for (let i = 0; i <= n; i++) {
      const here: Vec2 = [p[0] + ((q[0] - p[0]) * i) / n, p[1] + ((q[1] - p[1]) * i) / n]
      const d = off(here)
      if (d > greatest) {
        greatest = d
        at = here
      }
      if (last !== null) sum += ((d + last) / 2) * (long / n)
      last = d
    }
    length += long
  }
  return { greatest, mean: length > 0 ? sum / length : greatest, at, length }
}
