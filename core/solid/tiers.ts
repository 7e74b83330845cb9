import type { Solid } from './solid'
import { add, twinsOf } from './twins'
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
  const twins = twinsOf(triangles, count)
  for (let i = 0; i < triangles.length; i++) {
    const twin = twins[i] as number
    if (twin < i) continue
    const a = triangles[i] as number
    const b = triangles[i % 3 === 2 ? i - 2 : i + 1] as number
    // A line within one facet is the triangulation's, not the form's; an upright line is cut at one place at every height.
    if (facetOf[Math.floor(i / 3)] === facetOf[Math.floor(twin / 3)]) continue
    if (near(positions, a, b, 0) && near(positions, a, b, 1)) continue
    const za = place.get(positions[a * 3 + 2] as number) ?? 0
    const zb = place.get(positions[b * 3 + 2] as number) ?? 0
    add(leaning, Math.min(za, zb) + 1, 1)
    add(leaning, Math.max(za, zb) + 1, -1)
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
