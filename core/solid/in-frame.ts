import { TOLERANCE } from '../values'
import type { Frame } from './extrude'
import { rawName } from './face-name'
import { cornerAt, dotOf, planeAxes } from './plane'
import type { Facet, Solid, Vec3 } from './solid'
import type { Surface } from './surfaces'

/** A body drawn in a frame of its own (its z along w), set into space. What is curved keeps no more than that it is. */
export function inFrame(solid: Solid, { origin, u, v, w }: Frame): Solid {
  const way = (p: ArrayLike<number>, i: number): Vec3 =>
    [0, 1, 2].map(
      (k) =>
        (p[i] as number) * (u[k] as number) +
        (p[i + 1] as number) * (v[k] as number) +
        (p[i + 2] as number) * (w[k] as number),
    ) as Vec3
  const positions = new Float64Array(solid.positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    const p = way(solid.positions, i)
    positions.set([p[0] + origin[0], p[1] + origin[1], p[2] + origin[2]], i)
  }
  const surfaces = new Map<Surface, Surface>()
  const curved = (surface: Surface) => {
    const known = surfaces.get(surface) ?? { kind: 'free' as const }
    surfaces.set(surface, known)
    return known
  }
  return {
    ...solid,
    positions,
    facets: solid.facets.map(({ name, plane, surface }): Facet => {
      const n = way(plane.n, 0)
      const turned = { n, d: plane.d + dotOf(n, origin) }
      return surface ? { name, plane: turned, surface: curved(surface) } : { name, plane: turned }
    }),
  }
}

/**
 * The frame of a flat face of a body (by its name, its pieces together): along it to the right as seen from outside, up it, and out of it;
 * on a level one along x and y. From the lower left corner of its extent. Null where there is no such flat face.
 */
export function frameOfFace({ positions, triangles, facetOf, facets }: Solid, face: string): Frame | null {
  const there = new Set(facetOf)
  const at = facets.findIndex((f, i) => rawName(f.name) === rawName(face) && !f.surface && there.has(i))
  const facet = facets[at]
  if (!facet) return null
  const w = facet.plane.n
  const isLevel = Math.abs(w[2]) > 1 - TOLERANCE.slope
  // Seen from below, x runs the other way.
  const { u, v } = isLevel ? { u: [Math.sign(w[2]), 0, 0] as Vec3, v: [0, 1, 0] as Vec3 } : planeAxes(w)
  let [least, low] = [Infinity, Infinity]
  facetOf.forEach((f, t) => {
    if (f !== at) return
    for (let k = 0; k < 3; k++) {
      const p = cornerAt(positions, triangles[t * 3 + k] as number)
      least = Math.min(least, dotOf(u, p))
      low = Math.min(low, dotOf(v, p))
    }
  })
  const origin = [0, 1, 2].map(
    (k) => (u[k] as number) * least + (v[k] as number) * low + (w[k] as number) * facet.plane.d,
  ) as Vec3
  return { origin, u, v, w }
}
