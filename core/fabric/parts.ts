import { buildUpThickness } from './build-up'
import { areaOf, intersectRegions, rectOf, rectsMeet, subtractRegions, uniteRegions, type Region, type Vec2, type Vec3 } from '../solid'
import type { Plate } from '../slice'
import type { MassForm } from '../form'
import { inOrder, type Part } from '../project'
import type { Piece } from './bands'
import { bodyHeights, bodyVolume, type PartBody } from './body'
import { bondOf, rawName, wallBand, type Bond } from './bond'
import { facesOfForm, levelHeight, type FabricContext } from './context'
import { printedFace } from './print'
import { shapeRoof, type Overhangs } from './roofs'
import { shapeWalls, wallPiece, type WallInput, type WallShape } from './walls'

export type PartRole = 'wall' | 'floor slab' | 'ground slab' | 'flat roof' | 'pitched roof'

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
      return wall ? context.memo.of(part, 'shape', [wall], () => ({ role: 'wall', body: wall.body, plan: wall.plan, area: wall.faceArea, length: wall.length })) : shapeless('wall')
    }
    case 'slab': return slabShape(context, part, thickness, bond, throughAt)
    case 'roof': return roofShape(context, part, thickness)
  }
}

function roofShape(context: FabricContext, part: Part, thickness: number): Shape {
  const { print } = part
  if (print.kind !== 'face') return shapeless('flat roof')
  const height = levelHeight(context, print.zFrom)
  const form = context.forms.get(part.host.mass)
  const overhang = context.numbers.length(part.overhang)
  const flat = print.normal[2] > 1 - 1e-9
  const onTop = flat && form ? platesOnTop(context, form, print.distance + print.normal[2] * height) : []
  return context.memo.of(part, 'shape', [height, form, overhang, thickness, ...onTop], () => {
    const face = printedFace(print, height, part.host.face)
    const roof = shapeRoof(face, thickness, part.side, overhang, form ? overhangsOf(form, face.plane.n) : () => false, uniteRegions(onTop.map((p) => p.region)))
    return { role: flat ? 'flat roof' : 'pitched roof', body: roof.body, plan: roof.plan, area: roof.faceArea, length: null }
  })
}

function wallInput(context: FabricContext, part: Part, thickness: number, slabs: Map<string, number>): WallInput | null {
  const { print } = part
  if (print.kind !== 'face' || thickness <= 0) return null
  const height = levelHeight(context, print.zFrom)
  const band = wallBand(context, part)
  const floor = (level: string) => context.levels.find((l) => l.id === level)?.floorBuildUp ?? 0
  const head = part.top ? band.to - floor(part.top.level) - (slabs.get(`${part.host.mass}@${part.top.level}`) ?? 0) : Infinity
  return context.memo.of(part, 'input', [height, band.from, band.to, head, thickness], () => {
    const face = printedFace(print, height, part.host.face)
    const piece = wallPiece(face, band.from, band.to, part.host.piece)
    const cropped = piece && crop(piece, head)
    return cropped ? { id: part.id, storey: part.base?.level ?? part.host.mass, face, piece: cropped, thickness, side: part.side } : null
  })
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

/** A roof hangs over the walls below its edges; not over ridges, valleys and walls that rise beside it. */
export function overhangsOf(form: MassForm, n: Vec3): Overhangs {
  const faces = facesOfForm(form)
  return (beyond, a, b) => {
    const wall = faces.find((f) => rawName(f.name) === rawName(beyond))
    if (!wall || Math.abs(wall.plane.n[2]) > 0.5) return false
    const e: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
    const out: Vec3 = [e[1] * n[2] - e[2] * n[1], e[2] * n[0] - e[0] * n[2], e[0] * n[1] - e[1] * n[0]]
    return wall.plane.n[0] * out[0] + wall.plane.n[1] * out[1] + wall.plane.n[2] * out[2] > 0
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
