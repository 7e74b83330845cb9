import type { MassForm } from '../form'
import { showQuantity } from '../project'
import { rectOf, rectsMeet, TOLERANCE, onStrip } from '../solid'
import { facesAbove, lowestOf, piecesBetween, type Piece } from './pieces'
import { besideOthers, NOTHING_BESIDE } from './beside'
import type { FabricContext } from './context'
import { tie, type Draft } from './draft'
import { LIMITS } from './limits'
import { facePrint, tiltOf, type WorldFace } from './print'
import { closedOver, roofSpaceOver } from './roof-space'
import { goesOnIn, isRoofBody, isRunOver, takenOf } from './stands'
import { storeyFaces, storeyPrint } from './storey-face'
import { freeStretches } from './wall-inputs'
import { faceAreaOf, wallPiece } from './walls'

/** Upright walls or facets of a bent face, storey by storey. */
export function addStoreyWalls(
  { context, form, ranges, ties, out, next: count, offer }: Draft,
  face: WorldFace,
  follow: 'upright' | 'facets',
): void {
  ranges.forEach((range, b) => {
    const found = storeyFaces(context, form, face, range.from, range.to, follow)
    for (const one of found) {
      const next = ranges[b + 1]
      const [low, high] = [
        Math.min(...one.face.loops.flat().map((p) => p[2])),
        Math.max(...one.face.loops.flat().map((p) => p[2])),
      ]
      const reaches = next && high > range.to - TOLERANCE.height
      const piece = piecesBetween(one.face, low, high)[0]
      if (!piece || high - low < LIMITS.leastPiece) continue
      const base = { level: range.level, height: range.from - range.above }
      const free = one.rows ? [piece] : freeStretches(context, form, one.face, piece)
      if (free.length === 0) {
        out.leftOut.push({
          mass: form.id,
          what: `${form.name}, ${range.name}, face of ${showQuantity(piece.to - piece.from, 'length', context.project)}`,
          why: 'lies inside another mass',
          area: piece.area,
        })
        continue
      }
      offer(
        one.rows ? 'facet wall' : one.face.round ? 'curved wall' : 'wall',
        free.reduce((sum, p) => sum + faceAreaOf({ face: one.face, piece: p, rows: one.rows }), 0),
        {
          kind: 'wall',
          follow,
          name: `${form.name}, ${range.name}, wall ${count(`wall ${range.level}`)}`,
          side: 'inside',
          host: { mass: form.id, face: face.name, piece: found.length > 1 ? one.key : '' },
          base: tie(range.level, range.above),
          top: reaches ? tie(next.level) : null,
          print: storeyPrint(one, ties, base, reaches ? { level: next.level, height: next.from } : null),
        },
        one.off,
        one.warp,
      )
    }
  })
}

/** Walls of a face: one for each piece that stands free in a storey, or through all of them. */
export function addWalls(draft: Draft, face: WorldFace): void {
  const { context, form, ties, out, next: count, offer } = draft
  const ranges =
    draft.how.reach === 'through' ? draft.ranges.slice(0, 1).map((b) => ({ ...b, to: Infinity })) : draft.ranges
  if (face.bent) {
    addStoreyWalls(draft, face, 'upright')
    return
  }
  const perRange = ranges.map((range) => {
    const closed = closedOver(form, range.from)
    const toTop = piecesBetween(face, range.from, Infinity, closed)
    return piecesBetween(face, range.from, range.to, closed).map((piece) => ({
      piece,
      reject: rejected(context, form, face, piece, toTop, range.from),
    }))
  })
  ranges.forEach((range, b) => {
    const next = ranges[b + 1]
    const several = (perRange[b]?.length ?? 0) > 1
    for (const { piece, reject } of perRange[b] ?? []) {
      const what = `${form.name}, ${range.name}, face of ${showQuantity(piece.to - piece.from, 'length', context.project)}`
      const above = next
        ? (perRange[b + 1] ?? []).filter(
            (p) =>
              p.piece.from < piece.to - TOLERANCE.point &&
              p.piece.to > piece.from + TOLERANCE.point &&
              p.piece.z0 < range.to + TOLERANCE.height,
          )
        : []
      // It reaches to the next storey when a wall stands there, or when its face ends at that very height.
      const runsUp = goesOnIn(context, form, face).some((o) => Math.abs(lowestOf(o.face) - piece.z1) < TOLERANCE.touch)
      const reaches =
        next &&
        !runsUp &&
        piece.z1 > range.to - TOLERANCE.height &&
        (above.length === 0 || above.some((p) => !p.reject))
      // What it is shaped by: to the top of its face where it runs up.
      const own = several ? piece.key : ''
      const shaped = reaches
        ? piece
        : (wallPiece(face, range.from, Infinity, own, closedOver(form, range.from)) ?? piece)
      const free = reject
        ? []
        : freeStretches(context, form, face, shaped).filter(
            (p) => p.z0 < shaped.z0 + TOLERANCE.least || p.z1 - p.z0 > LIMITS.leastPiece,
          )
      const beside = reject || free.length === 0 ? NOTHING_BESIDE : besideOthers(context, form, face, piece)
      const why = reject ?? (free.length === 0 ? takenSay(context, form, face, piece) : beside.why)
      if (beside.partly) out.remarks.push({ mass: form.id, what, say: beside.partly })
      if (why) {
        out.leftOut.push({ mass: form.id, what, why, area: piece.area })
        continue
      }
      for (const stretch of free) {
        offer(
          face.round ? 'curved wall' : Math.abs(tiltOf(face)) > TOLERANCE.rounding ? 'sloping wall' : 'wall',
          faceAreaOf({ face, piece: stretch, rows: null }),
          {
            kind: 'wall',
            follow: 'face',
            name: `${form.name}, ${range.name}, wall ${count(`wall ${range.level}`)}`,
            side: 'inside',
            host: { mass: form.id, face: face.name, piece: onStrip(own, stretch.key) },
            base: tie(range.level, range.above),
            top: reaches && next ? tie(next.level) : null,
            print: facePrint(face, ties),
          },
        )
      }
    }
  })
}

/** Why nothing of a piece of face stands free. */
function takenSay(context: FabricContext, form: MassForm, face: WorldFace, piece: Piece): string {
  const rect = rectOf(piece.region)
  const by = takenOf(context, form, face).find((t) => rectsMeet(t.rect, rect, 0))?.by
  return by ? `lies inside ${by.name}, or opens to it` : 'lies inside another mass'
}

/** Why a piece above a floor is no wall of that storey, or null; `toTop` are the pieces of the face from the floor to its top. */
function rejected(
  context: FabricContext,
  form: MassForm,
  face: WorldFace,
  piece: Piece,
  toTop: Piece[],
  floor: number,
): string | null {
  const onRoof = Math.abs(floor - form.base) < TOLERANCE.touch && isRoofBody(context, form)
  if (piece.z0 < lowestOf(face) + TOLERANCE.touch && isRunOver(context, form, face))
    return 'goes on above a wall that runs up over it'
  if (piece.z0 > floor + TOLERANCE.touch)
    return piece.z1 - piece.z0 < LIMITS.leastPiece
      ? `only ${showQuantity(piece.z1 - piece.z0, 'length', context.project)} of it lie in this storey: the slab above takes its place`
      : null
  if (floor <= lowestOf(face) + TOLERANCE.touch && !onRoof)
    return piece.z1 - piece.z0 < LIMITS.leastHigh
      ? `is only ${showQuantity(piece.z1 - piece.z0, 'length', context.project)} high`
      : null
  const wholeTop = Math.max(...toTop.filter((p) => p.from < piece.to && p.to > piece.from).map((p) => p.z1), piece.z1)
  if (wholeTop - floor < LIMITS.leastUpright)
    return `is only ${showQuantity(wholeTop - floor, 'length', context.project)} high: a thin top, the wall below runs up`
  const roofSpace = roofSpaceOver(form, facesAbove(face, piece.wide.from, piece.wide.to, floor), floor)
  return roofSpace ? 'borders roof space only: the wall below runs up' : null
}
