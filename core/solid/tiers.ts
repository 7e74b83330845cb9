import type { Solid } from './solid'
import { TOLERANCE } from '../values'

/**
 * A body's tiers, from one height of change to the next: between two neighbouring ones no vertex lies, and where a tier is constant its
 * cut is the same at every height. `constant[i]` tells of the tier under heights[i]; the last entry is the empty tier above all.
 */
export interface Tiers {
  heights: Float64Array
  constant: boolean[]
}

/** The tiers of a body: the heights (m) at which it has corners, and between which of them it stands upright. */
export function tiersOf({ positions, triangles, facetOf }: Solid): Tiers {
  const count = positions.length / 3
  const heights = Float64Array.from(
    new Set(Array.from({ length: count }, (_, v) => positions[v * 3 + 2] as number)),
  ).sort()
  const place = new Map(Array.from(heights, (z, i) => [z, i]))
  const leaning = new Int32Array(heights.length + 1)
  const seen = new Map<number, number>()
  for (let i = 0; i < triangles.length; i++) {
    const [a, b] = [triangles[i] as number, triangles[i % 3 === 2 ? i - 2 : i + 1] as number]
    const facet = facetOf[Math.floor(i / 3)] as number
    const key = a < b ? a * count + b : b * count + a
    const other = seen.get(key)
    if (other === undefined) {
      seen.set(key, facet)
      continue
    }
    // A line within one facet is the triangulation's, not the form's; an upright line is cut at one place at every height.
    if (other === facet || (near(positions, a, b, 0) && near(positions, a, b, 1))) continue
    const [za, zb] = [place.get(positions[a * 3 + 2] as number) ?? 0, place.get(positions[b * 3 + 2] as number) ?? 0]
    leaning[Math.min(za, zb) + 1] = (leaning[Math.min(za, zb) + 1] ?? 0) + 1
    leaning[Math.max(za, zb) + 1] = (leaning[Math.max(za, zb) + 1] ?? 0) - 1
  }
  let open = 0
  return { heights, constant: Array.from(leaning, (n) => (open += n) === 0) }
}

/** The tier that a cut just above z lies in. */
export function tierAt({ heights }: Tiers, z: number): number {
  const limit = z + TOLERANCE.height
  let [low, high] = [0, heights.length]
  while (low < high) {
    const mid = (low + high) >> 1
    if ((heights[mid] as number) <= limit) low = mid + 1
    else high = mid
  }
  return low
}

const near = (p: Float64Array, a: number, b: number, axis: 0 | 1) =>
  Math.abs((p[a * 3 + axis] as number) - (p[b * 3 + axis] as number)) < TOLERANCE.rounding
