import { TOLERANCE } from '../values'
import { progressAt, type Carry } from './carry'
import { volumeOf, type Solid } from './solid'

/** m3 of the true form: turning and shifting its cuts changes none, scaling them changes each by its square (exact, by Gauss's rule). */
export function carriedVolume(before: Solid, by: Carry): number {
  if (by.scale === 1) return volumeOf(before)
  const { positions: p, triangles } = before
  const breaks = [...by.ranges].flat()
  const [x0, y0] = [p[0] as number, p[1] as number]
  let volume = 0
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [(triangles[t] as number) * 3, (triangles[t + 1] as number) * 3, (triangles[t + 2] as number) * 3]
    const [za, zb, zc] = [p[a + 2] as number, p[b + 2] as number, p[c + 2] as number]
    const [low, high] = [Math.min(za, zb, zc), Math.max(za, zb, zc)]
    const middle = za + zb + zc - low - high
    let from = low
    for (;;) {
      let to = middle > from ? middle : high
      for (const z of breaks) if (z > from && z < to) to = z
      if (!(to > from)) break
      for (const { at, weight } of GAUSS) {
        const z = from + (to - from) * at
        const scale = 1 + (by.scale - 1) * progressAt(by.ranges, z)
        volume += weight * (to - from) * scale * scale * spannedAt(p, a, b, c, z, x0, y0)
      }
      from = to
    }
  }
  return volume
}

/** Gauss's rule of three points between 0 and 1: exact up to the fifth power. */
const GAUSS = [-1, 0, 1].map((side) => ({
  at: 0.5 + (side * Math.sqrt(3 / 5)) / 2,
  weight: side === 0 ? 8 / 18 : 5 / 18,
}))

/**
 * What the line in which a triangle is cut at a height spans about a point, m2. The lines of a closed body's cut close, so that they sum
 * to its area. The corners are places of coordinates.
 */
function spannedAt(p: Float64Array, a: number, b: number, c: number, z: number, x0: number, y0: number): number {
  const [isA, isB, isC] = [(p[a + 2] as number) > z, (p[b + 2] as number) > z, (p[c + 2] as number) > z]
  if (isA === isB && isB === isC) return 0
  const [d, e] = isA && !isB ? [a, b] : isB && !isC ? [b, c] : [c, a]
  const [g, h] = !isA && isB ? [a, b] : !isB && isC ? [b, c] : [c, a]
  const down = (z - (p[d + 2] as number)) / ((p[e + 2] as number) - (p[d + 2] as number))
  const up = (z - (p[g + 2] as number)) / ((p[h + 2] as number) - (p[g + 2] as number))
  const xd = (p[d] as number) + down * ((p[e] as number) - (p[d] as number)) - x0
  const yd = (p[d + 1] as number) + down * ((p[e + 1] as number) - (p[d + 1] as number)) - y0
  const xu = (p[g] as number) + up * ((p[h] as number) - (p[g] as number)) - x0
  const yu = (p[g + 1] as number) + up * ((p[h + 1] as number) - (p[g + 1] as number)) - y0
  return (xd * yu - yd * xu) / 2
}

/** Heights in order, those that are together once. */
export function distinct(zs: readonly number[]): number[] {
  return [...zs].sort((a, b) => a - b).filter((z, i, all) => i === 0 || z - (all[i - 1] as number) > TOLERANCE.height)
}
