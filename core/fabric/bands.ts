import { intersectRegions, loopArea, onFacets, piecesOf, areaOf, straightened, type Region, type Vec2, type Vec3 } from '../solid'
import { girthOf, unrolled, type WorldFace } from './print'

/**
 * A connected piece of a wall-like face between two heights. (u, z): u runs along the face, counter-clockwise round the mass,
 * z is the height above the datum. `key` names the piece by the faces at its two ends.
 */
export interface Piece { region: Region; from: number; to: number; key: string; z0: number; z1: number; area: number; wide: { from: number; to: number } }

/** The direction of a face in plan at a u, of length one. */
export function alongOf(face: WorldFace, u = 0): Vec2 {
  const arc = face.round
  if (arc) {
    const a = arc.from + arc.sweep * (u / girthOf(arc))
    return [-Math.sin(a) * Math.sign(arc.sweep), Math.cos(a) * Math.sign(arc.sweep)]
  }
  const length = Math.hypot(face.plane.n[0], face.plane.n[1])
  return [-face.plane.n[1] / length, face.plane.n[0] / length]
}

/** The point in plan of a u on the face; on a leaning face it depends on the height. u counts from the face's first corner, or along its arc. */
export function pointAt(face: WorldFace, u: number, z = 0): Vec2 {
  if (face.round) return onFacets(face.round, u / girthOf(face.round))
  const [dx, dy] = alongOf(face)
  const origin = face.loops[0]?.[0] ?? [0, 0, 0]
  const { n, d } = face.plane
  const level = n[0] * n[0] + n[1] * n[1]
  // The first corner, set back onto the plane at this height along the plane's own direction in plan.
  const off = (d - n[2] * z - n[0] * origin[0] - n[1] * origin[1]) / level
  return [origin[0] + n[0] * off + dx * u, origin[1] + n[1] * off + dy * u]
}

/** The pieces of a wall-like face between two heights (m; to may be Infinity), in the order of u. */
export function piecesBetween(face: WorldFace, zFrom: number, zTo: number): Piece[] {
  const whole = unrolled(face)
  return piecesOf(clipped(whole.map(straightened), zFrom, zTo)).filter((r) => areaOf(r) > 1e-4).map((region): Piece => {
    const points = region.flat()
    const zs = points.map((p) => p[1])
    const us = points.map((p) => p[0])
    const z0 = Math.min(...zs)
    const foot = points.filter((p) => p[1] < z0 + 1e-5).map((p) => p[0])
    const [from, to] = foot.length > 1 ? [Math.min(...foot), Math.max(...foot)] : [Math.min(...us), Math.max(...us)]
    const key = `${neighbour(whole, face.beyond, z0 + 1e-3, from)}>${neighbour(whole, face.beyond, z0 + 1e-3, to)}`
    return { region, from, to, key, z0, z1: Math.max(...zs), area: areaOf(region), wide: { from: Math.min(...us), to: Math.max(...us) } }
  }).sort((a, b) => a.from - b.from)
}

/** The faces across those edges of a wall-like face that look up, within a stretch of u, at or above a height. */
export function facesAbove(face: WorldFace, from: number, to: number, z: number): string[] {
  const names: string[] = []
  unrolled(face).forEach((loop, l) => loop.forEach(([ua, za], i) => {
    const [ub, zb] = loop[(i + 1) % loop.length] as Vec2
    if (ub < ua - 1e-6 && Math.max(za, zb) > z + 1e-5 && ua > from + 1e-6 && ub < to - 1e-6) names.push(face.beyond[l]?.[i] ?? '')
  }))
  return names
}

function clipped(region: Region, zFrom: number, zTo: number): Region {
  const points = region.flat()
  const us = points.map((p) => p[0])
  const zs = points.map((p) => p[1])
  const [u0, u1, z0, z1] = [Math.min(...us), Math.max(...us), Math.min(...zs), Math.max(...zs)]
  const [low, high] = [Math.max(zFrom, z0), Math.min(zTo, z1)]
  if (high - low < 1e-5) return []
  if (low === z0 && high === z1) return region
  const box = region.length === 1 && region[0]?.length === 4 && Math.abs(loopArea(region[0]) - (u1 - u0) * (z1 - z0)) < 1e-9
  const band: Region = [[[u0, low], [u1, low], [u1, high], [u0, high]]]
  return box ? band : intersectRegions(region, [[[u0 - 1, low], [u1 + 1, low], [u1 + 1, high], [u0 - 1, high]]])
}

/** The face across the edge that lies nearest to u at the height z. */
function neighbour(loops: Vec2[][], beyond: string[][], z: number, u: number): string {
  let best = { off: Infinity, name: '' }
  loops.forEach((loop, l) => loop.forEach((a, i) => {
    const b = loop[(i + 1) % loop.length] as Vec2
    if ((a[1] > z) === (b[1] > z)) return
    const off = Math.abs(a[0] + ((z - a[1]) / (b[1] - a[1])) * (b[0] - a[0]) - u)
    if (off < best.off - 1e-6) best = { off, name: beyond[l]?.[i] ?? '' }
  }))
  return best.name
}

/** The lowest point of a face, m. */
export const lowestOf = (face: WorldFace): number => Math.min(...(face.bent ? face.flats : face.loops).flat().map((p: Vec3) => p[2]))
