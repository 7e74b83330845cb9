import type { Memo } from '../project'
import { sweepRegion, type Region, type Trim, type Vec2 } from '../solid'
import { alongOf, piecesBetween, pointAt, type Piece } from './bands'
import { crossing, type PartBody } from './body'
import type { WorldFace } from './print'

/** A wall before it is joined: its piece of face, thickness (m) and the side of the face it lies on. */
export interface WallInput { id: string; storey: string; face: WorldFace; piece: Piece; thickness: number; side: 'inside' | 'outside' }

/** A wall with its body and its plan at the foot (outer line first, counter-clockwise round the mass). */
export interface WallShape { id: string; body: PartBody; plan: Region; length: number; faceArea: number }

/** The piece of a face that a wall stands on: by the names at its ends, or the only one there is. */
export function wallPiece(face: WorldFace, zFrom: number, zTo: number, key: string): Piece | null {
  const pieces = piecesBetween(face, zFrom, zTo)
  return pieces.find((p) => p.key === key) ?? (pieces.length === 1 ? pieces[0] ?? null : null)
}

/** Shapes all walls, those of a storey joined together: where one ends and the next begins they meet in a mitre. */
export function shapeWalls(walls: WallInput[], memo: Memo): WallShape[] {
  const storeys = new Map<string, WallInput[]>()
  for (const wall of walls) {
    const list = storeys.get(wall.storey)
    if (list) list.push(wall)
    else storeys.set(wall.storey, [wall])
  }
  return [...storeys.values()].flatMap((list) => (list[0] ? memo.of(list[0], 'storey', list, () => shapeStorey(list, memo)) : []))
}

function shapeStorey(walls: WallInput[], memo: Memo): WallShape[] {
  const lines = walls.map(lineOf)
  const starts = new Map<string, Line[]>()
  const ends = new Map<string, Line[]>()
  for (const line of lines) {
    put(starts, spot(line.start), line)
    put(ends, spot(line.end), line)
  }
  return lines.map((line) => {
    const before = neighbourAt(ends, line, line.start)
    const after = neighbourAt(starts, line, line.end)
    return memo.of(line.wall, 'shape', [before?.wall, after?.wall], () => shape(line, corner(line, before, line.start), corner(line, after, line.end)))
  })
}

interface Line { wall: WallInput; start: Vec2; end: Vec2; along: Vec2; /** from the face to the wall's other side */ off: Vec2 }

function lineOf(wall: WallInput): Line {
  const { n } = wall.face.plane
  const length = Math.hypot(n[0], n[1])
  const t = (wall.side === 'inside' ? -wall.thickness : wall.thickness) / length
  return { wall, start: pointAt(wall.face, wall.piece.from), end: pointAt(wall.face, wall.piece.to), along: alongOf(wall.face), off: [n[0] * t, n[1] * t] }
}

/** Where the far line of a wall ends: on the far line of the wall that it meets, or square across. */
function corner(line: Line, other: Line | null, at: Vec2): Vec2 {
  const square: Vec2 = [at[0] + line.off[0], at[1] + line.off[1]]
  if (!other) return square
  return crossing(square, line.along, [at[0] + other.off[0], at[1] + other.off[1]], other.along) ?? square
}

function shape(line: Line, innerStart: Vec2, innerEnd: Vec2): WallShape {
  const { wall, start, end, along } = line
  const { piece } = wall
  const length = piece.to - piece.from
  const runs = (innerEnd[0] - innerStart[0]) * along[0] + (innerEnd[1] - innerStart[1]) * along[1] > 1e-9
  // A wall shorter than its neighbours are thick comes to a point where the two mitres cross.
  const point = runs ? null : crossing(start, [innerStart[0] - start[0], innerStart[1] - start[1]], end, [innerEnd[0] - end[0], innerEnd[1] - end[1]])
  const far = point ? [point] : [innerEnd, innerStart]
  const ring: Vec2[] = wall.side === 'inside' ? [start, end, ...far] : [end, start, ...[...far].reverse()]
  const plan: Region = [ring]
  const upright = piece.region.length === 1 && Math.abs(piece.area - length * (piece.z1 - piece.z0)) < 1e-6
  if (upright) return { id: wall.id, plan, length, faceArea: piece.area, body: { kind: 'prism', region: plan, z0: piece.z0, z1: piece.z1 } }

  const origin: Vec2 = start
  const local = piece.region.map((loop) => loop.map(([u, z]): Vec2 => [u - piece.from, z]))
  const depth = wall.side === 'inside' ? -wall.thickness : wall.thickness
  const { n } = wall.face.plane
  const trims: Trim[] = []
  // Above a lower roof a piece may reach beyond its foot: there is no corner to mitre there.
  if (piece.wide.from > piece.from - 1e-6) trims.push(trimAt(start, innerStart, along, 1))
  if (piece.wide.to < piece.to + 1e-6) trims.push(trimAt(end, innerEnd, along, -1))
  // A reflex corner's mitre lies beyond the end of the face: the piece is swept that much longer before it is trimmed.
  const reach = (p: Vec2) => (p[0] - start[0]) * along[0] + (p[1] - start[1]) * along[1]
  const [low, high] = [Math.min(0, reach(innerStart)), Math.max(length, reach(innerEnd))]
  const longer = low < -1e-9 || high > length + 1e-9 ? local.map((loop) => loop.map(([u, z]): Vec2 => [Math.abs(u) < 1e-6 ? low : Math.abs(u - length) < 1e-6 ? high : u, z])) : local
  const mesh = sweepRegion(longer, depth, { origin: [origin[0], origin[1], 0], u: [along[0], along[1], 0], v: [0, 0, 1], w: [n[0], n[1], 0] }, trims)
  return { id: wall.id, plan, length, faceArea: piece.area, body: { kind: 'mesh', mesh } }
}

/** The upright plane through a corner's two points, keeping the wall's side of it. */
function trimAt(outer: Vec2, inner: Vec2, along: Vec2, keep: 1 | -1): Trim {
  const [dx, dy] = [inner[0] - outer[0], inner[1] - outer[1]]
  const length = Math.hypot(dx, dy) || 1
  const n: Vec2 = [-dy / length, dx / length]
  const sign = n[0] * along[0] + n[1] * along[1] > 0 ? keep : -keep
  return { at: outer, n: [n[0] * sign, n[1] * sign] }
}

/** A cell of 2 mm; points that are one but for rounding lie in it or in a cell beside it, which (dx, dy) tells. */
const spot = ([x, y]: Vec2, dx = 0, dy = 0) => `${Math.round(x * 500) + dx}/${Math.round(y * 500) + dy}`

function put(map: Map<string, Line[]>, key: string, line: Line): void {
  const list = map.get(key)
  if (list) list.push(line)
  else map.set(key, [line])
}

/** The wall of the same storey and side that begins or ends where this one ends or begins. */
function neighbourAt(map: Map<string, Line[]>, line: Line, at: Vec2): Line | null {
  for (const dx of [0, -1, 1]) for (const dy of [0, -1, 1]) {
    const found = map.get(spot(at, dx, dy))?.find((o) => o !== line && o.wall.side === line.wall.side)
    if (found) return found
  }
  return null
}
