import { TOLERANCE } from '../values'

/** A mesh that grows: coordinates (m) by threes, corners by threes, and the facet of each triangle. */
export interface OpenMesh {
  points: number[]
  triangles: number[]
  facetOf: number[]
}

/** Divides the triangles that pass through heights (m, from the lowest up) there: each in bands from one height to the next. */
export function divideAtRows(mesh: OpenMesh, rows: readonly number[]): void {
  const { points } = mesh
  const count = points.length / 3
  const height = (v: number) => points[v * 3 + 2] as number
  /** by edge: the first of the corners at its rows, which follow one another upwards */
  const firstOf = new Map<number, number>()
  const firstAt = (a: number, b: number, from: number, to: number): number => {
    const [low, high] = a < b ? [a, b] : [b, a]
    const key = low * count + high
    const known = firstOf.get(key)
    if (known !== undefined) return known
    const first = points.length / 3
    firstOf.set(key, first)
    const [x, y, z] = [points[low * 3] as number, points[low * 3 + 1] as number, points[low * 3 + 2] as number]
    const [dx, dy, dz] = [(points[high * 3] as number) - x, (points[high * 3 + 1] as number) - y, height(high) - z]
    for (let r = from; r < to; r++) {
      const t = ((rows[r] as number) - z) / dz
      points.push(x + t * dx, y + t * dy, rows[r] as number)
    }
    return first
  }
  /** a triangle's edge, cut at its rows: its corners without the last, from its first end on */
  const addEdge = (ring: number[], a: number, b: number): void => {
    ring.push(a)
    const [low, high] = height(a) < height(b) ? [a, b] : [b, a]
    const from = rowsBelow(rows, height(low) + TOLERANCE.height)
    const to = rowsBelow(rows, height(high) - TOLERANCE.height)
    if (from >= to) return
    const first = firstAt(a, b, from, to)
    if (low === a) for (let k = 0; k < to - from; k++) ring.push(first + k)
    else for (let k = to - from - 1; k >= 0; k--) ring.push(first + k)
  }
  const [triangles, facetOf]: [number[], number[]] = [[], []]
  const { triangles: were, facetOf: facetWas } = mesh
  for (let t = 0; t < were.length; t += 3) {
    const ring: number[] = []
    for (let k = 0; k < 3; k++) addEdge(ring, were[t + k] as number, were[t + ((k + 1) % 3)] as number)
    const before = triangles.length
    putBands(ring, height, rows, triangles)
    for (let k = before; k < triangles.length; k += 3) facetOf.push(facetWas[t / 3] as number)
  }
  mesh.triangles = triangles
  mesh.facetOf = facetOf
}

/** How many of rising heights are below z. */
function rowsBelow(rows: readonly number[], z: number): number {
  let [low, high] = [0, rows.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((rows[middle] as number) < z) low = middle + 1
    else high = middle
  }
  return low
}

/** Adds the triangles of a triangle whose edges have corners at rows: a fan for each band between two of them. */
function putBands(
  ring: readonly number[],
  height: (v: number) => number,
  rows: readonly number[],
  into: number[],
): void {
  const n = ring.length
  if (n === 3) {
    into.push(ring[0] as number, ring[1] as number, ring[2] as number)
    return
  }
  let [lowest, highest] = [0, 0]
  for (let k = 1; k < n; k++) {
    if (height(ring[k] as number) < height(ring[lowest] as number)) lowest = k
    if (height(ring[k] as number) > height(ring[highest] as number)) highest = k
  }
  const top = height(ring[highest] as number)
  const at = (k: number) => ring[(k + n) % n] as number
  // Two ways lead up from the lowest corner: with the ring, and against it.
  let [up, down] = [lowest, lowest]
  const stopsUp = highest > lowest ? highest : highest + n
  const stopsDown = highest > lowest ? highest - n : highest
  let row = rowsBelow(rows, height(ring[lowest] as number) + TOLERANCE.height)
  for (let isLast = false; !isLast; row++) {
    isLast = row >= rows.length || (rows[row] as number) >= top - TOLERANCE.height
    const limit = isLast ? Infinity : (rows[row] as number) + TOLERANCE.height
    const band: number[] = []
    for (band.push(at(up)); up < stopsUp && height(at(up + 1)) <= limit;) band.push(at(++up))
    const across = [at(down)]
    while (down > stopsDown && height(at(down - 1)) <= limit) across.push(at(--down))
    for (let k = across.length - 1; k >= 0; k--)
      if (across[k] !== band.at(-1) && across[k] !== band[0]) band.push(across[k] as number)
    for (let k = 2; k < band.length; k++) into.push(band[0] as number, band[k - 1] as number, band[k] as number)
  }
}
