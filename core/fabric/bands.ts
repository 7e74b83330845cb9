import { intersectRegions, loopArea, piecesOf, areaOf, straightened, type Region, type Vec2, type Vec3 } from '../solid'
import type { WorldFace } from './print'

/**
 * A connected piece of an upright face between two heights. (u, z): u runs along the face, counter-clockwise round the mass,
 * z is the height above the datum. `key` names the piece by the faces at its two ends.
 */
export interface Piece { region: Region; from: number; to: number; key: string; z0: number; z1: number; area: number; wide: { from: number; to: number } }

/** Where u is measured: along the face from the foot of the origin. */
export const alongOf = (face: WorldFace): Vec2 => {
  const length = Math.hypot(face.plane.n[0], face.plane.n[1])
  return [-face.plane.n[1] / length, face.plane.n[0] / length]
}

/** The point in plan of a u on the face. */
export function pointAt(face: WorldFace, u: number): Vec2 {
  const [dx, dy] = alongOf(face)
  const length = Math.hypot(face.plane.n[0], face.plane.n[1])
  const foot = face.plane.d / (length * length)
  return [face.plane.n[0] * foot + dx * u, face.plane.n[1] * foot + dy * u]
}

/** The pieces of an upright face between two heights (m; to may be Infinity), in the order of u. */
export function piecesBetween(face: WorldFace, zFrom: number, zTo: number): Piece[] {
  const [dx, dy] = alongOf(face)
  // u from the first corner while clipping, so that map coordinates lose nothing
  const origin = face.loops[0]?.[0] ?? [0, 0, 0]
  const u0 = dx * origin[0] + dy * origin[1]
  const uz = (p: Vec3): Vec2 => [dx * (p[0] - origin[0]) + dy * (p[1] - origin[1]), p[2]]
  const whole = face.loops.map((l) => l.map(uz))
  return piecesOf(clipped(whole.map(straightened), zFrom, zTo)).filter((r) => areaOf(r) > 1e-4).map((region): Piece => {
    const points = region.flat()
    const zs = points.map((p) => p[1])
    const us = points.map((p) => p[0])
    const z0 = Math.min(...zs)
    const foot = points.filter((p) => p[1] < z0 + 1e-5).map((p) => p[0])
    const [from, to] = foot.length > 1 ? [Math.min(...foot), Math.max(...foot)] : [Math.min(...us), Math.max(...us)]
    const key = `${neighbour(whole, face.beyond, z0 + 1e-3, from)}>${neighbour(whole, face.beyond, z0 + 1e-3, to)}`
    return {
      region: region.map((l) => l.map(([u, z]): Vec2 => [u + u0, z])), from: from + u0, to: to + u0, key, z0, z1: Math.max(...zs),
      area: areaOf(region), wide: { from: Math.min(...us) + u0, to: Math.max(...us) + u0 },
    }
  }).sort((a, b) => a.from - b.from)
}

/** The faces across those edges of an upright face that look up, within a stretch of u, at or above a height. */
export function facesAbove(face: WorldFace, from: number, to: number, z: number): string[] {
  const [dx, dy] = alongOf(face)
  const names: string[] = []
  face.loops.forEach((loop, l) => loop.forEach((a, i) => {
    const b = loop[(i + 1) % loop.length] as Vec3
    const [ua, ub] = [dx * a[0] + dy * a[1], dx * b[0] + dy * b[1]]
    if (ub < ua - 1e-6 && Math.max(a[2], b[2]) > z + 1e-5 && ua > from + 1e-6 && ub < to - 1e-6) names.push(face.beyond[l]?.[i] ?? '')
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
