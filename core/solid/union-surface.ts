import { unite } from './boolean'
import { bodyFault } from './fault'
import { withKernel } from './kernel'
import { toKernel } from './kernel-body'
import { madeToMeet } from './meet-bodies'
import type { Facet, Solid, Vec3 } from './solid'

/** A bit of an outer surface: the way it looks, and m2. */
export interface SurfaceBit {
  normal: Vec3
  area: number
  /** of its triangle, in the bodies' frame, m */
  corners: [Vec3, Vec3, Vec3]
  /** of a facet of an upright arc: the angle that it stands for (radians), and how much longer its arc is than its chord */
  round: { angle: number; stretch: number } | null
}

/** More bodies than these are united at once: the seams of those that touch are then a hair off. */
const ONE_BY_ONE = 24

/**
 * The outer surface of bodies in one frame, near the origin, in bits: what one of them covers of another is none of it, also where they only
 * touch. A body that is not closed counts with all of its own.
 */
export function outerSurface(solids: Solid[]): SurfaceBit[] {
  const sound = solids.filter((s) => bodyFault(s, 'edges') === null)
  const open = solids.filter((s) => !sound.includes(s))
  const [first, ...rest] = sound
  const plain = open.flatMap(bitsOf)
  if (!first) return plain
  if (sound.length <= ONE_BY_ONE) return [...plain, ...bitsOf(rest.reduce(unite, first))]
  const meeting = rest.map((body, i) => sound.slice(0, i + 1).reduce((b, before) => madeToMeet(before, b).body, body))
  return withKernel((kernel, own) => {
    const mesh = own(kernel.Manifold.union([first, ...meeting].map((s) => toKernel(s, kernel, own)))).getMesh()
    const positions = Float64Array.from({ length: (mesh.vertProperties.length / mesh.numProp) * 3 }, (_, i) =>
      Number(mesh.vertProperties[Math.floor(i / 3) * mesh.numProp + (i % 3)]),
    )
    return [...plain, ...bitsOf({ positions, triangles: mesh.triVerts, facetOf: new Uint32Array(), facets: [] })]
  })
}

function bitsOf({ positions: p, triangles: t, facetOf, facets }: Solid): SurfaceBit[] {
  const bits: SurfaceBit[] = []
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * (t[i + k] as number)) as [number, number, number]
    const at = (k: number, l: number) => (p[k + l] as number) - (p[a + l] as number)
    const [x, y, z] = [
      at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1),
      at(b, 2) * at(c, 0) - at(b, 0) * at(c, 2),
      at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0),
    ]
    const twice = Math.hypot(x, y, z)
    const facet = facets[facetOf[i / 3] ?? -1]
    if (!(twice > 0)) continue
    const corners = [a, b, c].map((k): Vec3 => [p[k] as number, p[k + 1] as number, p[k + 2] as number])
    bits.push({
      normal: [x / twice, y / twice, z / twice],
      area: twice / 2,
      corners: corners as [Vec3, Vec3, Vec3],
      round: roundOf(facet),
    })
  }
  return bits
}

/**
 * A facet of a cylinder stands for an arc of sweep / n. All facets enclose the arc's area, so that their corners lie a hair outside of it:
 * the chord is as long as it is on that radius.
 */
function roundOf(facet: Facet | undefined): SurfaceBit['round'] {
  const { surface } = facet ?? {}
  if (surface?.kind !== 'cylinder' || !surface.rims) return null
  const { low, sweep, n } = surface.rims
  const angle = Math.abs(sweep) / n
  const chord = 2 * low.r * Math.sqrt(angle / Math.sin(angle)) * Math.sin(angle / 2)
  return { angle, stretch: (low.r * angle) / chord }
}
