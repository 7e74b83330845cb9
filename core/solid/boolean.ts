import { refuse, TOLERANCE } from '../values'
import { bodyFault } from './fault'
import { withKernel } from './kernel'
import { fromKernel, toKernel } from './kernel-body'
import { madeToMeet, type Seam } from './meet-bodies'
import { dotOf } from './plane'
import { volumeOf, type Facet, type Solid } from './solid'

/**
 * The union of two bodies in one frame; every facet of the result keeps its name. What touches within the tolerance becomes one.
 * Errors: 'geometry' when one of them is no closed body.
 */
export function unite(a: Solid, b: Solid): Solid {
  const met = madeToMeet(a, b)
  return combine(a, met.body, 'union', met)
}

/** What two bodies have in common. Errors: 'geometry' when one is no closed body, or nothing is left. */
export const intersect = (a: Solid, b: Solid): Solid => combine(a, b, 'intersection')

/**
 * The first body without the second; faces that the second leaves look the other way. Errors: 'geometry' when one is no closed body, or
 * nothing is left.
 */
export const subtract = (a: Solid, b: Solid): Solid => combine(a, b, 'difference')

/**
 * m3 of the union of many bodies in one frame, near the origin. A body that is not closed cannot be united: it counts by itself, and is a
 * finding.
 */
export function unionVolume(solids: Solid[]): number {
  const open = solids.filter((s) => bodyFault(s, 'edges') !== null)
  const sound = open.length ? solids.filter((s) => !open.includes(s)) : solids
  return open.reduce((sum, s) => sum + Math.abs(volumeOf(s)), 0) + (sound.length ? volumeTogether(sound) : 0)
}

function volumeTogether(solids: Solid[]): number {
  return withKernel((kernel, own) => own(kernel.Manifold.union(solids.map((s) => toKernel(s, kernel, own)))).volume())
}

/**
 * m2 of the outer surface and m3 of the union of bodies in one frame, near the origin; each by itself where one of them is not closed.
 */
export function unionFigures(solids: Solid[]): { surface: number; volume: number } {
  const isOpen = solids.some((s) => bodyFault(s, 'edges') !== null)
  if (isOpen || solids.length < 2)
    return {
      surface: solids.reduce((sum, s) => sum + surfaceOf(s), 0),
      volume: solids.reduce((sum, s) => sum + Math.abs(volumeOf(s)), 0),
    }
  return withKernel((kernel, own) => {
    const whole = own(kernel.Manifold.union(solids.map((s) => toKernel(s, kernel, own))))
    return { surface: whole.surfaceArea(), volume: whole.volume() }
  })
}

/** m2 of the surface of a body. */
export function surfaceOf({ positions: p, triangles: t }: Pick<Solid, 'positions' | 'triangles'>): number {
  let sum = 0
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * (t[i + k] as number)) as [number, number, number]
    const at = (k: number, l: number) => (p[k + l] as number) - (p[a + l] as number)
    const [x, y, z] = [
      at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1),
      at(b, 2) * at(c, 0) - at(b, 0) * at(c, 2),
      at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0),
    ]
    sum += Math.hypot(x, y, z) / 2
  }
  return sum
}

const turnedRound = ({ plane: { n, d }, ...facet }: Facet): Facet => ({
  ...facet,
  plane: { n: [0 - n[0], 0 - n[1], 0 - n[2]], d: 0 - d },
})

function combine(
  a: Solid,
  b: Solid,
  how: 'union' | 'intersection' | 'difference',
  met: { settled: Float64Array; seams: Seam[] } = { settled: b.positions, seams: [] },
): Solid {
  return withKernel((kernel, own) => {
    const result = own(kernel.Manifold[how](toKernel(a, kernel, own), toKernel(b, kernel, own, a.facets.length)))
    if (result.isEmpty()) refuse('geometry', 'Nothing is left of the form.', 'Move the bodies so that they meet.')
    const theirs = how === 'difference' ? b.facets.map(turnedRound) : b.facets
    const made = fromKernel(
      result,
      own,
      [...a.facets, ...theirs],
      [
        { body: a, settled: a.positions },
        { body: b, settled: met.settled },
      ],
      met.seams,
    )
    return withOneFacetEach(made)
  })
}

/** A body in which flat facets of one name on one plane are one: where one body's face runs on into the other's. */
function withOneFacetEach(solid: Solid): Solid {
  const byName = new Map<string, number[]>()
  let isDouble = false
  const first = solid.facets.map((facet, i) => {
    if (facet.surface) return i
    const known = byName.get(facet.name)
    if (!known) {
      byName.set(facet.name, [i])
      return i
    }
    const { n, d } = facet.plane
    const same = known.find((k) => {
      const { plane } = solid.facets[k] as Facet
      return dotOf(plane.n, n) > 1 - TOLERANCE.zero && Math.abs(plane.d - d) < TOLERANCE.touch
    })
    if (same === undefined) known.push(i)
    else isDouble = true
    return same ?? i
  })
  return isDouble ? { ...solid, facetOf: solid.facetOf.map((f) => first[f] as number) } : solid
}
