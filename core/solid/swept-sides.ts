import { capOf } from './kernel'
import type { DividedLoop, Sweep } from './sweep'
import type { Surface } from './surfaces'

/**
 * The triangles of a sweep's flat ends and their facets (0 below, 1 above); `firstAbove` is its first corner above, null where it ends in
 * a point.
 */
export function sweptEnds(loops: DividedLoop[], firstAbove: number | null): { triangles: number[]; facetOf: number[] } {
  const base = capOf(loops.map((l) => l.low))
  const top = firstAbove === null ? [] : capOf(loops.map((l) => l.high))
  const triangles: number[] = []
  for (let i = 0; i < base.length; i += 3)
    triangles.push(base[i] as number, base[i + 2] as number, base[i + 1] as number)
  for (const v of top) triangles.push((firstAbove ?? 0) + v)
  const below = base.length / 3
  return { triangles, facetOf: Array.from({ length: triangles.length / 3 }, (_, t) => (t < below ? 0 : 1)) }
}

/** The true surface of each segment of a loop, one for all segments of an edge or an arc; null where it is flat. */
export function sideSurfaces({ z0, z1, twist }: Sweep, loop: DividedLoop): (Surface | null)[] {
  const isTwisted = twist !== null && twist.angle !== 0
  const surfaces = new Map<string, Surface>()
  return loop.edges.map((edge, i) => {
    const [a, b] = [loop.arcsLow[i] ?? null, loop.arcsHigh[i] ?? null]
    if (!a && !isTwisted) return null
    const key = `${edge} ${a ? `${a.x} ${a.y} ${a.from}` : ''}`
    const made = surfaces.get(key)
    if (made) return made
    const surface: Surface = {
      kind: isTwisted ? 'twisted' : a && b && a.r === b.r && a.x === b.x && a.y === b.y ? 'cylinder' : 'cone',
      twist: isTwisted ? twist : null,
      rims:
        a && b
          ? {
              low: { x: a.x, y: a.y, r: a.r, z: z0 },
              high: { x: b.x, y: b.y, r: b.r, z: z1 },
              from: a.from,
              sweep: a.sweep,
              n: a.n,
            }
          : null,
    }
    surfaces.set(key, surface)
    return surface
  })
}
