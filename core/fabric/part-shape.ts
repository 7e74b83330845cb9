import { areaOf, subtractRegions, uniteRegions, type Region, type Vec2, type Vec3, rawName, TOLERANCE } from '../solid'
import type { MassForm } from '../form'
import type { LevelHeight } from '../levels'
import type { Part } from '../project'
import { bodyHeights, type PartBody } from './body'
import { shapingFace, type Bond } from './bond'
import { facesOfForm, levelHeight, tiedHeight, type FabricContext } from './context'
import { shapeParapet } from './parapets'
import { tiltOf } from './print'
import { shapeRoof, type Overhangs } from './roofs'
import { isRoofBody, nearTo, openStretches, standsIn, supportsOf } from './stands'
import type { WallShape } from './walls'

export type PartRole =
  | 'wall'
  | 'curved wall'
  | 'sloping wall'
  | 'facet wall'
  | 'floor slab'
  | 'ground slab'
  | 'soffit slab'
  | 'flat roof'
  | 'pitched roof'
  | 'terrace'
  | 'parapet'
/** Returns true for walls of all kinds: upright, sloping, curved, of facets. */
export const isWall = (role: PartRole): boolean => role.endsWith('wall')

/** The body of a part with its figures: m2 of face or of floor, m. */
export interface PartShape {
  role: PartRole
  body: PartBody | null
  /** its outline in plan, at the foot */
  plan: Region
  area: number
  length: number | null
}
/** the plan of a part whose face others cover wholly */
export const NOTHING: Region = []
export const shapeless = (role: PartRole): PartShape =>
  (SHAPELESS[role] ??= { role, body: null, plan: [], area: 0, length: null })
const SHAPELESS: Partial<Record<PartRole, PartShape>> = {}

export function shapeOf(
  context: FabricContext,
  part: Part,
  thickness: number,
  bond: Bond,
  walls: Map<string, WallShape>,
  throughAt: ThroughAt,
): PartShape {
  switch (part.kind) {
    case 'wall': {
      const wall = walls.get(part.id)
      return wall
        ? context.memo.keep(part, 'shape', [wall], () => ({
            role: wallRole(part),
            body: wall.body,
            plan: wall.plan,
            area: wall.faceArea,
            length: wall.length,
          }))
        : shapeless('wall')
    }
    case 'slab':
      return part.print.kind === 'face'
        ? roofShape(context, part, thickness)
        : slabShape(context, part, thickness, bond, throughAt)
    case 'roof':
    case 'terrace':
      return roofShape(context, part, thickness)
    case 'parapet':
      return parapetShape(context, part, thickness)
  }
}

function wallRole(part: Part): PartRole {
  if (part.print.kind !== 'face') return 'wall'
  if (part.print.rows) return 'facet wall'
  return part.print.round
    ? 'curved wall'
    : Math.abs(part.print.normal[2]) > TOLERANCE.rounding
      ? 'sloping wall'
      : 'wall'
}

function parapetShape(context: FabricContext, part: Part, thickness: number): PartShape {
  const { print } = part
  const form = context.forms.get(part.host.mass)
  if (print.kind !== 'face') return shapeless('parapet')
  const { face } = shapingFace(context, part, print)
  const rise = context.numbers.length(part.rise)
  return context.memo.keep(part, 'shape', [face, form, rise, thickness, ...(form ? nearTo(context, form) : [])], () => {
    const falls = form ? fallsAwayAt(form, face.plane.n) : () => true
    const z = face.plane.d / face.plane.n[2]
    const shape = shapeParapet(
      face,
      thickness,
      rise,
      (beyond, a, b) =>
        !falls(beyond, a, b) ? [] : form ? openStretches(context, form, [a[0], a[1]], [b[0], b[1]], z) : [[0, 1]],
      form ? standsIn(context, form, face) : [],
    )
    return shape
      ? { role: 'parapet', body: shape.body, plan: shape.plan, area: shape.faceArea, length: shape.length }
      : shapeless('parapet')
  })
}

function roofShape(context: FabricContext, part: Part, thickness: number): PartShape {
  const { print } = part
  if (print.kind !== 'face') return shapeless('flat roof')
  const { face } = shapingFace(context, part, print)
  const form = context.forms.get(part.host.mass)
  const flat = print.normal[2] > 1 - TOLERANCE.rounding
  const near = form && !part.letGo ? nearTo(context, form) : []
  const overhang = context.numbers.length(part.overhang)
  const own = Object.entries(part.overhangs).map(([edge, num]) => [edge, context.numbers.length(num)] as const)
  return context.memo.keep(part, 'shape', [face, form, overhang, own.join(';'), thickness, ...near], () => {
    const falls = form ? fallsAwayAt(form, face.plane.n) : () => false
    const differs = new Map(own)
    const by: Overhangs = (beyond, a, b) =>
      part.kind === 'roof' && falls(beyond, a, b) ? (differs.get(rawName(beyond)) ?? overhang) : 0
    const roof = shapeRoof(face, thickness, part.side, by, form && near.length ? standsIn(context, form, face) : [])
    const role: PartRole =
      part.kind === 'slab' ? 'soffit slab' : part.kind === 'terrace' ? 'terrace' : flat ? 'flat roof' : 'pitched roof'
    // Other masses stand on all of it.
    if (areaOf(roof.plan) <= TOLERANCE.area) return { ...shapeless(role), plan: NOTHING }
    return { role, body: roof.body, plan: roof.plan, area: roof.faceArea, length: null }
  })
}

/** The faces over whose edge a roof can hang, each once. */
export function eavesOf(context: FabricContext, part: Part): string[] {
  const form = context.forms.get(part.host.mass)
  if (part.print.kind !== 'face' || !form) return []
  const { face } = shapingFace(context, part, part.print)
  const falls = fallsAwayAt(form, face.plane.n)
  return [
    ...new Set(
      face.loops.flatMap((loop, l) =>
        loop.flatMap((a, i) => {
          const beyond = face.beyond[l]?.[i] ?? ''
          return falls(beyond, a, loop[(i + 1) % loop.length] as Vec3) ? [rawName(beyond)] : []
        }),
      ),
    ),
  ]
}

export type ThroughAt = (mass: string, level: string) => Region[]

/** Plans of the walls that run up through a level from below, whose feet a slab there must leave free. */
export function throughWalls(context: FabricContext, parts: Part[], walls: Map<string, WallShape>): ThroughAt {
  const tall = new Map<string, { level: string | undefined; plan: Region; z0: number; z1: number }[]>()
  for (const part of parts) {
    const wall = part.kind === 'wall' && part.top === null && part.side === 'inside' ? walls.get(part.id) : undefined
    if (!wall) continue
    const list = tall.get(part.host.mass) ?? []
    list.push({
      level: part.base?.level,
      plan: wall.plan,
      ...context.memo.keep(wall, 'heights', [], () => bodyHeights(wall.body)),
    })
    tall.set(part.host.mass, list)
  }
  return (mass, level) => {
    const z = levelHeight(context, level)
    const form = context.forms.get(mass)
    // Walls run up over a roof that stands on their mass, and so through its slab.
    const under = form && isRoofBody(context, form) ? supportsOf(context, form) : []
    return [mass, ...under.map((o) => o.id)]
      .flatMap((id) => tall.get(id) ?? [])
      .filter((w) => w.level !== level && w.z0 < z - 0.01 && w.z1 > z + 0.01)
      .map((w) => w.plan)
  }
}

function slabShape(context: FabricContext, part: Part, thickness: number, bond: Bond, throughAt: ThroughAt): PartShape {
  const { print, base } = part
  const level = base && context.levels.find((l) => l.id === base.level)
  const form = context.forms.get(part.host.mass)
  if (print.kind !== 'plate' || !level || thickness <= 0) return shapeless('floor slab')
  const plate = bond.status === 'bonded' && form ? context.plateAt(form, level.height) : null
  const height = tiedHeight(context, part, level.id)
  const top = height + context.numbers.length(base.above) - level.floorBuildUp
  const through = throughAt(part.host.mass, level.id)
  const open = bond.status === 'bonded' ? openIn(context, part.host.mass, level) : []
  return context.memo.keep(part, 'shape', [plate, form, top, height, thickness, ...through, null, ...open], () => {
    const whole = plate ? plate.region : print.loops.map((l) => l.map(([x = 0, y = 0]): Vec2 => [x, y]))
    const plan = subtractRegions(whole, uniteRegions([...through, ...open]))
    const role = form && Math.abs(height - form.base) < TOLERANCE.height ? 'ground slab' : 'floor slab'
    if (areaOf(plan) <= TOLERANCE.area) return shapeless(role)
    return {
      role,
      plan,
      area: areaOf(plan),
      body: { kind: 'prism', region: plan, z0: top - thickness, z1: top },
      length: null,
    }
  })
}

/** Where a slab is open: at voids that go on below it (what one stands on is its floor), and where a part of the plate is left out. */
const openIn = (context: FabricContext, mass: string, level: LevelHeight): Region[] =>
  context.offAt(mass, level.id).flatMap(({ why, by, region }) => {
    const foot = why === 'void' ? (context.voids.get(by)?.base ?? -Infinity) : -Infinity
    return why !== 'inset' && foot < level.height - TOLERANCE.height ? [region] : []
  })

/** Whether a top falls away at an edge, to the walls below it: at ridges, valleys and walls that rise beside it, it does not. */
export function fallsAwayAt(form: MassForm, n: Vec3): (beyond: string, a: Vec3, b: Vec3) => boolean {
  const faces = facesOfForm(form)
  return (beyond, a, b) => {
    const wall = faces.find((f) => rawName(f.name) === rawName(beyond))
    if (!wall || Math.abs(tiltOf(wall)) > 0.5) return false
    const e: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
    const out: Vec3 = [e[1] * n[2] - e[2] * n[1], e[2] * n[0] - e[0] * n[2], e[0] * n[1] - e[1] * n[0]]
    // A round wall's outer side changes along the wall: at the outer radius its hollow side looks to the wall's centre.
    if (wall.round)
      return (
        ((a[0] + b[0]) / 2 - wall.round.x) * out[0] + ((a[1] + b[1]) / 2 - wall.round.y) * out[1] > 0 ===
        wall.round.sweep > 0
      )
    return wall.bent || wall.plane.n[0] * out[0] + wall.plane.n[1] * out[1] + wall.plane.n[2] * out[2] > 0
  }
}
