/** Adds to a number of a list; returns what it was. */
export function add(list: Int32Array | Float64Array, i: number, by: number): number {
  const was = list[i] as number
  list[i] = was + by
  return was
}

/**
 * The other side of each edge of a mesh: by half-edge (3 t + k leads from corner k of triangle t to the next), the half-edge that leads
 * back; -1 where there is none.
 */
export function twinsOf(triangles: Uint32Array, vertices: number): Int32Array {
  // The half-edges that begin at each vertex, one behind the other.
  const begin = new Int32Array(vertices + 1)
  for (let i = 0; i < triangles.length; i++) add(begin, (triangles[i] as number) + 1, 1)
  for (let v = 0; v < vertices; v++) add(begin, v + 1, begin[v] as number)
  const free = begin.slice()
  const from = new Int32Array(triangles.length)
  for (let i = 0; i < triangles.length; i++) from[add(free, triangles[i] as number, 1)] = i
  const twins = new Int32Array(triangles.length).fill(-1)
  for (let i = 0; i < triangles.length; i++) {
    const a = triangles[i] as number
    const b = triangles[i % 3 === 2 ? i - 2 : i + 1] as number
    for (let k = begin[b] as number; k < (begin[b + 1] as number); k++) {
      const back = from[k] as number
      if (triangles[back % 3 === 2 ? back - 2 : back + 1] === a) twins[i] = back
    }
  }
  return twins
}
