import type { Solid } from './solid'

/**
 * The triangles of a body as lists that stay the very same for bodies which have them alike: most that a drag makes one after the other
 * differ only in where their corners are, and what is told of triangles alone (see `bodyFault`) is told once.
 */
export function asLately(triangles: number[], facetOf: number[]): Pick<Solid, 'triangles' | 'facetOf'> {
  const same = (a: Uint32Array, b: number[]) => {
    if (a.length !== b.length) return false
    for (let i = 0; i < b.length; i++) if (a[i] !== b[i]) return false
    return true
  }
  const kept = lately.find((k) => same(k.facetOf, facetOf) && same(k.triangles, triangles))
  if (kept) return kept
  const fresh = { triangles: Uint32Array.from(triangles), facetOf: Uint32Array.from(facetOf) }
  // A few of the large ones: small ones are quickly made and told.
  if (triangles.length > LARGE) lately.unshift(fresh)
  lately.length = Math.min(lately.length, MOST_KEPT)
  return fresh
}
const lately: Pick<Solid, 'triangles' | 'facetOf'>[] = []
const [LARGE, MOST_KEPT] = [3000, 4]
