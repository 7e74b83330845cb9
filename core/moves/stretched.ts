import type { Facet, Solid } from '../solid'

/** The body with its flat top, at a height, set higher (m). */
export function stretched(solid: Solid, from: number, to: number): Solid {
  const positions = solid.positions.slice()
  for (let i = 2; i < positions.length; i += 3) if (positions[i] === from) positions[i] = to
  return {
    ...solid,
    positions,
    facets: solid.facets.map((f): Facet => (f.plane.n[2] > 0.5 ? { ...f, plane: { ...f.plane, d: to } } : f)),
  }
}
