import { refuse } from '../values'
import { cornerAt, planeThrough } from './plane'
import type { Facet, Solid } from './solid'
import { divided, endsInPoint, type Sweep, type SweepNames } from './sweep'
import { asLately } from './lately'
import { sideSurfaces, sweptEnds } from './swept-sides'
import { twistedBody } from './twisted-body'

/**
 * The body of a sweep. Flat sides are one facet each, arcs one for each of theirs. What is twisted gets rows at the given heights (m,
 * the storeys), where its cut is exact, and between them; those between lie a hair outside, so that its volume is exact too.
 */
export function sweepBody(sweep: Sweep, names: SweepNames, storeys: readonly number[] = []): Solid {
  if (sweep.z1 - sweep.z0 <= 0)
    refuse('size', 'A body needs a height above zero.', 'Type a height of at least one millimetre.')
  return sweep.twist && sweep.twist.angle !== 0
    ? twistedBody(sweep, sweep.twist, names, storeys)
    : straightBody(sweep, names)
}

function straightBody(sweep: Sweep, names: SweepNames): Solid {
  const { low, high, z0, z1 } = sweep
  const loops = low.map((loop, l) => divided(loop, high[l] ?? loop, 1))
  const count = loops.reduce((n, l) => n + l.low.length, 0)
  const isApex = endsInPoint(sweep)
  const above = loops.flatMap((l) => l.high).slice(0, isApex ? 1 : count)
  const positions = Float64Array.from([
    ...loops.flatMap((l) => l.low.flatMap(([x, y]) => [x, y, z0])),
    ...above.flatMap(([x, y]) => [x, y, z1]),
  ])
  const facets: Facet[] = [
    { name: names.base, plane: { n: [0, 0, -1], d: -z0 } },
    { name: names.top, plane: { n: [0, 0, 1], d: z1 } },
  ]
  const { triangles, facetOf } = sweptEnds(loops, isApex ? null : count)
  let start = 0
  for (const loop of loops) {
    const n = loop.low.length
    sideSurfaces(sweep, loop).forEach((surface, i) => {
      const [a, b] = [start + i, start + ((i + 1) % n)]
      const [c, d] = isApex ? [count, count] : [b + count, a + count]
      const plane = planeThrough(cornerAt(positions, a), cornerAt(positions, b), cornerAt(positions, c))
      const name = names.side(loop.edges[i] ?? '')
      facets.push(surface ? { name, plane, surface } : { name, plane })
      triangles.push(a, b, c, ...(isApex ? [] : [a, c, d]))
      facetOf.push(...(isApex ? [facets.length - 1] : [facets.length - 1, facets.length - 1]))
    })
    start += n
  }
  return { positions, ...asLately(triangles, facetOf), facets }
}
