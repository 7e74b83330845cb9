import { gapOf, type Vec3 } from '../../solid'

/** m in plan: longer triangles are halved, so that the ground under each is near enough straight. */
const LONGEST = 0.5
/** halvings at most */
const MOST_HALVINGS = 12

/** What share of a triangle (m) lies below the ground, 0 to 1. Exact where the ground under it is a plane; `isLevel`: it is so everywhere. */
export const shareBelow = (
  corners: readonly [Vec3, Vec3, Vec3],
  ground: (x: number, y: number) => number,
  isLevel: boolean,
): number => below(corners, ground, isLevel ? MOST_HALVINGS : 0)

function below(
  [a, b, c]: readonly [Vec3, Vec3, Vec3],
  ground: (x: number, y: number) => number,
  depth: number,
): number {
  const sides = [gapOf(a, b), gapOf(b, c), gapOf(c, a)] as const
  const longest = Math.max(...sides)
  if (depth < MOST_HALVINGS && longest > LONGEST) {
    // Halved across its longest side: both halves have half of its area.
    const [p, q, r] = longest === sides[0] ? [a, b, c] : longest === sides[1] ? [b, c, a] : [c, a, b]
    const middle: Vec3 = [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2]
    return (below([p, middle, r], ground, depth + 1) + below([middle, q, r], ground, depth + 1)) / 2
  }
  const over = [a, b, c].map((p) => p[2] - ground(p[0], p[1])).sort((x, y) => x - y)
  const [low = 0, middle = 0, high = 0] = over
  if (low >= 0) return 0
  if (high <= 0) return 1
  // The tip on one side of the ground is a triangle, similar along the two sides that cross it.
  if (middle >= 0) return (low / (low - middle)) * (low / (low - high))
  return 1 - (high / (high - middle)) * (high / (high - low))
}
