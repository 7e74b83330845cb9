import type { Solid } from './solid'
import { noteTilt, wholeTilt, type Surface } from './surfaces'

/** Notes the mean tilt of each curved surface of a body that has none yet: called before a later move can cut into it. */
export function noteTilts({ positions: p, triangles, facetOf, facets }: Solid): void {
  if (!facets.some((f) => f.surface && wholeTilt(f.surface) === null)) return
  const sums = new Map<Surface, { up: number; area: number }>()
  facetOf.forEach((f, t) => {
    const surface = facets[f]?.surface
    if (!surface || wholeTilt(surface) !== null) return
    const [a, b, c] = [0, 1, 2].map((k) => (triangles[t * 3 + k] as number) * 3) as [number, number, number]
    const at = (v: number, k: number) => p[v + k] as number
    const [ux, uy, uz] = [at(b, 0) - at(a, 0), at(b, 1) - at(a, 1), at(b, 2) - at(a, 2)]
    const [wx, wy, wz] = [at(c, 0) - at(a, 0), at(c, 1) - at(a, 1), at(c, 2) - at(a, 2)]
    const [nx, ny, nz] = [uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx]
    const sum = sums.get(surface) ?? { up: 0, area: 0 }
    sum.up += nz
    sum.area += Math.hypot(nx, ny, nz)
    sums.set(surface, sum)
  })
  for (const [surface, { up, area }] of sums) if (area > 0) noteTilt(surface, up / area)
}
