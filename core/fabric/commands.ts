import { faceTitle } from '../form'
import { onStrip, stripOf, TOLERANCE } from '../solid'
import { batch, type Edit, type SingleEdit } from '../edits'
import { inOrder, nextOrder, refuse, type BuildUp, type Id, type Num, type Part, type Project } from '../project'
import { piecesBetween, pointAt, type Piece } from './pieces'
import { hostFace, hostInStorey, hostState, printHeights, wallRange } from './bond'
import { facesOfForm, faceSlope, levelHeight, sidesOf, takenStoreys, tiesOf, type FabricContext } from './context'
import type { PartStudy } from './parts'
import { facePrint, platePrint, printedFace, tiltOf, type FacePrint, type WorldFace } from './print'
import type { Candidate, FaceAs, How } from './offers'
import { storeyPrint } from './storey-face'
import { closedOver } from './roof-space'
import { wallPiece } from './walls'

/** What is chosen in the preview: build-ups, sides, overhang, how high walls reach, how bent faces are taken. Null: none is made. */
export interface Choices {
  wall: Id
  slab: Id
  roof: Id
  terrace: Id | null
  parapet: Id | null
  wallSide: 'inside' | 'outside'
  /** roofs lie on the mass face, or under it */ roofSide: 'inside' | 'outside'
  overhang: Num
  /** m, of parapets */ rise: Num
  reach: How['reach']
  bent: How['bent']
  overrule: Readonly<Record<string, FaceAs>>
}

/** The project's first build-ups, walls by storey inside the face: what the preview begins with. */
export function usualChoices(project: Project): Choices {
  const first = (kind: BuildUp['for']) => inOrder(project.buildUps).find((b) => b.for === kind)?.id ?? null
  return {
    wall: first('wall') ?? '',
    slab: first('slab') ?? '',
    roof: first('roof') ?? '',
    terrace: first('terrace'),
    parapet: first('parapet'),
    wallSide: 'inside',
    roofSide: 'outside',
    overhang: 0,
    rise: 1.1,
    reach: 'storey',
    bent: 'upright walls',
    overrule: {},
  }
}

/** How faces are taken by these choices. */
export const howOf = (choices: Choices): How => ({
  reach: choices.reach,
  bent: choices.bent,
  overrule: choices.overrule,
  terraces: choices.terrace !== null,
  parapets: choices.terrace !== null && choices.parapet !== null,
})

/** Candidates with the choices on them, as parts: what the preview draws, and what accepting stores. */
export function partsFrom(context: FabricContext, mint: () => Id, candidates: Candidate[], choices: Choices): Part[] {
  let order = nextOrder(context.scheme.parts)
  return candidates.map(({ part }): Part => ({
    ...part,
    id: mint(),
    order: order++,
    buildUp: choices[part.kind] ?? refuse('unknown-id', 'No build-up is chosen for it.', 'Choose one in the preview.'),
    side: part.kind === 'wall' ? choices.wallSide : part.kind === 'roof' ? choices.roofSide : part.side,
    overhang: part.kind === 'roof' ? choices.overhang : 0,
    overhangs: {},
    rise: part.kind === 'parapet' ? choices.rise : 0,
    letGo: false,
    stays: null,
    kept: null,
  }))
}

/** Adds parts to the scheme, in one gesture. */
export const addParts = (context: FabricContext, parts: Part[]): Edit =>
  parts.length
    ? batch(parts.map((thing): SingleEdit => ({ edit: 'part.add', scheme: context.scheme.id, thing })))
    : refuse('geometry', 'There is nothing to make: all faces have their parts.', 'Draw a mass, or pick another one.')

/**
 * Brings drifted parts in line with their faces, in one gesture; kinds, names and build-ups stay. Those kept as they are stay too, unless
 * they are named alone.
 */
export function bringInLine(context: FabricContext, parts: PartStudy[]): Edit {
  const drifted = parts.filter((p) => p.bond.status === 'drifted' && (!p.bond.left || parts.length === 1))
  const edits = drifted.map((study): SingleEdit => ({
    edit: 'part.change',
    scheme: context.scheme.id,
    id: study.id,
    set: { ...freshTie(context, study.part), kept: null },
  }))
  return edits.length ? batch(edits) : refuse('geometry', 'No part has drifted.', 'Nothing needs to be done.')
}

/** Keeps drifted or loose parts as they are: they ask for nothing until their faces change again. */
export function keepAsIs(context: FabricContext, parts: PartStudy[]): Edit {
  const off = parts.filter((p) => p.bond.status !== 'bonded')
  return off.length
    ? batch(
        off.map((p): SingleEdit => ({
          edit: 'part.change',
          scheme: context.scheme.id,
          id: p.id,
          set: { kept: hostState(context, p.part) },
        })),
      )
    : refuse('geometry', 'These parts are in line.', 'Nothing needs to be kept.')
}

/** Lets parts go: they stay where they are, whatever becomes of the form and of the levels. `heights`: of all levels, m above the datum. */
export const letGo = ({ scheme, heights }: Pick<FabricContext, 'scheme' | 'heights'>, ids: Id[]): Edit =>
  batch(
    ids.map((id): SingleEdit => {
      const part = scheme.parts[id]
      const levels = [
        part?.base?.level,
        part?.top?.level,
        ...(part?.print.kind === 'face' ? [part.print.zFrom, part.print.zTo] : []),
      ].filter((l): l is Id => typeof l === 'string')
      return {
        edit: 'part.change',
        scheme: scheme.id,
        id,
        set: { letGo: true, kept: null, stays: Object.fromEntries(levels.map((l) => [l, heights.get(l) ?? 0])) },
      }
    }),
  )

/** Removes parts; loose ones first of all. */
export const removeParts = (context: FabricContext, ids: Id[]): Edit =>
  batch(ids.map((id): SingleEdit => ({ edit: 'part.remove', scheme: context.scheme.id, id })))

/**
 * A face that a loose part could stand on, nearest first: `away` m between where it stood and the face, `turned` degrees between the two.
 */
export interface Place {
  mass: Id
  face: string
  label: string
  away: number
  turned: number
}

/** Where a part could be attached again: faces of its own kind of slope, or floors for a slab, the likeliest first. */
export function placesFor(context: FabricContext, part: Part, most = 6): Place[] {
  const { print } = part
  if (print.kind === 'plate') {
    const level = part.base?.level
    const was = middleOf(print.loops.flat())
    return [...context.forms.values()]
      .filter((f) => takenStoreys(context, f).some((l) => l.id === level))
      .map((form): Place => {
        const plate = context.plateAt(form, levelHeight(context, level ?? ''))
        return {
          mass: form.id,
          face: 'plate',
          label: `floor of ${form.name}`,
          away: gap(was, middleOf(plate?.region.flat() ?? [])),
          turned: 0,
        }
      })
      .sort((a, b) => a.away - b.away)
      .slice(0, most)
  }
  const [low, high] = printHeights(context, part, print)
  const then = printedFace(print, low, high, '')
  const was = middleOf(then.loops.flat())
  const { from, to } = wallRange(context, part)
  return [...context.forms.values()]
    .flatMap((form) =>
      facesOfForm(form).flatMap((face): Place[] => {
        const slope = faceSlope(context, face, form)
        const wall = slope === 'upright' || slope === 'leaning'
        const fits =
          part.kind === 'wall'
            ? wall &&
              !face.bent &&
              (face.round !== null) === (then.round !== null) &&
              piecesBetween(face, from, to).length > 0
            : part.kind === 'slab'
              ? slope === 'soffit'
              : slope === 'roof'
        if (!fits) return []
        const dot = Math.min(
          1,
          Math.max(
            -1,
            face.plane.n[0] * then.plane.n[0] + face.plane.n[1] * then.plane.n[1] + face.plane.n[2] * then.plane.n[2],
          ),
        )
        return [
          {
            mass: form.id,
            face: face.name,
            label: `${form.name}, ${faceTitle(form, face.name)}`,
            away: gap(was, middleOf(face.loops.flat())),
            turned: face.round ? 0 : (Math.acos(dot) * 180) / Math.PI,
          },
        ]
      }),
    )
    .sort((a, b) => a.away + a.turned / 5 - b.away - b.turned / 5)
    .slice(0, most)
}

/** Attaches a part to another face; its kind, name and build-up stay. */
export function attach(context: FabricContext, part: Part, place: Pick<Place, 'mass' | 'face'>): Edit {
  const moved: Part = { ...part, letGo: false, host: { mass: place.mass, face: place.face, piece: '' }, follow: 'face' }
  return {
    edit: 'part.change',
    scheme: context.scheme.id,
    id: part.id,
    set: { ...freshTie(context, moved), follow: moved.follow, letGo: false, stays: null, kept: null },
  }
}

/** Parts of one kind with another build-up: one, all of the kind on a storey, or all of it. The number says how many change. */
export function exchange(
  context: Pick<FabricContext, 'scheme'>,
  part: Part,
  buildUp: BuildUp,
  reach: 'one' | 'storey' | 'all',
): { edit: Edit; count: number } {
  if (buildUp.for !== part.kind)
    refuse('edit', `"${buildUp.name}" is a build-up for a ${buildUp.for}.`, `Choose one for a ${part.kind}.`)
  const parts = exchanged(context, part, reach)
  const edits = parts
    .filter((p) => p.buildUp !== buildUp.id)
    .map((p): SingleEdit => ({
      edit: 'part.change',
      scheme: context.scheme.id,
      id: p.id,
      set: { buildUp: buildUp.id },
    }))
  return {
    edit: edits.length
      ? batch(edits)
      : refuse('edit', `They are all made of "${buildUp.name}" already.`, 'Choose another build-up.'),
    count: edits.length,
  }
}

/** The parts that an exchange reaches. */
export const exchanged = (
  { scheme }: Pick<FabricContext, 'scheme'>,
  part: Part,
  reach: 'one' | 'storey' | 'all',
): Part[] =>
  inOrder(scheme.parts).filter(
    (p) =>
      p.kind === part.kind &&
      (reach === 'one' ? p.id === part.id : reach === 'all' || (p.base?.level ?? null) === (part.base?.level ?? null)),
  )

/** The part's tie to its host as it is now: what it sees of it, and, where the face was divided, which piece it stands on. */
function freshTie(context: FabricContext, part: Part): Pick<Part, 'print' | 'host' | 'follow'> {
  const form =
    context.forms.get(part.host.mass) ??
    refuse('unknown-id', `The mass of "${part.name}" is gone.`, 'Remove the part, or undo the removal of the mass.')
  const ties = tiesOf(context, form)
  if (part.print.kind === 'plate') {
    const plate = part.base ? context.plateAt(form, levelHeight(context, part.base.level)) : null
    return plate
      ? { print: platePrint(ties.form, sidesOf(context, form, plate), plate.region), host: part.host, follow: 'face' }
      : refuse(
          'geometry',
          `"${part.name}" has no floor to follow.`,
          'Remove the part, or let the mass take the level again.',
        )
  }
  const { face } =
    hostFace(form, part.host.face) ??
    refuse('geometry', `The face of "${part.name}" is gone.`, 'Attach it to another face, or remove it.')
  if (part.kind === 'wall' && face.bent) {
    // A face that was flat or round and is bent now is taken by upright walls.
    const follow = part.follow === 'face' ? ('upright' as const) : part.follow
    const storey =
      hostInStorey(context, form, { ...part, follow, host: { ...part.host, piece: '' } }) ??
      refuse('geometry', `The face of "${part.name}" no longer reaches its storey.`, 'Remove the part.')
    const { from, to } = wallRange(context, part)
    const height = Math.max(...storey.face.loops.flat().map((p) => p[2]))
    const base = part.base
      ? { level: part.base.level, height: levelHeight(context, part.base.level) }
      : { level: ties.zFrom, height: Number.isFinite(from) ? from : ties.from }
    return {
      print: storeyPrint(
        storey,
        ties,
        base,
        part.top && Math.abs(height - to) < TOLERANCE.touch ? { level: part.top.level, height: to } : null,
      ),
      host: { ...part.host, face: face.name },
      follow,
    }
  }
  const piece = part.kind === 'wall' ? pieceFor(context, part, part.print, face) : part.host.piece
  return {
    print: facePrint(face, ties),
    host: { ...part.host, face: face.name, piece },
    follow: part.kind === 'wall' && Math.abs(tiltOf(face)) < 1 ? 'face' : part.follow,
  }
}

/** The key of the piece of a face that a wall stands on: its own, or else the one that lies most where it lay. */
function pieceFor(context: FabricContext, part: Part, print: FacePrint, face: WorldFace): string {
  const { from, to } = wallRange(context, part)
  const form = context.forms.get(part.host.mass)
  const closed = form ? closedOver(form, from) : () => false
  const pieces = piecesBetween(face, from, to, closed)
  // What divides a piece into stretches is other masses: that name stays.
  const strip = stripOf(part.host.piece)
  if (pieces.length <= 1) return onStrip('', part.host.piece)
  if (pieces.some((p) => p.key === strip)) return part.host.piece
  const [low, high] = printHeights(context, part, print)
  const then = printedFace(print, low, high, face.name)
  const was = wallPiece(then, from, to, strip, closed)
  // Along the new face, from where the old piece began to where it ended.
  const [a, b] = was
    ? [along(face, pointAt(then, was.from, was.z0)), along(face, pointAt(then, was.to, was.z0))]
    : [0, 0]
  const common = (p: Piece) => (was ? Math.min(p.to, Math.max(a, b)) - Math.max(p.from, Math.min(a, b)) : p.area)
  return onStrip([...pieces].sort((p, q) => common(q) - common(p))[0]?.key ?? '', part.host.piece)
}

function along(face: WorldFace, [x, y]: [number, number]): number {
  const [ox, oy] = pointAt(face, 0, face.loops[0]?.[0]?.[2])
  const { n } = face.plane
  return (x - ox) * -n[1] + (y - oy) * n[0]
}

function middleOf(points: readonly (readonly number[])[]): number[] {
  return [0, 1, 2].map((k) => points.reduce((s, p) => s + (p[k] ?? 0), 0) / Math.max(1, points.length))
}
const gap = (a: number[], b: number[]) => Math.hypot(...a.map((x, k) => x - (b[k] ?? 0)))
