import { refuse, TOLERANCE } from '../values'
import { intersect, subtract } from './boolean'
import { halfSpace } from './half-space'
import { loopsOf } from './moved-corners'
import type { Vec2 } from './place'
import { boxOf, type Solid } from './solid'
import { sweepBody } from './swept-body'

/** faces that look down of a body that something may stop under */
const MOST = 200

/**
 * What of a body lies below another one: without that, and without all that lies over it. The faces at which it stops have the names of
 * those of the other that look down. `side` names what is cut along the other's edges. Errors: 'geometry' where nothing is left, or the
 * other has too many faces that look down.
 */
export function stoppedUnder(body: Solid, other: Solid, side: (edge: string) => string): Solid {
  const { positions, triangles, facetOf, facets } = other
  const down = facets.flatMap((f, i) => (f.plane.n[2] < -TOLERANCE.slope ? [i] : []))
  const top = boxOf(body.positions).z1 + 1
  const over = down.flatMap((i) => {
    const bits = [...facetOf.keys()].filter((t) => facetOf[t] === i)
    if (bits.length === 0) return []
    const facet = facets[i] as (typeof facets)[number]
    // Seen from above it runs the other way round.
    const loops = loopsOf(triangles, bits).map((l) =>
      [...l].reverse().map((v): Vec2 => [positions[v * 3] as number, positions[v * 3 + 1] as number]),
    )
    const low = Math.min(
      ...bits.flatMap((t) => [0, 1, 2].map((k) => positions[(triangles[t * 3 + k] as number) * 3 + 2] as number)),
    )
    if (low >= top - TOLERANCE.least) return []
    const isLevel = facet.plane.n[2] < -1 + TOLERANCE.slope
    const lines = loops.map((points, l) => ({
      points,
      edges: points.map((_, k) => `${i}-${l}-${k}`),
      arcs: points.map(() => null),
    }))
    const column = sweepBody(
      { low: lines, high: lines, z0: isLevel ? low : low - 1, z1: top, twist: null },
      { base: facet.name, top: side('over'), side },
    )
    return [isLevel ? column : intersect(column, halfSpace(facet.plane, column, true, facet.name))]
  })
  if (over.length > MOST)
    refuse('geometry', 'The other form has too many faces that look down.', 'Stop under one that is less round.')
  return over.reduce(subtract, body)
}
