import type { Frame } from './extrude'
import { dotOf } from './plane'
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
