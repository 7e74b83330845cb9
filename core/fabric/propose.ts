import { inOrder, type Part } from '../project'
import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import { areaOf, subtractRegions, uniteRegions, type Vec2 } from '../solid'
import { facesAbove, piecesBetween, type Piece } from './bands'
import { besideOthers, NOTHING_BESIDE } from './beside'
import { faceArea, rawName } from './bond'
import { faceRole, facesOfForm, levelHeight, takenStoreys, type FabricContext } from './context'
import { LIMITS } from './limits'
import { platesOnTop, type PartRole } from './parts'
import { facePrint, platePrint, type WorldFace } from './print'

/** A part that a face could become; `part` has no id, build-up and overhang yet. */
export interface Candidate { key: string; role: PartRole; area: number; part: Omit<Part, 'id' | 'order' | 'buildUp' | 'overhang'> }

/** What is not made, and why. */
export interface LeftOut { mass: string; what: string; why: string; area: number }

/** What is made, but should be looked at. */
export interface Remark { mass: string; what: string; say: string }

export interface Proposal { candidates: Candidate[]; leftOut: LeftOut[]; remarks: Remark[] }

/**
 * What the faces of the masses become: walls by storey, slabs at the storeys taken, roofs on what looks up. Reads faces,
 * not cuts: a piece of face that borders only roof space gives no wall, the wall below runs up instead.
 */
export function propose(context: FabricContext, masses: string[] = inOrder(context.scheme.masses).map((m) => m.id)): Proposal {
  const made = new Set(Object.values(context.scheme.parts).map(partKey))
  const proposal: Proposal = { candidates: [], leftOut: [], remarks: [] }
  for (const id of masses) {
    const form = context.forms.get(id)
    if (!form) continue
    const found = proposeFor(context, form)
    for (const candidate of found.candidates) {
      if (made.has(candidate.key)) proposal.leftOut.push({ mass: id, what: candidate.part.name, why: 'is made already', area: candidate.area })
      else proposal.candidates.push(candidate)
    }
    proposal.leftOut.push(...found.leftOut)
    proposal.remarks.push(...found.remarks)
  }
  return proposal
}

/** What tells one part of the building from another, whoever made it. */
export const partKey = (part: Pick<Part, 'kind' | 'host' | 'base'>): string =>
  part.kind === 'roof' ? `roof|${part.host.mass}|${part.host.face}` : `${part.kind}|${part.host.mass}|${part.host.face}|${part.base?.level ?? ''}|${part.host.piece}`

function proposeFor(context: FabricContext, form: MassForm): Proposal {
  const out: Proposal = { candidates: [], leftOut: [], remarks: [] }
  const storeys = takenStoreys(context, form)
  const baseLevel = context.scheme.masses[form.id]?.base.level ?? ''
  const baseHeight = levelHeight(context, baseLevel)
  const tie = (level: string, above = 0) => ({ level, above })
  const addSlab = (storey: LevelHeight) => {
    const plate = context.plateAt(form, storey.height)
    if (!plate) return
    const role = Math.abs(storey.height - form.base) < 1e-5 ? 'ground slab' : 'floor slab'
    const part = { kind: 'slab' as const, name: `${form.name}, ${storey.name}, ${role}`, side: 'inside' as const, host: { mass: form.id, face: 'plate', piece: '' }, base: tie(storey.id), top: null, print: platePrint(form, baseHeight, plate.region) }
    out.candidates.push({ key: partKey(part), role, area: plate.area, part })
  }
  storeys.forEach(addSlab)

  const bands = bandsOf(form, storeys, baseLevel, baseHeight)
  const faces = facesOfForm(form)
  const number = { wall: new Map<string, number>(), roof: 0 }
  for (const face of faces) {
    const role = faceRole(face, form, LIMITS.upright)
    const area = faceArea(face)
    if (role === 'soffit') out.leftOut.push({ mass: form.id, what: `${form.name}, face looking down`, why: 'the slab above it covers it', area })
    if (role === 'roof') addRoof(face, area)
    if (role === 'wall') addWalls(face)
  }
  return out

  function addRoof(face: WorldFace, area: number): void {
    const flat = face.plane.n[2] > 1 - 1e-9
    const covered = flat ? uniteRegions(platesOnTop(context, form, face.plane.d).map((p) => p.region)) : []
    const plan = face.loops.map((l) => l.map(([x, y]): Vec2 => [x, y]))
    const open = covered.length ? areaOf(subtractRegions(plan, covered)) / face.plane.n[2] : area
    if (open < 0.01) { out.leftOut.push({ mass: form.id, what: `${form.name}, top`, why: 'another mass stands on all of it', area }); return }
    const part = { kind: 'roof' as const, name: `${form.name}, roof ${++number.roof}`, side: 'outside' as const, host: { mass: form.id, face: face.name, piece: '' }, base: null, top: null, print: facePrint(face, baseLevel, baseHeight) }
    out.candidates.push({ key: partKey(part), role: flat ? 'flat roof' : 'pitched roof', area: open, part })
  }

  function addWalls(face: WorldFace): void {
    const perBand = bands.map((band) => {
      const toTop = piecesBetween(face, band.from, Infinity)
      return piecesBetween(face, band.from, band.to).map((piece) => ({ piece, reject: rejected(face, faces, piece, toTop, band.from) }))
    })
    bands.forEach((band, b) => {
      const next = bands[b + 1]
      const several = (perBand[b]?.length ?? 0) > 1
      for (const { piece, reject } of perBand[b] ?? []) {
        const what = `${form.name}, ${band.name}, face of ${(piece.to - piece.from).toFixed(2)} m`
        const beside = reject ? NOTHING_BESIDE : besideOthers(context, form, face, piece)
        const why = reject ?? beside.why
        if (beside.partly) out.remarks.push({ mass: form.id, what, say: beside.partly })
        if (why) { out.leftOut.push({ mass: form.id, what, why, area: piece.area }); continue }
        const above = next ? (perBand[b + 1] ?? []).filter((p) => p.piece.from < piece.to - 1e-6 && p.piece.to > piece.from + 1e-6 && p.piece.z0 < band.to + 1e-5) : []
        // It reaches to the next storey when a wall stands there, or when its face ends at that very height.
        const reaches = next && piece.z1 > band.to - 1e-5 && (above.length === 0 || above.some((p) => !p.reject))
        const count = (number.wall.get(band.level) ?? 0) + 1
        number.wall.set(band.level, count)
        const part = {
          kind: 'wall' as const, name: `${form.name}, ${band.name}, wall ${count}`, side: 'inside' as const,
          host: { mass: form.id, face: face.name, piece: several ? piece.key : '' },
          base: tie(band.level, band.above), top: reaches && next ? tie(next.level) : null, print: facePrint(face, baseLevel, baseHeight),
        }
        const runsUp = reaches ? 0 : above.reduce((sum, p) => sum + p.piece.area, 0)
        out.candidates.push({ key: partKey(part), role: 'wall', area: piece.area + runsUp, part })
      }
    })
  }
}

interface Band { level: string; name: string; above: number; from: number; to: number }

/** The storeys of a mass as bands of height; what lies below the lowest taken storey is a band of its own, from the mass's base. */
function bandsOf(form: MassForm, storeys: LevelHeight[], baseLevel: string, baseHeight: number): Band[] {
  const starts: Omit<Band, 'to'>[] = storeys.map((l) => ({ level: l.id, name: l.name, above: 0, from: l.height }))
  const first = starts[0]
  if (!first || first.from > form.base + 1e-4) starts.unshift({ level: baseLevel, name: 'base', above: form.base - baseHeight, from: form.base })
  return starts.map((s, i) => ({ ...s, to: starts[i + 1]?.from ?? Infinity }))
}

/** Why a piece above a floor is no wall of that storey, or null; `toTop` are the pieces of the face from the floor to its top. */
function rejected(face: WorldFace, faces: WorldFace[], piece: Piece, toTop: Piece[], floor: number): string | null {
  if (piece.z0 > floor + 1e-4) return piece.z1 - piece.z0 < LIMITS.leastPiece ? `only ${(piece.z1 - piece.z0).toFixed(2)} m of it lie in this storey: the slab above takes its place` : null
  if (floor <= lowestOf(face) + 1e-4) return null
  const wholeTop = Math.max(...toTop.filter((p) => p.from < piece.to && p.to > piece.from).map((p) => p.z1), piece.z1)
  if (wholeTop - floor < LIMITS.leastUpright) return `is only ${(wholeTop - floor).toFixed(2)} m high: a thin top, the wall below runs up`
  const above = facesAbove(face, piece.wide.from, piece.wide.to, floor)
  const slopes = above.map((name) => faces.filter((f) => rawName(f.name) === rawName(name) && f.plane.n[2] > 1e-6 && f.plane.n[2] < 1 - 1e-9))
  const roofSpace = above.length > 0 && slopes.every((s) => s.length > 0 && s.every((f) => lowestOf(f) < floor + LIMITS.leastUpright))
  return roofSpace ? 'borders roof space only: the wall below runs up' : null
}

const lowestOf = (face: WorldFace) => Math.min(...face.loops.flat().map((p) => p[2]))
