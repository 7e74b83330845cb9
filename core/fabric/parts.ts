import { buildUpThickness } from './build-up'
import { areaOf, intersectRegions, rectOf, subtractRegions, uniteRegions, type Region, type Vec2, type Vec3 } from '../solid'
import type { MassForm } from '../form'
import { inOrder, type Part } from '../project'
import type { Piece } from './bands'
import { bodyHeights, bodyVolume, type PartBody } from './body'
import { bondOf, rawName, wallBand, type Bond } from './bond'
import { facesOfForm, levelHeight, type FabricContext } from './context'
import { printedFace } from './print'
import { shapeRoof, type Overhangs } from './roofs'
import { shapeWalls, wallPiece, type WallInput } from './walls'

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
  const thicknessOf = (part: Part) => {
    const buildUp = context.project.buildUps[part.buildUp]
    return buildUp ? buildUpThickness(buildUp, context.numbers) : 0
  }
  const slabs = new Map(parts.filter((p) => p.kind === 'slab' && p.base).map((p) => [`${p.host.mass}@${p.base?.level}`, thicknessOf(p)]))
  const inputs = parts.filter((p) => p.kind === 'wall').flatMap((part): WallInput[] => {
    const input = wallInput(context, part, thicknessOf(part), slabs)
    return input ? [input] : []
  })
  const walls = new Map(shapeWalls(inputs).map((w) => [w.id, w]))
  const throughAt = throughWalls(context, parts, walls)

  return parts.map((part): PartStudy => {
    const thickness = thicknessOf(part)
    const bond = bondOf(context, part)
    const common = { id: part.id, part, bond, thickness }
    const none = { ...common, body: null, plan: [], area: 0, volume: 0, length: null }
    switch (part.kind) {
      case 'wall': {
        const wall = walls.get(part.id)
        if (!wall) return { ...none, role: 'wall' }
        return { ...common, role: 'wall', body: wall.body, plan: wall.plan, area: wall.faceArea, volume: bodyVolume(wall.body), length: wall.length }
      }
      case 'slab': {
        const slab = slabShape(context, part, thickness, bond, throughAt)
        return slab ? { ...common, ...slab, volume: bodyVolume(slab.body), length: null } : { ...none, role: 'floor slab' }
      }
      case 'roof': {
        if (part.print.kind !== 'face') return { ...none, role: 'flat roof' }
        const face = printedFace(part.print, levelHeight(context, part.print.zFrom), part.host.face)
        const form = context.forms.get(part.host.mass)
        const flat = face.plane.n[2] > 1 - 1e-9
        const roof = shapeRoof(face, thickness, part.side, context.numbers.length(part.overhang), form ? overhangsOf(form, face.plane.n) : () => false, flat && form ? standingOnTop(context, form, face.plane.d) : [])
        return { ...common, role: flat ? 'flat roof' : 'pitched roof', body: roof.body, plan: roof.plan, area: roof.faceArea, volume: bodyVolume(roof.body), length: null }
      }
    }
  })
}

function wallInput(context: FabricContext, part: Part, thickness: number, slabs: Map<string, number>): WallInput | null {
  if (part.print.kind !== 'face') return null
  const face = printedFace(part.print, levelHeight(context, part.print.zFrom), part.host.face)
  const band = wallBand(context, part)
  const piece = wallPiece(face, band.from, band.to, part.host.piece)
  if (!piece) return null
  const floor = (level: string) => context.levels.find((l) => l.id === level)?.floorBuildUp ?? 0
  const head = part.top ? band.to - floor(part.top.level) - (slabs.get(`${part.host.mass}@${part.top.level}`) ?? 0) : Infinity
  const cropped = crop(piece, head)
  return cropped && thickness > 0 ? { id: part.id, storey: part.base?.level ?? part.host.mass, face, piece: cropped, thickness, side: part.side } : null
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

/** Walls that run up through a level from below, whose feet a slab there must leave free. */
function throughWalls(context: FabricContext, parts: Part[], walls: Map<string, { plan: Region; body: PartBody }>) {
  const tall = parts.filter((p) => p.kind === 'wall' && p.top === null && p.side === 'inside').flatMap((p) => {
    const wall = walls.get(p.id)
    return wall ? [{ mass: p.host.mass, level: p.base?.level, plan: wall.plan, ...bodyHeights(wall.body) }] : []
  })
  return (mass: string, level: string): Region => {
    const z = levelHeight(context, level)
    return uniteRegions(tall.filter((w) => w.mass === mass && w.level !== level && w.z0 < z - 0.01 && w.z1 > z + 0.01).map((w) => w.plan))
  }
}

function slabShape(context: FabricContext, part: Part, thickness: number, bond: Bond, throughAt: (mass: string, level: string) => Region): { role: PartRole; body: PartBody; plan: Region; area: number } | null {
  if (part.print.kind !== 'plate' || !part.base) return null
  const level = context.levels.find((l) => l.id === part.base?.level)
  const form = context.forms.get(part.host.mass)
  if (!level || thickness <= 0) return null
  const plate = bond.status === 'bonded' && form ? context.plateAt(form, level.height) : null
  const whole = plate ? plate.region : part.print.loops.map((l) => l.map(([x = 0, y = 0]): Vec2 => [x, y]))
  const plan = subtractRegions(whole, throughAt(part.host.mass, level.id))
  const top = level.height + context.numbers.length(part.base.offset) - level.floorBuildUp
  const role = form && Math.abs(level.height - form.base) < 1e-5 ? 'ground slab' : 'floor slab'
  return { role, plan, area: areaOf(plan), body: { kind: 'prism', region: plan, z0: top - thickness, z1: top } }
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

/** What other masses cover of a flat top at a height. */
export function standingOnTop(context: FabricContext, form: MassForm, z: number): Region {
  const others = [...context.forms.values()].filter((o) => o !== form && o.base < z + 1e-5 && o.top > z + 1e-5)
  return uniteRegions(others.flatMap((o) => { const plate = context.plateAt(o, z); return plate ? [plate.region] : [] }))
}
