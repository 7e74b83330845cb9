import { bodyFault } from './fault'
import { withKernel } from './kernel'
import { toKernel } from './kernel-body'
import type { Solid, Vec3 } from './solid'

/** A bit of an outer surface: the way it looks, and m2. */
export interface SurfaceBit {
  normal: Vec3
  area: number
}

/**
 * The outer surface of bodies in one frame, near the origin, in bits: what one of them covers of another is none of it. A body that is not
 * closed counts with all of its own.
 */
export function outerSurface(solids: Solid[]): SurfaceBit[] {
  const sound = solids.filter((s) => bodyFault(s, 'edges') === null)
  const open = solids.filter((s) => !sound.includes(s))
  const plain = [...open, ...(sound.length === 1 ? sound : [])].flatMap((s) => bitsOf(s.positions, s.triangles, 3))
  if (sound.length < 2) return plain
  return withKernel((kernel, own) => {
    const mesh = own(kernel.Manifold.union(sound.map((s) => toKernel(s, kernel, own)))).getMesh()
    return [...plain, ...bitsOf(mesh.vertProperties, mesh.triVerts, mesh.numProp)]
  })
}

function bitsOf(p: ArrayLike<number>, t: ArrayLike<number>, stride: number): SurfaceBit[] {
  const bits: SurfaceBit[] = []
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => stride * (t[i + k] as number)) as [number, number, number]
    const at = (k: number, l: number) => (p[k + l] as number) - (p[a + l] as number)
    const [x, y, z] = [
      at(b, 1) * at(c, 2) - at(b, 2) * at(c, 1),
      at(b, 2) * at(c, 0) - at(b, 0) * at(c, 2),
      at(b, 0) * at(c, 1) - at(b, 1) * at(c, 0),
    ]
    const twice = Math.hypot(x, y, z)
    if (twice > 0) bits.push({ normal: [x / twice, y / twice, z / twice], area: twice / 2 })
  }
  return bits
}
