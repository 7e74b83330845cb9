import { TOLERANCE } from '../values'
import type { Mesh } from './extrude'
import { capOf } from './kernel'
import type { Vec2 } from './place'
import { cutAt } from './section'
import type { Solid } from './solid'

/**
 * Returns true when no surface of a mesh (m) that looks up lies below a height: from above, only what is higher than that is seen of it.
 */
export function isOpenAbove({ positions: p, triangles }: Mesh, z: number): boolean {
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [(triangles[i] as number) * 3, (triangles[i + 1] as number) * 3, (triangles[i + 2] as number) * 3]
    if (Math.min(p[a + 2] as number, p[b + 2] as number, p[c + 2] as number) > z - TOLERANCE.rounding) continue
    if (turnedArea(p, a, b, c) > TOLERANCE.rounding) return false
  }
  return true
}

/**
 * What of a closed body lies above a height (m): m3, and its triangles, closed by the cut. The volume is that of the columns from the
 * height up to each triangle, those that look up less those that look down (divergence theorem), in doubles: no kernel is asked.
 */
export function aboveHeight(solid: Solid, z: number): { volume: number; mesh: Mesh } {
  const { positions: p, triangles } = solid
  const points: number[] = []
  const numbers = new Map<string, number>()
  const kept: number[] = []
  const numbered = (key: string, x: number, y: number, up: number): number => {
    let n = numbers.get(key)
    if (n === undefined) {
      numbers.set(key, (n = points.length / 3))
      points.push(x, y, up)
    }
    return n
  }
  const corner = (v: number) => numbered(`${v}`, p[v * 3] as number, p[v * 3 + 1] as number, p[v * 3 + 2] as number)
  const crossing = (v: number, w: number) => {
    const [a, b] = v < w ? [v, w] : [w, v]
    const [za, zb] = [p[a * 3 + 2] as number, p[b * 3 + 2] as number]
    // All edges from a corner that lies at the height are cut there, in one point: more of them would have triangles of no area between
    // them, which look anywhere.
    const there = [a, b].find((v) => isAt(v))
    if (there !== undefined) return corner(there)
    const t = (z - za) / (zb - za)
    const between = (k: number) => (p[a * 3 + k] as number) + t * ((p[b * 3 + k] as number) - (p[a * 3 + k] as number))
    return numbered(`${a}/${b}`, between(0), between(1), z)
  }
  const isAt = (v: number) => Math.abs((p[v * 3 + 2] as number) - z) < TOLERANCE.point
  const isUp = (v: number) => (p[v * 3 + 2] as number) > z && !isAt(v)
  let volume = 0
  for (let i = 0; i < triangles.length; i += 3) {
    const ring = [triangles[i], triangles[i + 1], triangles[i + 2]] as [number, number, number]
    const clipped = ring
      .flatMap((v, k) => {
        const w = ring[(k + 1) % 3] as number
        return [...(isUp(v) ? [corner(v)] : []), ...(isUp(v) !== isUp(w) ? [crossing(v, w)] : [])]
      })
      .filter((n, k, all) => n !== all[(k + 1) % all.length])
    for (let k = 2; k < clipped.length; k++) {
      const [a, b, c] = [clipped[0], clipped[k - 1], clipped[k]] as [number, number, number]
      kept.push(a, b, c)
      const mean = ((points[a * 3 + 2] as number) + (points[b * 3 + 2] as number) + (points[c * 3 + 2] as number)) / 3
      volume += turnedArea(points, a * 3, b * 3, c * 3) * (mean - z)
    }
  }
  const loops = cutAt(solid, z).map((l) => l.points)
  const first = points.length / 3
  for (const [x, y] of loops.flat() as Vec2[]) points.push(x, y, z)
  const cap = capOf(loops)
  for (let t = 0; t < cap.length; t += 3)
    kept.push(first + (cap[t] as number), first + (cap[t + 2] as number), first + (cap[t + 1] as number))
  return { volume, mesh: { positions: Float64Array.from(points), triangles: Uint32Array.from(kept) } }
}

/** The area in plan of a triangle by where its corners begin, m2: above zero where it looks up. */
export const turnedArea = (p: ArrayLike<number>, a: number, b: number, c: number): number =>
  (((p[b] as number) - (p[a] as number)) * ((p[c + 1] as number) - (p[a + 1] as number)) -
    ((p[b + 1] as number) - (p[a + 1] as number)) * ((p[c] as number) - (p[a] as number))) /
  2
