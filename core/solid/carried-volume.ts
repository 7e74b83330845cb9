import { TOLERANCE } from '../values'
import { similarityAt, type Carry } from './carry'
import { volumeOf, type Solid } from './solid'

/** m3 of the true form: turning and shifting its cuts changes none, scaling them changes each by its square (exact, by Gauss's rule). */
export function carriedVolume(before: Solid, by: Carry): number {
  if (by.scale === 1) return volumeOf(before)
  const zs = distinct([
    ...new Set(Array.from({ length: before.positions.length / 3 }, (_, v) => before.positions[v * 3 + 2] as number)),
    ...by.ranges.flat(),
  ])
  const areas = cutAreas(before, zs)
  return zs.slice(1).reduce((sum, z, i) => {
    const [from, high] = [zs[i] as number, z - (zs[i] as number)]
    return (
      sum +
      high *
        GAUSS.reduce(
          (part, { at, weight }, k) =>
            part + weight * (areas[3 * i + k] as number) * similarityAt(by, from + high * at).scale ** 2,
          0,
        )
    )
  }, 0)
}

/** Gauss's rule of three points between 0 and 1: exact up to the fifth power. */
const GAUSS = [-1, 0, 1].map((side) => ({
  at: 0.5 + (side * Math.sqrt(3 / 5)) / 2,
  weight: side === 0 ? 8 / 18 : 5 / 18,
}))

/**
 * Areas (m2) of a closed body's cuts at the three places of Gauss's rule between each two neighbouring heights of a rising list. Each triangle
 * adds what its own line in a cut spans about zero, only at the places that it crosses; the lines of a cut close, so that this is the area.
 */
function cutAreas({ positions: p, triangles }: Solid, zs: readonly number[]): Float64Array {
  const places = zs.slice(1).flatMap((z, i) => GAUSS.map(({ at }) => (zs[i] as number) + (z - (zs[i] as number)) * at))
  const areas = new Float64Array(places.length)
  const firstAbove = (z: number): number => {
    let [low, high] = [0, places.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if ((places[middle] as number) < z) low = middle + 1
      else high = middle
    }
    return low
  }
  const [x0, y0] = [p[0] as number, p[1] as number]
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [(triangles[t] as number) * 3, (triangles[t + 1] as number) * 3, (triangles[t + 2] as number) * 3]
    const [za, zb, zc] = [p[a + 2] as number, p[b + 2] as number, p[c + 2] as number]
    const top = Math.max(za, zb, zc)
    for (let i = firstAbove(Math.min(za, zb, zc)); i < places.length && (places[i] as number) < top; i++) {
      const z = places[i] as number
      const [isA, isB, isC] = [za > z, zb > z, zc > z]
      const [d, e] = isA && !isB ? [a, b] : isB && !isC ? [b, c] : [c, a]
      const [g, h] = !isA && isB ? [a, b] : !isB && isC ? [b, c] : [c, a]
      const down = (z - (p[d + 2] as number)) / ((p[e + 2] as number) - (p[d + 2] as number))
      const up = (z - (p[g + 2] as number)) / ((p[h + 2] as number) - (p[g + 2] as number))
      const xd = (p[d] as number) + down * ((p[e] as number) - (p[d] as number)) - x0
      const yd = (p[d + 1] as number) + down * ((p[e + 1] as number) - (p[d + 1] as number)) - y0
      const xu = (p[g] as number) + up * ((p[h] as number) - (p[g] as number)) - x0
      const yu = (p[g + 1] as number) + up * ((p[h + 1] as number) - (p[g + 1] as number)) - y0
      areas[i] = (areas[i] as number) + (xd * yu - yd * xu) / 2
    }
  }
  return areas
}

/** Heights in order, those that are together once. */
export function distinct(zs: readonly number[]): number[] {
  return [...zs].sort((a, b) => a - b).filter((z, i, all) => i === 0 || z - (all[i - 1] as number) > TOLERANCE.height)
}
