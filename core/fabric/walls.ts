import type { Attempts, Memo } from '../project'
import {
  areaOf,
  betweenRings,
  crossOf,
  intersectRegions,
  lessOf,
  sweepRegion,
  unitedSweeps,
  type Mesh,
  type Region,
  type Swept,
  type Trim,
  type Vec2,
  type Vec3,
  TOLERANCE,
  gapOf,
  meetingOf,
} from '../solid'
import { alongOf, piecesBetween, pointAt, type Piece } from './pieces'
import { bodyMesh, mergedMeshes, type PartBody } from './body'
import type { WorldFace } from './print'
import { cornerOf, endOf, farSide, stripPlan, startOf, strandAlong, strandOf, type Strand } from './strands'

/**
 * A wall before it is joined: its piece of face, thickness (m) and the side of the face it lies on; `rows` are the foot and the head of
 * one made of facets.
 */
export interface WallInput {
  id: string
  /** the part that it is a stretch of */ part: string
  name: string
  storey: string
  face: WorldFace
  piece: Piece
  thickness: number
  side: 'inside' | 'outside'
  rows: [Vec3[], Vec3[]] | null
}

/** A wall with its body and its plan at the foot (outer line first, counter-clockwise round the mass). */
export interface WallShape {
  id: string
  part: string
  body: PartBody
  plan: Region
  length: number
  faceArea: number
}

/** The piece of a face that a wall stands on: by the names at its ends, or the only one there is. */
export function wallPiece(
  face: WorldFace,
  zFrom: number,
  zTo: number,
  key: string,
  closed: (over: string[]) => boolean,
): Piece | null {
  const pieces = piecesBetween(face, zFrom, zTo, closed)
  return pieces.find((p) => p.key === key) ?? (pieces.length === 1 ? (pieces[0] ?? null) : null)
}

/** The stretches of one part together. */
export function together(shapes: WallShape[]): WallShape | null {
  const [first, ...rest] = shapes
  if (!first || rest.length === 0) return first ?? null
  const sum = (of: (s: WallShape) => number) => shapes.reduce((total, s) => total + of(s), 0)
  const one = first.body.kind === 'prism' ? first.body : null
  const alike =
    one &&
    shapes.every(
      ({ body: b }) =>
        b.kind === 'prism' &&
        Math.abs(b.z0 - one.z0) < TOLERANCE.rounding &&
        Math.abs(b.z1 - one.z1) < TOLERANCE.rounding,
    )
  const body: PartBody = alike
    ? { ...one, region: shapes.flatMap((s) => (s.body.kind === 'prism' ? s.body.region : [])) }
    : { kind: 'mesh', mesh: mergedMeshes(shapes.map((s) => bodyMesh(s.body))) }
  return {
    ...first,
    body,
    plan: shapes.flatMap((s) => s.plan),
    length: sum((s) => s.length),
    faceArea: sum((s) => s.faceArea),
  }
}

/** Shapes all walls, those of a storey joined together: where one ends and the next begins they meet in a mitre. */
export function shapeWalls(walls: WallInput[], memo: Memo, attempts: Attempts): WallShape[] {
  const storeys = new Map<string, WallInput[]>()
  for (const wall of walls) {
    const list = storeys.get(wall.storey)
    if (list) list.push(wall)
    else storeys.set(wall.storey, [wall])
  }
  return [...storeys.values()].flatMap((list) => {
    const [first] = list
    if (!first) return []
    if (memo.has(first, 'storey', list)) return memo.keep(first, 'storey', list, (): WallShape[] => [])
    return attempts.keepIfWhole(
      () => shapeStorey(list, memo, attempts),
      (shapes) => memo.keep(first, 'storey', list, () => shapes),
    )
  })
}

function shapeStorey(walls: WallInput[], memo: Memo, attempts: Attempts): WallShape[] {
  const ofWall = <T>(wall: WallInput, what: string, work: () => T): T[] =>
    attempts.run<T[]>(
      { what, id: wall.part, name: wall.name, parts: [wall.part] },
      () => [work()],
      () => [],
    )
  const lines = walls.flatMap((wall) => ofWall(wall, 'line', () => memo.keep(wall, 'line', [], () => lineOf(wall))))
  const starts = new Map<string, Line[]>()
  const ends = new Map<string, Line[]>()
  for (const line of lines) {
    if (line.foot.closed) continue
    put(starts, spot(startOf(line.foot)), line)
    put(ends, spot(endOf(line.foot)), line)
  }
  return lines.flatMap((line) => {
    const before = line.foot.closed ? null : neighbourAt(ends, line, startOf(line.foot))
    const after = line.foot.closed ? null : neighbourAt(starts, line, endOf(line.foot))
    return ofWall(line.wall, 'joined wall', () =>
      memo.keep(line.wall, 'shape', [before?.wall, after?.wall], () => shape(line, before, after)),
    )
  })
}

/** A wall's plan at its foot and, where it leans, at its head. */
interface Line {
  wall: WallInput
  foot: Strand
  head: Strand | null
  z0: number
  z1: number
}

function lineOf(wall: WallInput): Line {
  const { face, piece } = wall
  const off = wall.side === 'inside' ? wall.thickness : -wall.thickness
  const heights = { z0: piece.z0, z1: piece.z1 }
  const rows = wall.rows ?? leaningRows(face, piece)
  if (!rows) return { wall, foot: strandOf(face, piece, off), head: null, ...heights }
  // The thickness is square to the face, the plan lies level.
  const level = wall.rows ? off : off / Math.hypot(face.plane.n[0], face.plane.n[1])
  const [low, high] = rows.map((row) =>
    strandAlong(
      row.map(([x, y]): Vec2 => [x, y]),
      level,
    ),
  ) as [Strand, Strand]
  return { wall, foot: low, head: high, ...heights }
}

/** Foot and head of a piece of a leaning face between two level lines; null where it is upright or of another shape. */
function leaningRows(face: WorldFace, piece: Piece): [Vec3[], Vec3[]] | null {
  if (
    face.round ||
    Math.abs(face.plane.n[2]) < TOLERANCE.rounding ||
    piece.region.length !== 1 ||
    piece.region[0]?.length !== 4
  )
    return null
  const at = (z: number) =>
    (piece.region[0] as Vec2[])
      .filter((p) => Math.abs(p[1] - z) < TOLERANCE.point)
      .map((p) => p[0])
      .sort((a, b) => a - b)
  const [low, high] = [at(piece.z0), at(piece.z1)]
  if (low.length !== 2 || high.length !== 2) return null
  const row = (us: number[], z: number) => us.map((u): Vec3 => [...pointAt(face, u, z), z])
  return [row(low, piece.z0), row(high, piece.z1)]
}

/** m2 along the face: of facets by their triangles, of a leaning face by its slope. */
export function faceAreaOf({ face, piece, rows }: Pick<WallInput, 'face' | 'piece' | 'rows'>): number {
  if (!rows) return piece.area / Math.hypot(face.plane.n[0], face.plane.n[1])
  const [low, high] = rows
  const half = (a: Vec3, b: Vec3, c: Vec3) => Math.hypot(...crossOf(lessOf(b, a), lessOf(c, a))) / 2
  return low.slice(1).reduce((sum, b, i) => {
    const [a, c, d] = [low[i] as Vec3, high[i + 1] as Vec3, high[i] as Vec3]
    return sum + half(a, b, c) + half(a, c, d)
  }, 0)
}

function shape(line: Line, before: Line | null, after: Line | null): WallShape {
  const { wall, foot, head, z0, z1 } = line
  const { piece } = wall
  const corners: [Vec2, Vec2] = [
    cornerOf(before?.foot ?? null, foot, 'after'),
    cornerOf(foot, after?.foot ?? null, 'before'),
  ]
  const plan = stripPlan(foot, farSideOf(foot, corners))
  const length = piece.to - piece.from
  const known = { id: wall.id, part: wall.part, plan, length, faceArea: faceAreaOf(wall) }
  if (head) {
    const top: [Vec2, Vec2] = [
      cornerOf(before && (before.head ?? before.foot), head, 'after'),
      cornerOf(head, after && (after.head ?? after.foot), 'before'),
    ]
    const above = stripPlan(head, farSide(head, ...top))
    const below = stripPlan(foot, farSide(foot, ...corners))
    return { ...known, plan: below, body: { kind: 'mesh', mesh: betweenRings(below, above, z0, z1) } }
  }
  const upright = piece.region.length === 1 && Math.abs(piece.area - length * (z1 - z0)) < TOLERANCE.point
  if (upright && Math.abs(wall.face.plane.n[2]) < TOLERANCE.rounding)
    return { ...known, body: { kind: 'prism', region: plan, z0, z1 } }
  return {
    ...known,
    body: { kind: 'mesh', mesh: wall.face.round ? roundMesh(line, foot, corners) : sweptMesh(line, corners) },
  }
}

/** The far side; a wall shorter than its neighbours are thick comes to a point where its two mitres cross. */
function farSideOf(foot: Strand, [start, end]: [Vec2, Vec2]): Vec2[] {
  if (foot.closed || foot.line.length > 2) return farSide(foot, start, end)
  const runs = (end[0] - start[0]) * foot.first[0] + (end[1] - start[1]) * foot.first[1] > TOLERANCE.rounding
  const [a, b] = [startOf(foot), endOf(foot)]
  const point = runs
    ? null
    : meetingOf(a, [start[0] - a[0], start[1] - a[1]], b, [end[0] - b[0], end[1] - b[1]], TOLERANCE.point)
  return point ? [point] : [start, end]
}

/** A piece of a flat face that is no rectangle, swept to its thickness and trimmed in its mitres. */
function sweptMesh({ wall, foot }: Line, [innerStart, innerEnd]: [Vec2, Vec2]): Mesh {
  const { piece, face } = wall
  const { n } = face.plane
  const along = alongOf(face)
  const leans = Math.abs(n[2]) > TOLERANCE.rounding
  const [start, end] = [startOf(foot), endOf(foot)]
  const length = piece.to - piece.from
  // Up the face: a metre of height is longer on a face that leans.
  const [foot0, foot1] = [pointAt(face, piece.from, 0), pointAt(face, piece.from, 1)]
  const slope = Math.hypot(foot1[0] - foot0[0], foot1[1] - foot0[1], 1)
  const local = piece.region.map((loop) => loop.map(([u, z]): Vec2 => [u - piece.from, z * slope]))
  const trims: Trim[] = []
  // Above a lower roof a piece may reach beyond its foot: there is no corner to mitre there.
  if (!leans && piece.wide.from > piece.from - TOLERANCE.point) trims.push(trimAt(start, innerStart, along, 1))
  if (!leans && piece.wide.to < piece.to + TOLERANCE.point) trims.push(trimAt(end, innerEnd, along, -1))
  // A reflex corner's mitre lies beyond the end of the face: the piece is swept that much longer before it is trimmed.
  const reach = (p: Vec2) => (p[0] - start[0]) * along[0] + (p[1] - start[1]) * along[1]
  const [low, high] = leans ? [0, length] : [Math.min(0, reach(innerStart)), Math.max(length, reach(innerEnd))]
  const longer =
    low < -TOLERANCE.rounding || high > length + TOLERANCE.rounding
      ? local.map((loop) =>
          loop.map(([u, z]): Vec2 => [
            Math.abs(u) < TOLERANCE.point ? low : Math.abs(u - length) < TOLERANCE.point ? high : u,
            z,
          ]),
        )
      : local
  return sweepRegion({
    region: longer,
    depth: -foot.off,
    frame: {
      origin: [foot0[0], foot0[1], 0],
      u: [along[0], along[1], 0],
      v: [(foot1[0] - foot0[0]) / slope, (foot1[1] - foot0[1]) / slope, 1 / slope],
      w: n,
    },
    trims,
  })
}

/** A piece of a round face that is no rectangle: facet by facet, each between the radii of its ends, made one. */
function roundMesh({ wall }: Line, foot: Strand, corners: [Vec2, Vec2]): Mesh {
  const { piece } = wall
  const side = farSide(foot, ...corners)
  const line = foot.closed ? [...foot.line, startOf(foot)] : foot.line
  const inner = foot.closed ? [...side, side[0] as Vec2] : side
  const step = (piece.to - piece.from) / (line.length - 1)
  const swept = line.slice(0, -1).flatMap((a, i): Swept[] => {
    const b = line[i + 1] as Vec2
    const [u0, u1] = [piece.from + step * i, piece.from + step * (i + 1)]
    const region = intersectRegions(piece.region, [
      [
        [u0, piece.z0 - 1],
        [u1, piece.z0 - 1],
        [u1, piece.z1 + 1],
        [u0, piece.z1 + 1],
      ],
    ])
    const chord = gapOf(b, a)
    if (areaOf(region) < TOLERANCE.height || chord < TOLERANCE.point) return []
    const along: Vec2 = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord]
    const scale = chord / (u1 - u0)
    const widen = (u: number) =>
      u < u0 + TOLERANCE.point
        ? -Math.abs(foot.off)
        : u > u1 - TOLERANCE.point
          ? chord + Math.abs(foot.off)
          : (u - u0) * scale
    const local = region.map((loop) => loop.map(([u, z]): Vec2 => [widen(u), z]))
    const far = inner.length === line.length ? inner : line
    return [
      {
        region: local,
        depth: -foot.off,
        frame: { origin: [a[0], a[1], 0], u: [along[0], along[1], 0], v: [0, 0, 1], w: [along[1], -along[0], 0] },
        trims: [
          trimAt(a, farPoint(far, i, a, along, foot.off), along, 1),
          trimAt(b, farPoint(far, i + 1, b, along, foot.off), along, -1),
        ],
      },
    ]
  })
  return unitedSweeps(swept)
}

const farPoint = (far: Vec2[], i: number, at: Vec2, along: Vec2, off: number): Vec2 => {
  const p = far[i] as Vec2
  return gapOf(p, at) > TOLERANCE.point ? p : [at[0] - along[1] * off, at[1] + along[0] * off]
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

/**
 * The wall of the same storey and side that begins or ends where this one ends or begins. Where several do, the one beside which it stands
 * highest: a wall over an opening gives way to the wall beside the opening.
 */
function neighbourAt(map: Map<string, Line[]>, line: Line, at: Vec2): Line | null {
  const common = (o: Line) => Math.min(o.z1, line.z1) - Math.max(o.z0, line.z0)
  let best: Line | null = null
  for (const dx of [0, -1, 1])
    for (const dy of [0, -1, 1])
      for (const o of map.get(spot(at, dx, dy)) ?? [])
        if (o !== line && o.wall.side === line.wall.side && (!best || common(o) > common(best) + TOLERANCE.touch))
          best = o
  return best
}
