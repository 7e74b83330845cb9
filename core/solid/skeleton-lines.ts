import { refuse, TOLERANCE } from '../values'
import type { Vec3 } from './solid'

/** The closed lines that steps make. */
export function joinedSteps(steps: [Vec3, Vec3][]): Vec3[][] {
  const left = [...steps]
  const loops: Vec3[][] = []
  while (left.length) {
    const [first] = left.splice(0, 1) as [[Vec3, Vec3]]
    const loop: Vec3[] = [first[0]]
    for (let end = first[1]; ;) {
      // What lies nearest goes on: steps are shorter than what they may be apart.
      const [best, off] = left.reduce<[number, number]>(
        (b, [a], i) => (apart(a, end) < b[1] ? [i, apart(a, end)] : b),
        [-1, apart(first[0], end)],
      )
      if (off > 2 * TOLERANCE.point)
        return refuse('geometry', 'A face of the roof does not close.', 'Change the outline a little.')
      if (best < 0) break
      loop.push(end)
      end = (left.splice(best, 1)[0] as [Vec3, Vec3])[1]
    }
    loops.push(loop)
  }
  return loops
}

/** The corners at which a closed line bends: of two that lie together at a bend, one. */
export function bendsOf(loop: Vec3[]): Vec3[] {
  const bends = [...loop]
  for (let i = 0; i < bends.length && bends.length > 2;) {
    const [p, n] = [bends[i] as Vec3, bends.length]
    const [a, b] = [bends[(i + n - 1) % n] as Vec3, bends[(i + 1) % n] as Vec3]
    if (isBend(a, p, b)) i++
    else bends.splice(i, 1)
  }
  return bends
}

export const apart = (a: Vec3, b: Vec3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])

function isBend(a: Vec3, p: Vec3, b: Vec3): boolean {
  const [u, w]: [Vec3, Vec3] = [
    [p[0] - a[0], p[1] - a[1], p[2] - a[2]],
    [b[0] - p[0], b[1] - p[1], b[2] - p[2]],
  ]
  const cross = Math.hypot(u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0])
  return cross > TOLERANCE.fine * (Math.hypot(...u) + Math.hypot(...w))
}
