import { buildUpThickness } from './build-up'
import { areaOf, intersectRegions, rectOf, rectsMeet, subtractRegions, uniteRegions, type Region, type Vec2, type Vec3 } from '../solid'
import type { Plate } from '../slice'
import type { MassForm } from '../form'
import { inOrder, type Part } from '../project'
import type { Piece } from './bands'
import { bodyHeights, bodyVolume, type PartBody } from './body'
import { bondOf, rawName, shapingFace, wallBand, type Bond } from './bond'
import { facesOfForm, levelHeight, type FabricContext } from './context'
import { shapeParapet } from './parapets'
import { tiltOf } from './print'
import { shapeRoof, type Overhangs } from './roofs'
import { shapeWalls, wallPiece, type WallInput, type WallShape } from './walls'

export type PartRole = 'wall' | 'curved wall' | 'sloping wall' | 'facet wall' | 'floor slab' | 'ground slab' | 'soffit slab' | 'flat roof' | 'pitched roof' | 'terrace' | 'parapet'
export const isWall = (role: PartRole): boolean => role.endsWith('wall')

/** A part as computed: its tie, body and figures. area: m2 of face (walls, roofs) or of floor (slabs); volume m3. */
export interface PartStudy {
  id: string; part: Part; role: PartRole; bond: Bond
  body: PartBody | null
  /** its outline in plan, at the foot */
  plan: Region
  area: number; volume: number; thickness: number; length: number | null
}

/** Computes parts from what they saw of their hosts and from the levels as they are; walls of a storey are joined together. */
export function studyParts(context: FabricContext, parts: Part[] = inOrder(context.scheme.parts)): PartStudy[] {
  const thicknesses = new Map(Object.values(context.project.buildUps).map((b) => [b.id, buildUpThickness(b, context.numbers)]))
  const thicknessOf = (part: Part) => thicknesses.get(part.buildUp) ?? 0
  const slabs = new Map(parts.filter((p) => p.kind === 'slab' && p.base).map((p) => [`${p.host.mass}@${p.base?.level}`, thicknessOf(p)]))
  const inputs = parts.filter((p) => p.kind === 'wall').flatMap((part): WallInput[] => {
    const input = wallInput(context, part, thicknessOf(part), slabs)
    return input ? [input] : []
  })
  const walls = new Map(shapeWalls(inputs, context.memo).map((w) => [w.id, w]))
  const throughAt = throughWalls(context, parts, walls)

  return parts.map((part): PartStudy => {
    const thickness = thicknessOf(part)
    const bond = bondOf(context, part)
    const shape = shapeOf(context, part, thickness, bond, walls, throughAt)
    return context.memo.of(part, 'study', [thickness, bond.status, bond.why, shape], () => ({
      id: part.id, part, bond, thickness, ...shape, volume: shape.body ? bodyVolume(shape.body) : 0,
    }))
  })
}

type Shape = Pick<PartStudy, 'role' | 'body' | 'plan' | 'area' | 'length'>
const shapeless = (role: PartRole): Shape => SHAPELESS[role] ??= { role, body: null, plan: [], area: 0, length: null }
const SHAPELESS: Partial<Record<PartRole, Shape>> = {}

function shapeOf(context: FabricContext, part: Part, thickness: number, bond: Bond, walls: Map<string, WallShape>, throughAt: ThroughAt): Shape {
  switch (part.kind) {
    case 'wall': {
      const wall = walls.get(part.id)
      return wall ? context.memo.of(part, 'shape', [wall], () => ({ role: wallRole(part), body: wall.body, plan: wall.plan, area: wall.faceArea, length: wall.length })) : shapeless('wall')
    }
    case 'slab': return part.print.kind === 'face' ? roofShape(context, part, thickness) : slabShape(context, part, thickness, bond, throughAt)
    case 'roof': case 'terrace': return roofShape(context, part, thickness)
    case 'parapet': return parapetShape(context, part, thickness)
  }
}

function wallRole(part: Part): PartRole {
  if (part.print.kind !== 'face') return 'wall'
  if (part.print.rows) return 'facet wall'
  return part.print.round ? 'curved wall' : Math.abs(part.print.normal[2]) > 1e-9 ? 'sloping wall' : 'wall'
}

function parapetShape(context: FabricContext, part: Part, thickness: number): Shape {
  const { print } = part
  const form = context.forms.get(part.host.mass)
  if (print.kind !== 'face') return shapeless('parapet')
  const { face } = shapingFace(context, part, print)
  const rise = context.numbers.length(part.rise)
  return context.memo.of(part, 'shape', [face, form, rise, thickness], () => {
    const falls = form ? overhangsOf(form, face.plane.n) : () => true
    const shape = shapeParapet(face, thickness, rise, falls)
    return shape ? { role: 'parapet', body: shape.body, plan: shape.plan, area: shape.faceArea, length: shape.length } : shapeless('parapet')
  })
}

function roofShape(context: FabricContext, part: Part, thickness: number): Shape {
  const { print } = part
  if (print.kind !== 'face') return shapeless('flat roof')
  const { face } = shapingFace(context, part, print)
  const form = context.forms.get(part.host.mass)
  const flat = print.normal[2] > 1 - 1e-9
  const onTop = flat && form ? platesOnTop(context, form, face.plane.d) : []
  const overhang = context.numbers.length(part.overhang)
  const own = Object.entries(part.overhangs).map(([edge, num]) => [edge, context.numbers.length(num)] as const)
  return context.memo.of(part, 'shape', [face, form, overhang, own.join(';'), thickness, ...onTop], () => {
    const falls = form ? overhangsOf(form, face.plane.n) : () => false
    const differs = new Map(own)
    const by: Overhangs = (beyond, a, b) => (part.kind === 'roof' && falls(beyond, a, b) ? differs.get(rawName(beyond)) ?? overhang : 0)
    const roof = shapeRoof(face, thickness, part.side, by, uniteRegions(onTop.map((p) => p.region)))
    const role: PartRole = part.kind === 'slab' ? 'soffit slab' : part.kind === 'terrace' ? 'terrace' : flat ? 'flat roof' : 'pitched roof'
    return { role, body: roof.body, plan: roof.plan, area: roof.faceArea, length: null }
  })
}

/** The faces over whose edge a roof can hang, each once. */
export function eavesOf(context: FabricContext, part: Part): string[] {
  const form = context.forms.get(part.host.mass)
  if (part.print.kind !== 'face' || !form) return []
  const { face } = shapingFace(context, part, part.print)
  const falls = overhangsOf(form, face.plane.n)
  return [...new Set(face.loops.flatMap((loop, l) => loop.flatMap((a, i) => { const beyond = face.beyond[l]?.[i] ?? ''; return falls(beyond, a, loop[(i + 1) % loop.length] as Vec3) ? [rawName(beyond)] : [] })))]
}

function wallInput(context: FabricContext, part: Part, thickness: number, slabs: Map<string, number>): WallInput | null {
  const { print } = part
  if (print.kind !== 'face' || thickness <= 0) return null
  const band = wallBand(context, part)
  const floor = (level: string) => context.levels.find((l) => l.id === level)?.floorBuildUp ?? 0
  const head = part.top ? band.to - floor(part.top.level) - (slabs.get(`${part.host.mass}@${part.top.level}`) ?? 0) : Infinity
  const shaping = shapingFace(context, part, print)
  return context.memo.of(part, 'input', [shaping, band.from, band.to, head, thickness], () => {
    const { face, rows } = shaping
    const piece = wallPiece(face, band.from, band.to, part.follow === 'face' ? part.host.piece : '')
    const cropped = piece && crop(piece, head)
    return cropped ? { id: part.id, storey: part.base?.level ?? part.host.mass, face, piece: cropped, thickness, side: part.side, rows: rows && rowsBetween(rows, cropped.z0, cropped.z1) } : null
  })
}

/** Facets between two heights of their own. */
function rowsBetween([low, high]: [Vec3[], Vec3[]], z0: number, z1: number): [Vec3[], Vec3[]] {
  const at = (z: number) => low.map((p, i): Vec3 => {
    const q = high[i] as Vec3
    const t = (z - p[2]) / (q[2] - p[2] || 1)
    return [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, z]
  })
  return [at(z0), at(z1)]
}

/** A piece below a height; its foot stays what it was. */
function crop(piece: Piece, to: number): Piece | null {
  if (piece.z1 <= to + 1e-9) return piece
  if (to - piece.z0 < 1e-4) return null
  const rect = rectOf(piece.region)
  const region = intersectRegions(piece.region, [[[rect.x0 - 1, piece.z0 - 1], [rect.x1 + 1, piece.z0 - 1], [rect.x1 + 1, to], [rect.x0 - 1, to]]])
  const kept = rectOf(region)
  return { ...piece, region, z1: to, area: areaOf(region), wide: { from: kept.x0, to: kept.x1 } }
}

type ThroughAt = (mass: string, level: string) => Region[]

/** Plans of the walls that run up through a level from below, whose feet a slab there must leave free. */
function throughWalls(context: FabricContext, parts: Part[], walls: Map<string, WallShape>): ThroughAt {
  const tall = new Map<string, { level: string | undefined; plan: Region; z0: number; z1: number }[]>()
  for (const part of parts) {
    const wall = part.kind === 'wall' && part.top === null && part.side === 'inside' ? walls.get(part.id) : undefined
    if (!wall) continue
    const list = tall.get(part.host.mass) ?? []
    list.push({ level: part.base?.level, plan: wall.plan, ...context.memo.of(wall, 'heights', [], () => bodyHeights(wall.body)) })
    tall.set(part.host.mass, list)
  }
  return (mass, level) => {
    const z = levelHeight(context, level)
    return (tall.get(mass) ?? []).filter((w) => w.level !== level && w.z0 < z - 0.01 && w.z1 > z + 0.01).map((w) => w.plan)
  }
}

function slabShape(context: FabricContext, part: Part, thickness: number, bond: Bond, throughAt: ThroughAt): Shape {
  const { print, base } = part
  const level = base && context.levels.find((l) => l.id === base.level)
  const form = context.forms.get(part.host.mass)
  if (print.kind !== 'plate' || !level || thickness <= 0) return shapeless('floor slab')
  const plate = bond.status === 'bonded' && form ? context.plateAt(form, level.height) : null
  const top = level.height + context.numbers.length(base.above) - level.floorBuildUp
  const through = throughAt(part.host.mass, level.id)
  return context.memo.of(part, 'shape', [plate, form, top, level.height, thickness, ...through], () => {
    const whole = plate ? plate.region : print.loops.map((l) => l.map(([x = 0, y = 0]): Vec2 => [x, y]))
    const plan = subtractRegions(whole, uniteRegions(through))
    const role = form && Math.abs(level.height - form.base) < 1e-5 ? 'ground slab' : 'floor slab'
    return { role, plan, area: areaOf(plan), body: { kind: 'prism', region: plan, z0: top - thickness, z1: top }, length: null }
  })
}

/** Whether a top falls away at an edge, to the walls below it: at ridges, valleys and walls that rise beside it, it does not. */
export function overhangsOf(form: MassForm, n: Vec3): (beyond: string, a: Vec3, b: Vec3) => boolean {
  const faces = facesOfForm(form)
  return (beyond, a, b) => {
    const wall = faces.find((f) => rawName(f.name) === rawName(beyond))
    if (!wall || Math.abs(tiltOf(wall)) > 0.5) return false
    const e: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
    const out: Vec3 = [e[1] * n[2] - e[2] * n[1], e[2] * n[0] - e[0] * n[2], e[0] * n[1] - e[1] * n[0]]
    // What lies outside of a round wall depends on the place; its shell turns its hollow side to its centre.
    if (wall.round) return ((a[0] + b[0]) / 2 - wall.round.x) * out[0] + ((a[1] + b[1]) / 2 - wall.round.y) * out[1] > 0 === wall.round.sweep > 0
    return wall.bent || wall.plane.n[0] * out[0] + wall.plane.n[1] * out[1] + wall.plane.n[2] * out[2] > 0
  }
}

/** The plates of other masses that stand on a flat top at a height (m). */
export function platesOnTop(context: FabricContext, form: MassForm, z: number): Plate[] {
  return [...context.forms.values()].flatMap((o) => {
    if (o === form || o.base >= z + 1e-5 || o.top <= z + 1e-5 || !rectsMeet(o.rect, form.rect)) return []
    const plate = context.plateAt(o, z)
    return plate ? [plate] : []
  })
}
