import { inOrder, type Part } from '../project'
import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import { areaOf, rectOf, rectsMeet, subtractRegions, TOLERANCE, type Region, type Vec3 } from '../solid'
import { facesAbove, lowestOf, piecesBetween, type Piece } from './bands'
import { besideOthers, NOTHING_BESIDE } from './beside'
import {
  faceSlope,
  facesOfForm,
  levelHeight,
  sidesOf,
  takenStoreys,
  tiesOf,
  type FabricContext,
  type FaceSlope,
} from './context'
import { LIMITS } from './limits'
import { overhangsOf, type PartRole } from './parts'
import { closedOver, roofSpaceOver } from './roof-space'
import { goesOnIn, isRoofBody, isRunOver, openStretches, standsIn, takenOf } from './stands'
import { freeStretches } from './wall-inputs'
import { faceAreaOf, wallPiece } from './walls'
import { faceArea, facePrint, ownPiece, platePrint, tiltOf, type WorldFace } from './print'
import { storeyFaces, storeyPrint } from './storey-face'

/** A part that a face could become; `part` has no id, build-up and overhang yet. `off`: how far (m) it lies off its face at most; null where it is on it. */
export interface Candidate {
  key: string
  role: PartRole
  area: number
  off: number | null
  part: Omit<Part, 'id' | 'order' | 'buildUp' | 'overhang' | 'overhangs' | 'rise' | 'letGo' | 'stays' | 'kept'>
}

/** What is not made, and why. */
export interface LeftOut {
  mass: string
  what: string
  why: string
  area: number
}

/** What is made, but should be looked at. */
export interface Remark {
  mass: string
  what: string
  say: string
}

/** What a face can be taken as. */
export type FaceAs = 'wall' | 'upright walls' | 'facets' | 'roof' | 'soffit slab' | 'nothing'

/** A face with what it would become and what else it could; `off` m, of what it would become. */
export interface FaceOffer {
  mass: string
  face: string
  label: string
  slope: FaceSlope
  bent: boolean
  as: FaceAs
  choices: FaceAs[]
  area: number
  off: number | null
}

export interface Proposal {
  candidates: Candidate[]
  leftOut: LeftOut[]
  remarks: Remark[]
  faces: FaceOffer[]
}

/** How faces are to be taken, where there is a choice. `overrule` by mass and face, as `faceKey` writes them. */
export interface How {
  reach: 'storey' | 'through'
  bent: 'upright walls' | 'facets'
  terraces: boolean
  parapets: boolean
  overrule: Readonly<Record<string, FaceAs>>
}
export const USUAL: How = { reach: 'storey', bent: 'upright walls', terraces: false, parapets: false, overrule: {} }
export const faceKey = (mass: string, face: string): string => `${mass}|${face}`

/**
 * What the faces of the masses become: walls by storey, slabs at the storeys taken, roofs on what looks up. Reads faces,
 * not cuts: a piece of face that borders only roof space gives no wall, the wall below runs up instead.
 */
export function propose(
  context: FabricContext,
  masses: string[] = inOrder(context.scheme.masses).map((m) => m.id),
  how: How = USUAL,
): Proposal {
  const made = context.memo.of(
    context.scheme,
    'made',
    [context.scheme.parts],
    () => new Set(Object.values(context.scheme.parts).map(partKey)),
  )
  const proposal: Proposal = { candidates: [], leftOut: [], remarks: [], faces: [] }
  for (const id of masses) {
    const form = context.forms.get(id)
    if (!form || context.scheme.masses[id]?.context) continue
    const found = proposeFor(context, form, how)
    for (const candidate of found.candidates) {
      if (made.has(candidate.key))
        proposal.leftOut.push({ mass: id, what: candidate.part.name, why: 'is made already', area: candidate.area })
      else proposal.candidates.push(candidate)
    }
    proposal.leftOut.push(...found.leftOut)
    proposal.remarks.push(...found.remarks)
    proposal.faces.push(...found.faces)
  }
  return proposal
}

/** What tells one part of the building from another, whoever made it. A roof and a terrace are one place. */
export const partKey = (part: Pick<Part, 'kind' | 'host' | 'base'>): string =>
  part.kind === 'wall' || (part.kind === 'slab' && part.host.face === 'plate')
    ? `${part.kind}|${part.host.mass}|${part.host.face}|${part.base?.level ?? ''}|${part.host.piece}`
    : `${part.kind === 'terrace' ? 'roof' : part.kind}|${part.host.mass}|${part.host.face}`

function proposeFor(context: FabricContext, form: MassForm, how: How): Proposal {
  const out: Proposal = { candidates: [], leftOut: [], remarks: [], faces: [] }
  const storeys = takenStoreys(context, form)
  const ties = tiesOf(context, form)
  const tie = (level: string, above = 0) => ({ level, above })
  const offer = (role: PartRole, area: number, part: Candidate['part'], off: number | null = null) =>
    out.candidates.push({ key: partKey(part), role, area, off, part })
  for (const storey of storeys) {
    const plate = context.plateAt(form, storey.height)
    if (!plate) continue
    const role = Math.abs(storey.height - form.base) < 1e-5 ? 'ground slab' : 'floor slab'
    offer(role, plate.area, {
      kind: 'slab',
      follow: 'face',
      name: `${form.name}, ${storey.name}, ${role}`,
      side: 'inside',
      host: { mass: form.id, face: 'plate', piece: '' },
      base: tie(storey.id),
      top: null,
      print: platePrint(ties.form, sidesOf(context, form, plate), plate.region),
    })
  }

  const bands = bandsOf(form, storeys, ties.zFrom, ties.from)
  const whole: Band[] = bands.slice(0, 1).map((b) => ({ ...b, to: Infinity }))
  const faces = facesOfForm(form)
  const number = { wall: new Map<string, number>(), roof: 0, terrace: 0, parapet: 0, soffit: 0 }
  const numbered = (level: string) => {
    const count = (number.wall.get(level) ?? 0) + 1
    number.wall.set(level, count)
    return count
  }
  for (const face of faces) {
    const slope = faceSlope(context, face, form)
    const area = faceArea(face)
    if (slope === 'base') continue
    const usual = usualOf(face, slope)
    const as = how.overrule[faceKey(form.id, face.name)] ?? usual
    const before = out.candidates.length
    switch (as) {
      case 'wall':
        addWalls(face, how.reach === 'through' ? whole : bands)
        break
      case 'upright walls':
      case 'facets':
        addStoreyWalls(face, as === 'facets' ? 'facets' : 'upright')
        break
      case 'roof':
        addRoof(face, area)
        break
      case 'soffit slab':
        addSoffit(face, area)
        break
      case 'nothing':
        if (usual !== 'nothing')
          out.leftOut.push({
            mass: form.id,
            what: `${form.name}, ${faceLabel(face)}`,
            why: 'was left out on purpose',
            area,
          })
    }
    const off = out.candidates
      .slice(before)
      .reduce<number | null>((most, c) => (c.off === null ? most : Math.max(most ?? 0, c.off)), null)
    out.faces.push({
      mass: form.id,
      face: face.name,
      label: faceLabel(face),
      slope,
      bent: face.bent,
      as,
      choices: choicesOf(face),
      area,
      off,
    })
  }
  return out

  function usualOf(face: WorldFace, slope: FaceSlope): FaceAs {
    if (slope === 'upright' || slope === 'leaning') return face.bent ? how.bent : 'wall'
    if (slope === 'roof') return 'roof'
    // A level underside at a storey is the underside of that storey's slab.
    return face.plane.n[2] < -1 + 1e-9 && storeys.some((l) => Math.abs(l.height - lowestOf(face)) < 1e-4)
      ? 'nothing'
      : 'soffit slab'
  }

  function addSoffit(face: WorldFace, area: number): void {
    offer('soffit slab', area, {
      kind: 'slab',
      follow: 'face',
      name: `${form.name}, soffit ${++number.soffit}`,
      side: 'inside',
      host: { mass: form.id, face: face.name, piece: '' },
      base: null,
      top: null,
      print: facePrint(face, ties),
    })
  }

  function addRoof(face: WorldFace, area: number): void {
    const flat = face.plane.n[2] > 1 - 1e-9
    const covered = standsIn(context, form, face)
    const plan: Region = face.loops.map((l) => l.map(([x, y]) => [x, y]))
    const open = covered.length ? areaOf(subtractRegions(plan, covered)) / face.plane.n[2] : area
    if (open < 0.01) {
      out.leftOut.push({
        mass: form.id,
        what: `${form.name}, top`,
        why: flat ? 'another mass stands on all of it' : 'it lies within another mass',
        area,
      })
      return
    }
    const common = {
      follow: 'face' as const,
      host: { mass: form.id, face: face.name, piece: '' },
      base: null,
      top: null,
      print: facePrint(face, ties),
    }
    if (flat && how.terraces && besideStorey(context, form, plan, face.plane.d)) {
      offer('terrace', open, {
        ...common,
        kind: 'terrace',
        name: `${form.name}, terrace ${++number.terrace}`,
        side: 'inside',
      })
      const falls = overhangsOf(form, face.plane.n)
      const opens = (a: Vec3, b: Vec3) =>
        openStretches(context, form, [a[0], a[1]], [b[0], b[1]], face.plane.d).length > 0
      if (
        how.parapets &&
        face.loops.some((loop, l) =>
          loop.some((a, i) => {
            const b = loop[(i + 1) % loop.length] ?? a
            return falls(face.beyond[l]?.[i] ?? '', a, b) && opens(a, b)
          }),
        )
      ) {
        offer('parapet', 0, {
          ...common,
          kind: 'parapet',
          name: `${form.name}, parapet ${++number.parapet}`,
          side: 'inside',
        })
      }
      return
    }
    offer(flat ? 'flat roof' : 'pitched roof', open, {
      ...common,
      kind: 'roof',
      name: `${form.name}, roof ${++number.roof}`,
      side: 'outside',
    })
  }

  function addStoreyWalls(face: WorldFace, follow: 'upright' | 'facets'): void {
    bands.forEach((band, b) => {
      const found = storeyFaces(context, form, face, band.from, band.to, follow)
      for (const one of found) {
        const next = bands[b + 1]
        const [low, high] = [
          Math.min(...one.face.loops.flat().map((p) => p[2])),
          Math.max(...one.face.loops.flat().map((p) => p[2])),
        ]
        const reaches = next && high > band.to - 1e-5
        const piece = piecesBetween(one.face, low, high)[0]
        if (!piece || high - low < LIMITS.leastPiece) continue
        const base = { level: band.level, height: band.from - band.above }
        const free = one.rows ? [piece] : freeStretches(context, form, one.face, piece)
        if (free.length === 0) {
          out.leftOut.push({
            mass: form.id,
            what: `${form.name}, ${band.name}, face of ${(piece.to - piece.from).toFixed(2)} m`,
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
            name: `${form.name}, ${band.name}, wall ${numbered(band.level)}`,
            side: 'inside',
            host: { mass: form.id, face: face.name, piece: found.length > 1 ? one.key : '' },
            base: tie(band.level, band.above),
            top: reaches ? tie(next.level) : null,
            print: storeyPrint(one, ties, base, reaches ? { level: next.level, height: next.from } : null),
          },
          one.off,
        )
      }
    })
  }

  function addWalls(face: WorldFace, bands: Band[]): void {
    if (face.bent) {
      addStoreyWalls(face, 'upright')
      return
    }
    const perBand = bands.map((band) => {
      const closed = closedOver(form, band.from)
      const toTop = piecesBetween(face, band.from, Infinity, closed)
      return piecesBetween(face, band.from, band.to, closed).map((piece) => ({
        piece,
        reject: rejected(context, form, face, piece, toTop, band.from),
      }))
    })
    bands.forEach((band, b) => {
      const next = bands[b + 1]
      const several = (perBand[b]?.length ?? 0) > 1
      for (const { piece, reject } of perBand[b] ?? []) {
        const what = `${form.name}, ${band.name}, face of ${(piece.to - piece.from).toFixed(2)} m`
        const above = next
          ? (perBand[b + 1] ?? []).filter(
              (p) => p.piece.from < piece.to - 1e-6 && p.piece.to > piece.from + 1e-6 && p.piece.z0 < band.to + 1e-5,
            )
          : []
        // It reaches to the next storey when a wall stands there, or when its face ends at that very height.
        const runsUp = goesOnIn(context, form, face).some(
          (o) => Math.abs(lowestOf(o.face) - piece.z1) < TOLERANCE.touch,
        )
        const reaches =
          next && !runsUp && piece.z1 > band.to - 1e-5 && (above.length === 0 || above.some((p) => !p.reject))
        // What it is shaped by: to the top of its face where it runs up.
        const own = several ? piece.key : ''
        const shaped = reaches
          ? piece
          : (wallPiece(face, band.from, Infinity, own, closedOver(form, band.from)) ?? piece)
        const free = reject
          ? []
          : freeStretches(context, form, face, shaped).filter(
              (p) => p.z0 < shaped.z0 + 1e-3 || p.z1 - p.z0 > LIMITS.leastPiece,
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
            face.round ? 'curved wall' : Math.abs(tiltOf(face)) > 1e-9 ? 'sloping wall' : 'wall',
            faceAreaOf({ face, piece: stretch, rows: null }),
            {
              kind: 'wall',
              follow: 'face',
              name: `${form.name}, ${band.name}, wall ${numbered(band.level)}`,
              side: 'inside',
              host: {
                mass: form.id,
                face: face.name,
                piece: `${own}${stretch.key.slice(ownPiece(stretch.key).length)}`,
              },
              base: tie(band.level, band.above),
              top: reaches && next ? tie(next.level) : null,
              print: facePrint(face, ties),
            },
          )
        }
      }
    })
  }
}

/** A face by what made it: "south", "side e2", "top". */
export function faceLabel(face: Pick<WorldFace, 'name'>): string {
  const [raw = '', piece] = face.name.split('~')
  const own = raw.split('/').slice(1).join(' ')
  return `${/^e\d+$/.test(own) ? `side ${own.slice(1)}` : own}${piece ? ', a piece' : ''}`
}

function choicesOf(face: WorldFace): FaceAs[] {
  const tilt = tiltOf(face)
  if (Math.abs(tilt) > 1 - 1e-9) return [tilt > 0 ? 'roof' : 'soffit slab', 'nothing']
  const walls: FaceAs[] = face.bent ? ['upright walls', 'facets'] : ['wall']
  return [...walls, ...(tilt > 1e-3 ? ['roof' as const] : tilt < -1e-3 ? ['soffit slab' as const] : []), 'nothing']
}

/** Why nothing of a piece of face stands free. */
function takenSay(context: FabricContext, form: MassForm, face: WorldFace, piece: Piece): string {
  const rect = rectOf(piece.region)
  const by = takenOf(context, form, face).find((t) => rectsMeet(rectOf(t.region), rect, 0))?.by
  return by ? `lies inside ${by.name}, or opens to it` : 'lies inside another mass'
}

interface Band {
  level: string
  name: string
  above: number
  from: number
  to: number
}

/** The storeys of a mass as bands of height; what lies below the lowest taken storey is a band of its own, from the mass's base. */
function bandsOf(form: MassForm, storeys: LevelHeight[], baseLevel: string, baseHeight: number): Band[] {
  const starts: Omit<Band, 'to'>[] = storeys.map((l) => ({ level: l.id, name: l.name, above: 0, from: l.height }))
  const first = starts[0]
  if (!first || first.from > form.base + 1e-4)
    starts.unshift({ level: baseLevel, name: 'base', above: form.base - baseHeight, from: form.base })
  return starts.map((s, i) => ({ ...s, to: starts[i + 1]?.from ?? Infinity }))
}

/** Whether a flat top lies at a storey's height with floor of that storey beside it, so that one can step out on it. */
function besideStorey(context: FabricContext, form: MassForm, plan: Region, z: number): boolean {
  const level = context.levels.find((l) => l.kind === 'storey' && Math.abs(l.height - z) < 1e-4)
  const rect = rectOf(plan)
  return (
    level !== undefined &&
    [...context.forms.values()].some((o) => {
      if (
        !rectsMeet(o.rect, rect, 0.05) ||
        o.top < z + LIMITS.leastUpright ||
        !takenStoreys(context, o).some((l) => l.id === level.id)
      )
        return false
      const plate = context.plateAt(o, z)
      return plate !== null && rectsMeet(plate.rect, rect, 0.05)
    }) &&
    levelHeight(context, level.id) > form.base + 1e-4
  )
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
  const onRoof = Math.abs(floor - form.base) < 1e-4 && isRoofBody(context, form)
  if (piece.z0 < lowestOf(face) + 1e-4 && isRunOver(context, form, face))
    return 'goes on above a wall that runs up over it'
  if (piece.z0 > floor + 1e-4)
    return piece.z1 - piece.z0 < LIMITS.leastPiece
      ? `only ${(piece.z1 - piece.z0).toFixed(2)} m of it lie in this storey: the slab above takes its place`
      : null
  if (floor <= lowestOf(face) + 1e-4 && !onRoof)
    return piece.z1 - piece.z0 < LIMITS.leastHigh ? `is only ${(piece.z1 - piece.z0).toFixed(3)} m high` : null
  const wholeTop = Math.max(...toTop.filter((p) => p.from < piece.to && p.to > piece.from).map((p) => p.z1), piece.z1)
  if (wholeTop - floor < LIMITS.leastUpright)
    return `is only ${(wholeTop - floor).toFixed(2)} m high: a thin top, the wall below runs up`
  const roofSpace = roofSpaceOver(form, facesAbove(face, piece.wide.from, piece.wide.to, floor), floor)
  return roofSpace ? 'borders roof space only: the wall below runs up' : null
}
