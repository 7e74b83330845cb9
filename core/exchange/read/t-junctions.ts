import { cornerAt, dotOf, lessOf, type Vec3 } from '../../solid'

/** Passes over all open edges: a triangle may have corners of others on each of its three edges. */
const PASSES = 4

/**
 * Splits triangles where another's corner lies on their open edge (an edge that one triangle has alone), so that both meet. `within`: m that the
 * corner may lie off the edge. Closed edges stay, and with them closed bodies.
 */
export function joinedAtEdges(corners: readonly number[], triangles: readonly number[], within: number): number[] {
  let now = [...triangles]
  for (let pass = 0; pass < PASSES; pass++) {
    const next = splitOnce(corners, now, within)
    if (!next) return now
    now = next
  }
  return now
}

/** The triangles with one open edge of each split; null where there is nothing to split. */
function splitOnce(corners: readonly number[], triangles: readonly number[], within: number): number[] | null {
  const open = openEdges(triangles)
  if (open.length === 0) return null
  const onOpen = [...new Set(open.flatMap(([a, b]) => [a, b]))]
  const sorted = onOpen.map((v) => ({ v, x: corners[v * 3] ?? 0 })).sort((p, q) => p.x - q.x)
  const splits = new Map<number, { edge: number; vertices: number[] }>()
  for (const [a, b, at] of open) {
    const triangle = Math.floor(at / 3)
    if (splits.has(triangle)) continue
    const vertices = onEdge(corners, a, b, sorted, within)
    if (vertices.length) splits.set(triangle, { edge: at % 3, vertices })
  }
  if (splits.size === 0) return null
  const out: number[] = []
  for (let t = 0; t < triangles.length / 3; t++) {
    const split = splits.get(t)
    const corner = (k: number) => triangles[t * 3 + (k % 3)] ?? 0
    if (!split) {
      out.push(corner(0), corner(1), corner(2))
      continue
    }
    const [a, b, apex] = [corner(split.edge), corner(split.edge + 1), corner(split.edge + 2)]
    const line = [a, ...split.vertices.filter((v) => v !== apex), b]
    for (let i = 0; i + 1 < line.length; i++) out.push(line[i] ?? 0, line[i + 1] ?? 0, apex)
  }
  return out
}

/** The edges that one triangle has alone: from, to, and where it begins among the triangles' corners. */
function openEdges(triangles: readonly number[]): [number, number, number][] {
  const uses = new Map<string, number>()
  const key = (a: number, b: number) => (a < b ? `${a}/${b}` : `${b}/${a}`)
  const end = (i: number) => triangles[i % 3 === 2 ? i - 2 : i + 1] ?? 0
  triangles.forEach((a, i) => uses.set(key(a, end(i)), (uses.get(key(a, end(i))) ?? 0) + 1))
  return triangles.flatMap((a, i): [number, number, number][] =>
    uses.get(key(a, end(i))) === 1 ? [[a, end(i), i]] : [],
  )
}

/** The vertices that lie on an edge between its ends, in the order in which they come. */
function onEdge(
  corners: readonly number[],
  a: number,
  b: number,
  sorted: readonly { v: number; x: number }[],
  within: number,
): number[] {
  const [from, to] = [cornerAt(corners, a), cornerAt(corners, b)]
  const along = lessOf(to, from)
  const length = Math.hypot(...along)
  const high = Math.max(from[0], to[0]) + within
  const found: { v: number; t: number }[] = []
  for (let i = firstFrom(sorted, Math.min(from[0], to[0]) - within); i < sorted.length; i++) {
    const { v, x } = sorted[i] ?? { v: a, x: Infinity }
    if (x > high) break
    if (v === a || v === b) continue
    const gap = lessOf(cornerAt(corners, v), from)
    const t = dotOf(gap, along) / length
    const off: Vec3 = [0, 1, 2].map((k) => (gap[k] ?? 0) - (t * (along[k] ?? 0)) / length) as Vec3
    if (t > within && t < length - within && Math.hypot(...off) < within) found.push({ v, t })
  }
  return found.sort((p, q) => p.t - q.t).map(({ v }) => v)
}

/** The first of the sorted vertices whose x is at least so much. */
function firstFrom(sorted: readonly { x: number }[], x: number): number {
  let [low, high] = [0, sorted.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((sorted[middle]?.x ?? 0) < x) low = middle + 1
    else high = middle
  }
  return low
}
