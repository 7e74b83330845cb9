import {
  areaOf,
  intersectRegions,
  loopArea,
  onFacets,
  piecesOf,
  rectOf,
  straightened,
  uniteRegions,
  type Region,
  type Vec2,
  type Vec3,
  stripName,
  TOLERANCE,
} from '../solid'
import { girthOf, unrolled, type WorldFace } from './print'

/**
 * A connected piece of a wall-like face between two heights. (u, z): u runs along the face, counter-clockwise round the mass,
 * z is the height above the datum. `key` names the piece by the faces at its two ends.
 */
export interface Piece {
  region: Region
  from: number
  to: number
  key: string
  z0: number
  z1: number
  area: number
  wide: { from: number; to: number }
}

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

/**
 * The point in plan of a u on the face; on a leaning face it depends on the height. u counts from the face's first corner, or along its
 * arc.
 */
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

/**
 * The pieces of a wall-like face between two heights (m; to may be Infinity), in the order of u. Where it has an opening at its foot it is
 * divided there; an opening to mere roof space, by the faces over it (`closed` tells by their names), is closed up instead.
 */
export function piecesBetween(
  face: WorldFace,
  zFrom: number,
  zTo: number,
  closed: (over: string[]) => boolean = () => false,
): Piece[] {
  const clip = clipped(smooth(face), zFrom, zTo)
  // Most pieces are upright rectangles: nothing opens at their foot.
  if (isBox(clip)) return areaOf(clip) > TOLERANCE.area ? [pieceOf(face, clip)] : []
  const between = closedUp(face, clip, zFrom, zTo, closed)
  return piecesOf(between)
    .flatMap(dividedAtFoot)
    .filter((r) => areaOf(r) > TOLERANCE.area)
    .map((region) => pieceOf(face, region))
    .sort((a, b) => a.from - b.from)
}

/** A face laid flat, without points on its straight edges; worked out once. */
function smooth(face: WorldFace): Region {
  let region = smoothed.get(face)
  if (!region) smoothed.set(face, (region = unrolled(face).map(straightened)))
  return region
}
const smoothed = new WeakMap<WorldFace, Region>()

/** Returns true when a region is one rectangle with upright sides, to the last digit. */
function isBox(region: Region): boolean {
  const loop = region[0]
  if (region.length !== 1 || loop?.length !== 4) return false
  const { x0, y0, x1, y1 } = rectOf(region)
  return loop.every(([u, z], i) => {
    const [v, w] = loop[(i + 1) % 4] as Vec2
    return (u === x0 || u === x1) && (z === y0 || z === y1) && (u === v) !== (z === w)
  })
}

/** A piece by its region; `key` names it by the faces at its two ends. */
export function pieceOf(face: WorldFace, region: Region): Piece {
  const rect = rectOf(region)
  const z0 = rect.y0
  const foot = { x0: Infinity, x1: -Infinity, count: 0 }
  for (const loop of region)
    for (const [u, z] of loop) {
      if (z >= z0 + TOLERANCE.height) continue
      foot.x0 = Math.min(foot.x0, u)
      foot.x1 = Math.max(foot.x1, u)
      foot.count++
    }
  const [from, to] = foot.count > 1 ? [foot.x0, foot.x1] : [rect.x0, rect.x1]
  const whole = unrolled(face)
  const at = (u: number) => neighbour(whole, face.beyond, z0 + TOLERANCE.least, u)
  const key = stripName(at(from), at(to))
  return { region, from, to, key, z0, z1: rect.y1, area: areaOf(region), wide: { from: rect.x0, to: rect.x1 } }
}

/** The stretches of u along which a region stands on its foot, m. */
export function footRuns(region: Region): [number, number][] {
  const z0 = Math.min(...region.flat().map((p) => p[1]))
  const runs = region
    .flatMap((loop) =>
      loop.flatMap((a, i): [number, number][] => {
        const b = loop[(i + 1) % loop.length] as Vec2
        return a[1] < z0 + TOLERANCE.height && b[1] < z0 + TOLERANCE.height && Math.abs(b[0] - a[0]) > TOLERANCE.point
          ? [[Math.min(a[0], b[0]), Math.max(a[0], b[0])]]
          : []
      }),
    )
    .sort((a, b) => a[0] - b[0])
  return runs.reduce<[number, number][]>((joined, run) => {
    const last = joined.at(-1)
    if (last && run[0] < last[1] + LEAST_OPENING) {
      last[1] = Math.max(last[1], run[1])
      return joined
    }
    return [...joined, [...run]]
  }, [])
}
/** m: what is narrower is no opening */
const LEAST_OPENING = 0.01

/** A region divided by upright lines at the sides of the openings at its foot; what lies over them is a region of its own. */
export function dividedAtFoot(region: Region): Region[] {
  const runs = footRuns(region)
  if (runs.length <= 1) return [region]
  const rect = rectOf(region)
  const lines = [
    rect.x0 - 1,
    ...runs.slice(1).flatMap((run, i) => [(runs[i] as [number, number])[1], run[0]]),
    rect.x1 + 1,
  ]
  return lines.slice(1).flatMap((to, i) =>
    piecesOf(
      intersectRegions(region, [
        [
          [lines[i] as number, rect.y0 - 1],
          [to, rect.y0 - 1],
          [to, rect.y1 + 1],
          [lines[i] as number, rect.y1 + 1],
        ],
      ]),
    ),
  )
}

/** The stretch with those openings at the foot closed that lead to mere roof space: up to the faces over them. */
function closedUp(
  face: WorldFace,
  between: Region,
  zFrom: number,
  zTo: number,
  closed: (over: string[]) => boolean,
): Region {
  if (between.length === 0 || Math.abs(Math.min(...between.flat().map((p) => p[1])) - zFrom) > TOLERANCE.height)
    return between
  const runs = piecesOf(between)
    .flatMap(footRuns)
    .sort((a, b) => a[0] - b[0])
  const gaps = runs.slice(1).flatMap((run, i): [number, number][] => {
    const from = (runs[i] as [number, number])[1]
    return run[0] - from > LEAST_OPENING ? [[from, run[0]]] : []
  })
  const fills = gaps.flatMap(([from, to]): Region[] => {
    const over: { name: string; z: number }[] = []
    unrolled(face).forEach((loop, l) =>
      loop.forEach(([ua, za], i) => {
        const [ub, zb] = loop[(i + 1) % loop.length] as Vec2
        if (
          ub > ua + TOLERANCE.point &&
          Math.min(ub, to) - Math.max(ua, from) > TOLERANCE.touch &&
          Math.max(za, zb) > zFrom + TOLERANCE.height
        )
          over.push({ name: face.beyond[l]?.[i] ?? '', z: Math.max(za, zb) })
      }),
    )
    const top = Math.min(zTo, Math.max(...over.map((o) => o.z)))
    return over.length && closed(over.map((o) => o.name))
      ? [
          [
            [
              [from, zFrom],
              [to, zFrom],
              [to, top],
              [from, top],
            ],
          ],
        ]
      : []
  })
  return fills.length ? uniteRegions([between, ...fills]) : between
}

/** The faces across those edges of a wall-like face that look up, within a stretch of u, at or above a height. */
export function facesAbove(face: WorldFace, from: number, to: number, z: number): string[] {
  const names: string[] = []
  unrolled(face).forEach((loop, l) =>
    loop.forEach(([ua, za], i) => {
      const [ub, zb] = loop[(i + 1) % loop.length] as Vec2
      if (
        ub < ua - TOLERANCE.point &&
        Math.max(za, zb) > z + TOLERANCE.height &&
        ua > from + TOLERANCE.point &&
        ub < to - TOLERANCE.point
      )
        names.push(face.beyond[l]?.[i] ?? '')
    }),
  )
  return names
}

function clipped(region: Region, zFrom: number, zTo: number): Region {
  const { x0: u0, y0: z0, x1: u1, y1: z1 } = rectOf(region)
  const [low, high] = [Math.max(zFrom, z0), Math.min(zTo, z1)]
  if (high - low < TOLERANCE.height) return []
  if (low === z0 && high === z1) return region
  const box =
    region.length === 1 &&
    region[0]?.length === 4 &&
    Math.abs(loopArea(region[0]) - (u1 - u0) * (z1 - z0)) < TOLERANCE.rounding
  const between: Region = [
    [
      [u0, low],
      [u1, low],
      [u1, high],
      [u0, high],
    ],
  ]
  return box
    ? between
    : intersectRegions(region, [
        [
          [u0 - 1, low],
          [u1 + 1, low],
          [u1 + 1, high],
          [u0 - 1, high],
        ],
      ])
}

/** The face across the edge that lies nearest to u at the height z. */
function neighbour(loops: Vec2[][], beyond: string[][], z: number, u: number): string {
  let best = { off: Infinity, name: '' }
  loops.forEach((loop, l) =>
    loop.forEach((a, i) => {
      const b = loop[(i + 1) % loop.length] as Vec2
      if (a[1] > z === b[1] > z) return
      const off = Math.abs(a[0] + ((z - a[1]) / (b[1] - a[1])) * (b[0] - a[0]) - u)
      if (off < best.off - TOLERANCE.point) best = { off, name: beyond[l]?.[i] ?? '' }
    }),
  )
  return best.name
}

/** The lowest point of a face, m. */
export const lowestOf = (face: WorldFace): number =>
  Math.min(...(face.bent ? face.flats : face.loops).flat().map((p: Vec3) => p[2]))
