import { cornerAt, crossOf, dotOf, lessOf } from '../../solid'

/**
 * Triangles turned so that all look outwards: neighbours alike first, then each connected piece as a whole, by its volume. `done` says what was
 * changed. What is not closed is turned as well as can be told.
 */
export function oriented(corners: number[], triangles: number[]): { triangles: number[]; done: string[] } {
  const count = triangles.length / 3
  const vertices = corners.length / 3
  const key = (a: number, b: number) => (a < b ? a * vertices + b : b * vertices + a)
  const edges = new Map<number, number[]>()
  for (let i = 0; i < triangles.length; i++) {
    const k = key(triangles[i] ?? 0, triangles[i % 3 === 2 ? i - 2 : i + 1] ?? 0)
    const list = edges.get(k)
    if (list) list.push(i)
    else edges.set(k, [i])
  }
  const flip = new Uint8Array(count)
  const piece = new Int32Array(count).fill(-1)
  const pieces: number[][] = []
  let turned = 0
  for (let seed = 0; seed < count; seed++) {
    if (piece[seed] !== -1) continue
    const members = [seed]
    piece[seed] = pieces.length
    for (const t of members)
      for (let e = 0; e < 3; e++) {
        const i = t * 3 + e
        const [a, b] = [triangles[i] ?? 0, triangles[e === 2 ? i - 2 : i + 1] ?? 0]
        const pair = edges.get(key(a, b)) ?? []
        if (pair.length !== 2) continue
        const other = pair[0] === i ? (pair[1] ?? i) : (pair[0] ?? i)
        const o = Math.floor(other / 3)
        if (piece[o] !== -1) continue
        piece[o] = pieces.length
        // Neighbours that run along their common edge in one sense look to different sides.
        const alike = (triangles[other] ?? 0) === a
        flip[o] = alike ? 1 - (flip[t] ?? 0) : (flip[t] ?? 0)
        if (flip[o]) turned++
        members.push(o)
      }
    pieces.push(members)
  }
  const volume = (members: number[]) =>
    members.reduce((sum, t) => {
      const [a, b, c] = [0, 1, 2].map((k) =>
        lessOf(cornerAt(corners, triangles[t * 3 + k] ?? 0), cornerAt(corners, 0)),
      ) as [[number, number, number], [number, number, number], [number, number, number]]
      return sum + ((flip[t] ? -1 : 1) * dotOf(a, crossOf(b, c))) / 6
    }, 0)
  const volumes = pieces.map(volume)
  const total = volumes.reduce((a, b) => a + b, 0)
  const done: string[] = []
  if (turned === 0 && total < 0) {
    flip.fill(1)
    done.push('its faces looked inwards, and were turned')
  } else if (turned > 0) {
    pieces.forEach((members, p) => {
      if ((volumes[p] ?? 0) < 0) for (const t of members) flip[t] = 1 - (flip[t] ?? 0)
    })
    done.push(`${flip.reduce((n, f) => n + f, 0)} of its triangles looked to the other side, and were turned`)
  }
  if (done.length === 0) return { triangles, done }
  return {
    done,
    triangles: triangles.map((v, i) =>
      flip[Math.floor(i / 3)] ? (triangles[i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1] ?? v) : v,
    ),
  }
}
