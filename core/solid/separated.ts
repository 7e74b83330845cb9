import { cornerAt, crossOf, dotOf, lessOf, planeThrough } from './plane'
import { volumeOf, type Solid, type Vec3 } from './solid'
import { TOLERANCE } from '../values'

/**
 * The closed pieces that a mesh falls into. At an edge that more than two triangles share, as where two boxes touch, each triangle goes on
 * to the one across its own inside. One piece where nothing falls apart.
 */
export function separated(solid: Solid): Solid[] {
  const count = solid.triangles.length / 3
  const across = neighbours(solid)
  const piece = new Int32Array(count).fill(-1)
  let pieces = 0
  for (let seed = 0; seed < count; seed++) {
    if (piece[seed] !== -1) continue
    const members = [seed]
    piece[seed] = pieces
    for (const t of members)
      for (let e = 0; e < 3; e++) {
        const other = across[t * 3 + e] as number
        if (other < 0 || piece[other] !== -1) continue
        piece[other] = pieces
        members.push(other)
      }
    pieces++
  }
  return pieces === 1 ? [solid] : Array.from({ length: pieces }, (_, k) => pieceOf(solid, piece, k))
}

/** Returns true when all pieces are bodies that look outwards: what is hollow, or turned, is not to be taken apart. */
export const areAllOutwards = (pieces: readonly Solid[]): boolean => pieces.every((p) => volumeOf(p) > TOLERANCE.volume)

/** By half-edge (3 x triangle + side) the triangle across it; -1 where there is none. */
function neighbours({ positions, triangles }: Solid): Int32Array {
  const vertices = positions.length / 3
  const sides = new Map<number, number[]>()
  const start = (h: number) => triangles[h] as number
  const end = (h: number) => triangles[h % 3 === 2 ? h - 2 : h + 1] as number
  for (let h = 0; h < triangles.length; h++) {
    const [a, b] = [start(h), end(h)]
    const key = a < b ? a * vertices + b : b * vertices + a
    const list = sides.get(key)
    if (list) list.push(h)
    else sides.set(key, [h])
  }
  const across = new Int32Array(triangles.length).fill(-1)
  const at = (v: number) => cornerAt(positions, v)
  for (const list of sides.values()) {
    const [one, two, more] = list
    if (one === undefined || two === undefined) continue
    if (more === undefined) {
      across[one] = Math.floor(two / 3)
      across[two] = Math.floor(one / 3)
      continue
    }
    const [a, b] = [at(start(one)), at(end(one))]
    const way = unit(lessOf(b, a))
    const angles = list.map((h) => {
      const t = Math.floor(h / 3) * 3
      const far = [0, 1, 2].map((k) => triangles[t + k] as number).find((v) => v !== start(h) && v !== end(h)) ?? 0
      return angleAbout(way, lessOf(at(far), a))
    })
    list.forEach((h, i) => {
      const isForward = start(h) === start(one)
      // The inside lies behind a triangle: clockwise about its own edge.
      let best = { turn: Infinity, other: -1 }
      list.forEach((o, k) => {
        if (k === i || (start(o) === start(one)) === isForward) return
        const by = ((isForward ? 1 : -1) * ((angles[i] ?? 0) - (angles[k] ?? 0))) % (2 * Math.PI)
        const turn = by <= TOLERANCE.slope ? by + 2 * Math.PI : by
        if (turn < best.turn) best = { turn, other: o }
      })
      if (best.other >= 0) across[h] = Math.floor(best.other / 3)
    })
  }
  return across
}

const unit = (v: Vec3): Vec3 => {
  const l = Math.hypot(...v) || 1
  return [v[0] / l, v[1] / l, v[2] / l]
}

/** The angle (radians) of a direction about an axis of length one. */
function angleAbout(axis: Vec3, v: Vec3): number {
  const u = unit(crossOf(axis, Math.abs(axis[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0]))
  return Math.atan2(dotOf(v, crossOf(axis, u)), dotOf(v, u))
}

function pieceOf({ positions, triangles, facetOf, facets }: Solid, piece: Int32Array, k: number): Solid {
  const number = new Map<number, number>()
  const own: number[] = []
  const kept: number[] = []
  const keptOf: number[] = []
  piece.forEach((p, t) => {
    if (p !== k) return
    for (let e = 0; e < 3; e++) {
      const v = triangles[t * 3 + e] as number
      let n = number.get(v)
      if (n === undefined) {
        number.set(v, (n = own.length / 3))
        own.push(...cornerAt(positions, v))
      }
      kept.push(n)
    }
    keptOf.push(facetOf[t] as number)
  })
  // A face that goes over several pieces has a plane of its own in each.
  const planes = new Map<number, number>()
  const mine = keptOf.map((f, i) => {
    let n = planes.get(f)
    if (n === undefined) planes.set(f, (n = planes.size))
    return [n, i] as const
  })
  const firstOf = [...planes.keys()].map((f) => keptOf.indexOf(f))
  return {
    positions: Float64Array.from(own),
    triangles: Uint32Array.from(kept),
    facetOf: Uint32Array.from(mine.map(([n]) => n)),
    facets: [...planes.keys()].map((f, i) => {
      const t = (firstOf[i] as number) * 3
      const [a, b, c] = [0, 1, 2].map((e) => cornerAt(own, kept[t + e] as number)) as [Vec3, Vec3, Vec3]
      const facet = facets[f] as Solid['facets'][number]
      return facet.surface ? facet : { ...facet, plane: planeThrough(a, b, c) }
    }),
  }
}
