import { turnOf } from '@geotome/core/solid'
import type { Geometry, MassView } from '../worker/protocol'

/** A body where it stands, and what it looks like. */
export interface Placed {
  owner: string
  geometry: Geometry
  at: MassView['at']
  tint: string | null
  /** how much of the tint, 0 to 1 */ strength?: number
  /** what it is made of, and its faces where they differ; null: paper */ colour?: string | null
  faceColours?: (string | null)[]
}

/** Ink lines by their ends, and soft lines with two directions each (see protocol.ts); m from the view's origin. */
export interface DrawnLines {
  edges: Float32Array
  contours: Float32Array
}

/** Pieces one behind the other. */
export function joined(pieces: Float32Array[]): Float32Array {
  const all = new Float32Array(pieces.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const piece of pieces) {
    all.set(piece, at)
    at += piece.length
  }
  return all
}

/** Of lines by their ends, those that lie under a height with an end or more. */
export function linesUnder(height: number, segments: Float32Array): Float32Array {
  const found: number[] = []
  for (let i = 0; i < segments.length; i += 6)
    if ((segments[i + 2] ?? 0) < height || (segments[i + 5] ?? 0) < height) found.push(...segments.subarray(i, i + 6))
  return found.length === segments.length ? segments : new Float32Array(found)
}

/** The lines of a body where it stands. */
export function placedLines({ geometry, at: place }: Pick<Placed, 'geometry' | 'at'>): DrawnLines {
  const edges = new Float32Array(geometry.edges.length)
  const contours = new Float32Array(geometry.contours.length)
  const { c, s } = turnOf(place.turn)
  for (let i = 0; i < geometry.edges.length; i += 3) {
    const [x, y, z] = [geometry.edges[i] ?? 0, geometry.edges[i + 1] ?? 0, geometry.edges[i + 2] ?? 0]
    edges[i] = place.x + c * x - s * y
    edges[i + 1] = place.y + s * x + c * y
    edges[i + 2] = place.z + z
  }
  for (let i = 0; i < geometry.contours.length; i += 3) {
    const [x, y, z] = [geometry.contours[i] ?? 0, geometry.contours[i + 1] ?? 0, geometry.contours[i + 2] ?? 0]
    const point = i % 12 < 6 ? 1 : 0
    contours[i] = point * place.x + c * x - s * y
    contours[i + 1] = point * place.y + s * x + c * y
    contours[i + 2] = point * place.z + z
  }
  return { edges, contours }
}

/** the last lines of each geometry by owner, and where it stood then */
const lines = new WeakMap<Geometry, Map<string, { at: string } & DrawnLines>>()

function linesOfOne(item: Placed): DrawnLines {
  const { x, y, z, turn } = item.at
  const at = `${x} ${y} ${z} ${turn}`
  let byOwner = lines.get(item.geometry)
  if (!byOwner) lines.set(item.geometry, (byOwner = new Map()))
  const known = byOwner.get(item.owner)
  if (known?.at === at) return known
  const made = { at, ...placedLines(item) }
  byOwner.set(item.owner, made)
  return made
}

/** The lines alone of bodies placed; what stands as before is taken over as it was. */
export function linesIn(items: readonly Placed[]): DrawnLines {
  const blocks = items.map(linesOfOne)
  return { edges: joined(blocks.map((b) => b.edges)), contours: joined(blocks.map((b) => b.contours)) }
}
