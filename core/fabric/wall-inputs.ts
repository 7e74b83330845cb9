import {
  areaOf,
  inside,
  intersectRegions,
  piecesOf,
  rectOf,
  rectsMeet,
  subtractRegions,
  TOLERANCE,
  uniteRegions,
  type Region,
  type Vec2,
  type Vec3,
  rawName,
  stretchName,
  printWallPlace,
  stripOf,
  parseWallPlace,
  stretchEnds,
} from '../solid'
import type { MassForm } from '../form'
import type { Part } from '../project'
import { alongOf, dividedAtFoot, lowestOf, pieceOf, type Piece } from './pieces'
import { shapingFace, wallRange } from './bond'
import { facesOfForm, tiedHeight, type FabricContext } from './context'
import { unrolled, type WorldFace } from './print'
import { closedOver, roofSpaceOver } from './roof-space'
import { goesOnIn, middleLine, nearTo, slabsOver, takenOf, type OtherSlab } from './stands'
import { wallPiece, type WallInput } from './walls'

/** The slabs of a scheme by the mass that they belong to, as walls see them: their levels and sides. */
export function slabsByMass(
  context: FabricContext,
  parts: Part[],
  thicknessOf: (part: Part) => number,
): Map<string, OtherSlab[]> {
  const slabs = new Map<string, OtherSlab[]>()
  for (const part of parts) {
    if (part.kind !== 'slab' || !part.base) continue
    const z1 =
      tiedHeight(context, part, part.base.level) +
      context.numbers.length(part.base.above) -
      floorBuildUp(context, part.base.level)
    const list = slabs.get(part.host.mass) ?? []
    list.push({ level: part.base.level, z0: z1 - thicknessOf(part), z1 })
    slabs.set(part.host.mass, list)
  }
  return slabs
}

/** Roofs and terraces that lie under their face: their thickness (m) by mass and face. */
export function lidsByMass(parts: Part[], thicknessOf: (part: Part) => number): Map<string, Map<string, number>> {
  const lids = new Map<string, Map<string, number>>()
  for (const part of parts) {
    if ((part.kind !== 'roof' && part.kind !== 'terrace') || part.side !== 'inside') continue
    const own = lids.get(part.host.mass) ?? new Map<string, number>()
    own.set(rawName(part.host.face), thicknessOf(part))
    lids.set(part.host.mass, own)
  }
  return lids
}

/** A stretch of wall less the roofs that lie under the faces over its upper edges. */
function underLids(form: MassForm, face: WorldFace, piece: Piece, lids: ReadonlyMap<string, number>): Piece[] {
  const faces = facesOfForm(form)
  const strips = unrolled(face).flatMap((loop, l) =>
    loop.flatMap((a, i): Region[] => {
      const b = loop[(i + 1) % loop.length] as Vec2
      const name = rawName(face.beyond[l]?.[i] ?? '')
      const thickness = lids.get(name)
      const over =
        thickness === undefined || b[0] > a[0] - TOLERANCE.point
          ? undefined
          : faces.find((f) => rawName(f.name) === name && f.plane.n[2] > TOLERANCE.slope)
      if (!over || thickness === undefined) return []
      const down = thickness / over.plane.n[2]
      return [
        [
          [
            [b[0], b[1] - down],
            [a[0], a[1] - down],
            [a[0], a[1] + 1],
            [b[0], b[1] + 1],
          ],
        ],
      ]
    }),
  )
  return strips.length ? stretchesIn(face, subtractRegions(piece.region, uniteRegions(strips))) : [piece]
}

const floorBuildUp = (context: FabricContext, level: string) =>
  context.levels.find((l) => l.id === level)?.floorBuildUp ?? 0

/** The slabs of the masses near one as text: the same for all its walls. */
function slabsText(slabs: ReadonlyMap<string, OtherSlab[]>, form: MassForm, near: readonly MassForm[]): string {
  let told = texts.get(slabs)
  if (!told) texts.set(slabs, (told = new Map()))
  let text = told.get(form)
  if (text === undefined) {
    text = near.flatMap((o) => (slabs.get(o.id) ?? []).map((s) => `${o.id} ${s.z0} ${s.z1}`)).join()
    told.set(form, text)
  }
  return text
}
const texts = new WeakMap<ReadonlyMap<string, OtherSlab[]>, Map<MassForm, string>>()

/**
 * A wall before it is joined: the stretches of its face that are its own and stand free. What lies inside another mass is left out, and
 * so is what a slab lies over: its own mass's at the level it reaches, and those of masses that stand on it.
 */
export function wallInputs(
  context: FabricContext,
  part: Part,
  thickness: number,
  slabs: ReadonlyMap<string, OtherSlab[]>,
  lids: ReadonlyMap<string, ReadonlyMap<string, number>>,
  sharers: Sharing | undefined,
): WallInput[] {
  const { print } = part
  if (print.kind !== 'face' || thickness <= 0) return []
  const form = context.forms.get(part.host.mass)
  const range = wallRange(context, part)
  const own = part.top ? slabs.get(part.host.mass)?.find((s) => s.level === part.top?.level) : undefined
  const head = part.top ? range.to - floorBuildUp(context, part.top.level) - (own ? own.z1 - own.z0 : 0) : Infinity
  const shaping = shapingFace(context, part, print)
  const near = form && !part.letGo ? nearTo(context, form) : []
  const over = near.length && form ? slabsText(slabs, form, near) : ''
  const covers = lids.get(part.host.mass)
  return context.memo.keep(
    part,
    'input',
    [
      shaping,
      range.from,
      range.to,
      head,
      thickness,
      over,
      covers ? [...covers].join() : '',
      sharers && sharers.ids.length > 1 ? sharers.ids.join() + sharers.stretches.join() : '',
      ...near,
    ],
    () => {
      const { face, rows } = shaping
      const whole = wallPiece(
        face,
        range.from,
        range.to,
        part.follow === 'face' ? stripOf(part.host.piece) : '',
        form ? closedOver(form, range.from) : () => false,
      )
      if (!whole) return []
      const storey = part.base?.level ?? part.host.mass
      const free = form && !part.letGo && !rows ? freeStretches(context, form, face, whole) : [whole]
      const mine = sharers?.ids.indexOf(part.id) ?? 0
      const pieces =
        sharers && sharers.ids.length > 1
          ? free.filter((p) => ownerOf(parseWallPlace(p.key).stretch ?? stretchName('', ''), sharers) === mine)
          : free
      const off = part.side === 'inside' ? thickness : -thickness
      const lidded =
        form && covers && !rows && !face.round && Math.abs(face.plane.n[2]) < TOLERANCE.rounding
          ? pieces.flatMap((p) => underLids(form, face, p, covers))
          : pieces
      const standing = lidded.flatMap((p) => {
        const cropped = crop(p, head)
        return cropped
          ? form && near.length && !part.letGo && !rows
            ? underSlabs(context, form, face, cropped, off, slabs)
            : [cropped]
          : []
      })
      return standing.map((piece, i): WallInput => ({
        id: i === 0 ? part.id : `${part.id} ${i}`,
        part: part.id,
        name: part.name,
        storey,
        face,
        piece,
        thickness,
        side: part.side,
        rows: rows && rowsBetween(rows, piece.z0, piece.z1),
      }))
    },
  )
}

/**
 * The walls of one piece of face in one storey: their ids in order, and the stretch that each was made for, by the masses at its ends;
 * null: all there is.
 */
interface Sharing {
  ids: string[]
  stretches: (string | null)[]
}

/** By wall, with whom it shares its piece of face. */
export function sharing(parts: Part[]): Map<string, Sharing> {
  const groups = new Map<string, Sharing>()
  const of = new Map<string, Sharing>()
  for (const part of parts) {
    if (part.kind !== 'wall' || part.letGo) continue
    const { strip, stretch } = parseWallPlace(part.host.piece)
    const key = `${part.host.mass}|${part.host.face}|${part.base?.level ?? ''}|${strip}`
    let group = groups.get(key)
    if (!group) groups.set(key, (group = { ids: [], stretches: [] }))
    group.ids.push(part.id)
    group.stretches.push(stretch)
    of.set(part.id, group)
  }
  return of
}

/**
 * The wall that has a stretch: the one made for it, or else one that takes all there is, one made for a stretch with an end in common,
 * the first.
 */
function ownerOf(stretch: string, { stretches }: Sharing): number {
  const [left, right] = stretchEnds(stretch)
  const made = stretches.indexOf(stretch)
  const any = stretches.indexOf(null)
  const beside = stretches.findIndex((s) => {
    const [l, r] = stretchEnds(s ?? '')
    return l === left || r === right
  })
  return made >= 0 ? made : any >= 0 ? any : Math.max(0, beside)
}

/** m: what is left of a face that is narrower is rounding at a corner that two masses share */
const LEAST_STRETCH = 0.01

/**
 * The stretches of a piece of face that stand free: less what other masses take of it, and with what goes on above it in a roof that stands
 * there. Each is named by its piece and the masses at its ends.
 */
export function freeStretches(context: FabricContext, form: MassForm, face: WorldFace, piece: Piece): Piece[] {
  const taken = takenOf(context, form, face).filter(({ by }) => !roofSpaceAt(by, piece.z0))
  const above = goesOnIn(context, form, face).filter((o) => Math.abs(piece.z1 - lowestOf(o.face)) < TOLERANCE.touch)
  const whole = above.length
    ? uniteRegions([piece.region, ...above.flatMap((o) => unrolledIn(face, o.face))])
    : piece.region
  // A corner that only grazes a face takes nothing of it.
  const wide = (region: Region) => {
    const r = rectOf(region)
    return r.x1 - r.x0 > LEAST_STRETCH
  }
  let free = whole
  let extent = taken.length ? rectOf(whole) : null
  for (const t of taken) {
    if (free.length === 0 || !extent || !rectsMeet(t.rect, extent, 0)) continue
    const off = piecesOf(intersectRegions(free, t.region)).filter(wide).flat()
    if (off.length === 0) continue
    free = subtractRegions(free, off)
    extent = rectOf(free)
  }
  if (free.length === 0) return []
  if (free === piece.region) return [piece]
  const pieces = stretchesIn(face, free)
  const atEnd = (u: number, inward: number, z: number) =>
    taken.find((t) =>
      [inward, -inward].some((by) => t.region.reduce((odd, loop) => odd !== inside(loop, [u + by, z + 0.002]), false)),
    )?.by.id ?? ''
  const codes = new Map<string, number>()
  return pieces
    .sort((a, b) => a.from - b.from || a.z0 - b.z0)
    .map((p) => {
      const [l, r] = [atEnd(p.from, -0.005, p.z0), atEnd(p.to, 0.005, p.z0)]
      if (!l && !r) return { ...p, key: piece.key }
      const ends = stretchName(l, r)
      const nth = (codes.get(ends) ?? 0) + 1
      codes.set(ends, nth)
      return { ...p, key: printWallPlace({ strip: stripOf(piece.key), stretch: stretchName(l, r, nth) }) }
    })
}

/** A stretch of wall less what slabs of other masses lie over; `off`: m from the face to the far side of the wall. */
function underSlabs(
  context: FabricContext,
  form: MassForm,
  face: WorldFace,
  piece: Piece,
  off: number,
  slabs: ReadonlyMap<string, OtherSlab[]>,
): Piece[] {
  const [from, to] = [piece.wide.from, piece.wide.to]
  const rect = rectOf(piece.region)
  const roofs = new Set(goesOnIn(context, form, face).map((o) => o.roof))
  const under = slabsOver(
    context,
    form,
    slabs,
    middleLine(face, from, to, piece.z0, off / 2),
    piece.z0,
    piece.z1,
  ).filter((s) => !roofs.has(s.by))
  if (under.length === 0) return [piece]
  return stretchesIn(
    face,
    under.reduce((left: Region, s) => {
      const [u0, u1] = [
        s.from < TOLERANCE.point ? rect.x0 - 1 : from + s.from * (to - from),
        s.to > 1 - TOLERANCE.point ? rect.x1 + 1 : from + s.to * (to - from),
      ]
      return subtractRegions(left, [
        [
          [u0, s.z],
          [u1, s.z],
          [u1, rect.y1 + 1],
          [u0, rect.y1 + 1],
        ],
      ])
    }, piece.region),
  )
}

const stretchesIn = (face: WorldFace, region: Region): Piece[] =>
  piecesOf(region)
    .flatMap(dividedAtFoot)
    .map((r) => pieceOf(face, r))
    .filter((p) => areaOf(p.region) > TOLERANCE.least && p.wide.to - p.wide.from > LEAST_STRETCH)

/** Whether a mass has mere roof space above a height: it opens to nobody there. */
const roofSpaceAt = (form: MassForm, z: number): boolean =>
  roofSpaceOver(
    form,
    facesOfForm(form)
      .filter(
        (f) => f.plane.n[2] > TOLERANCE.slope && Math.max(...f.loops.flat().map((p) => p[2])) > z + TOLERANCE.touch,
      )
      .map((f) => f.name),
    z,
  )

/** Another face in the same plane, in the (u, z) of the first. */
function unrolledIn(face: WorldFace, other: WorldFace): Region[] {
  const [dx, dy] = alongOf(face)
  const [ox, oy] = face.loops[0]?.[0] ?? [0, 0]
  return [other.loops.map((l) => l.map((p): Vec2 => [dx * (p[0] - ox) + dy * (p[1] - oy), p[2]]))]
}

/** Facets between two heights of their own. */
function rowsBetween([low, high]: [Vec3[], Vec3[]], z0: number, z1: number): [Vec3[], Vec3[]] {
  const at = (z: number) =>
    low.map((p, i): Vec3 => {
      const q = high[i] as Vec3
      const t = (z - p[2]) / (q[2] - p[2] || 1)
      return [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, z]
    })
  return [at(z0), at(z1)]
}

/** A piece below a height; its foot stays what it was. */
function crop(piece: Piece, to: number): Piece | null {
  if (piece.z1 <= to + TOLERANCE.rounding) return piece
  if (to - piece.z0 < TOLERANCE.touch) return null
  const rect = rectOf(piece.region)
  const region = intersectRegions(piece.region, [
    [
      [rect.x0 - 1, piece.z0 - 1],
      [rect.x1 + 1, piece.z0 - 1],
      [rect.x1 + 1, to],
      [rect.x0 - 1, to],
    ],
  ])
  const kept = rectOf(region)
  return { ...piece, region, z1: to, area: areaOf(region), wide: { from: kept.x0, to: kept.x1 } }
}
