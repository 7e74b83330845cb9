import { bodyHeights, bodyVolume, isWall, type PartStudy } from '../../fabric'
import type { BuildUp } from '../../project'
import { arcAtRadius, type Arc, type Vec2, moveOf, TOLERANCE, gapOf } from '../../solid'
import type { Study } from '../../study'
import { frameAt, type Frame } from './bodies'
import { enumeration, label, type Argument, type Reference, type StepWriter } from './step'

/** What a part is in IFC: its class, its type's class, its predefined type, and the word of its property and quantity sets. */
interface IfcKind {
  entity: string
  type: string
  predefined: string
  word: 'Wall' | 'Slab' | 'Roof'
}

/** The class of IFC that a part is written as, with its predefined type. */
export function kindOf(part: PartStudy): IfcKind {
  switch (part.role) {
    case 'wall':
    case 'curved wall':
    case 'sloping wall':
    case 'facet wall':
      return {
        entity: 'IFCWALL',
        type: 'IFCWALLTYPE',
        predefined: part.body?.kind === 'prism' ? 'STANDARD' : 'SOLIDWALL',
        word: 'Wall',
      }
    case 'parapet':
      return { entity: 'IFCWALL', type: 'IFCWALLTYPE', predefined: 'PARAPET', word: 'Wall' }
    case 'soffit slab':
      return { entity: 'IFCSLAB', type: 'IFCSLABTYPE', predefined: 'NOTDEFINED', word: 'Slab' }
    case 'terrace':
    case 'flat roof':
    case 'pitched roof':
      return { entity: 'IFCSLAB', type: 'IFCSLABTYPE', predefined: 'ROOF', word: 'Slab' }
    case 'floor slab':
      return { entity: 'IFCSLAB', type: 'IFCSLABTYPE', predefined: 'FLOOR', word: 'Slab' }
    case 'ground slab':
      return { entity: 'IFCSLAB', type: 'IFCSLABTYPE', predefined: 'BASESLAB', word: 'Slab' }
  }
}

/** Returns true for flat and pitched roofs; terraces and soffits are slabs. */
export const isRoof = (part: PartStudy): boolean => part.role === 'flat roof' || part.role === 'pitched roof'

/** The roof that a slope belongs to: slopes that one move made meet in its ridge. */
export const roofOf = (part: PartStudy): string =>
  `${part.part.host.mass}/${part.role === 'flat roof' ? part.part.host.face : moveOf(part.part.host.face)}`

/** A wall's axis: the line of its face at its foot, from where it begins; null for what is no wall, or is in several stretches. */
export function axisOf(part: PartStudy): { line: Vec2[]; arcs: Arc[]; closed: boolean } | null {
  const { print } = part.part
  const [outline] = part.plan
  if (!isWall(part.role) || print.kind !== 'face' || !outline || part.plan.length > 1) return null
  const round = print.round
  if (round) {
    const [x = 0, y = 0, r = 0, from = 0, sweep = 0, n = 4] = round
    const arc: Arc = { x, y, r, from, sweep, n }
    const inner = arcAtRadius(
      arc,
      r - Math.sign(sweep) * (part.part.side === 'inside' ? part.thickness : -part.thickness),
    )
    const line = outline.filter((p) => Math.abs(Math.hypot(p[0] - x, p[1] - y) - r) < 3 * TOLERANCE.curve)
    return { line, arcs: [arc, ...(inner ? [inner] : [])], closed: false }
  }
  // Of a wall's plan the line of its face is the one along the face's own direction that lies on it.
  const on = outline.filter(
    (p) =>
      Math.abs(print.normal[0] * p[0] + print.normal[1] * p[1] - print.distance) < TOLERANCE.least ||
      Math.abs(print.normal[2]) > TOLERANCE.rounding,
  )
  const along: Vec2 = [-print.normal[1], print.normal[0]]
  const ends = [...on].sort((p, q) => p[0] * along[0] + p[1] * along[1] - q[0] * along[0] - q[1] * along[1])
  const [a, b] = [ends[0], ends.at(-1)]
  return a && b && gapOf(a, b) > TOLERANCE.least ? { line: [a, b], arcs: [], closed: false } : null
}

/** Where a part's own coordinates lie: a wall's at the start of its axis, along it; everything else's as its storey's. */
export function frameOf(part: PartStudy, storey: Frame): Frame {
  const axis = axisOf(part)
  const [a, b] = [axis?.line[0], axis?.line.at(-1)]
  if (!axis || !a || !b || axis.arcs.length || !part.body) return storey
  const length = gapOf(b, a)
  return frameAt(a[0], a[1], bodyHeights(part.body).z0, [(b[0] - a[0]) / length, (b[1] - a[1]) / length])
}

/** A material per name and a layer set per build-up; lengths in the file's unit. */
export function layerSets(
  study: Study,
  step: StepWriter,
  unit: number,
): Map<string, { set: Reference; thickness: number }> {
  const { project, context } = study
  const materials = new Map<string, Reference>()
  const used = new Set(study.parts.map((p) => p.part.buildUp))
  const material = (name: string) => {
    const known = materials.get(name) ?? step.add('IFCMATERIAL', label(name), null, null)
    materials.set(name, known)
    return known
  }
  return new Map(
    Object.values(project.buildUps)
      .filter((b) => used.has(b.id))
      .map((buildUp: BuildUp) => {
        const thicknesses = buildUp.layers.map((l) => context.numbers.length(l.thickness) * unit)
        const layers = buildUp.layers.map((l, i) =>
          step.add(
            'IFCMATERIALLAYER',
            material(l.material),
            thicknesses[i] ?? 0,
            null,
            label(l.name),
            null,
            null,
            null,
          ),
        )
        return [
          buildUp.id,
          {
            set: step.add('IFCMATERIALLAYERSET', layers, label(buildUp.name), null),
            thickness: thicknesses.reduce((a, b) => a + b, 0),
          },
        ]
      }),
  )
}

/** Walls are layered from the face inwards (axis 2), slabs and roofs from the top down (axis 3). */
export function layerUsage(step: StepWriter, set: Reference, part: PartStudy, thickness: number): Reference {
  const wall = kindOf(part).word === 'Wall'
  return step.add(
    'IFCMATERIALLAYERSETUSAGE',
    set,
    enumeration(wall ? 'AXIS2' : 'AXIS3'),
    enumeration(wall && part.part.side === 'inside' ? 'POSITIVE' : 'NEGATIVE'),
    wall ? 0 : thickness,
    null,
  )
}

/** The figures that the application shows, as base quantities; no openings are cut yet, so net and gross are one. */
export function quantities(step: StepWriter, part: PartStudy, unit: number): Reference[] {
  const wall = kindOf(part).word === 'Wall'
  const area = (name: string, m2: number) => step.add('IFCQUANTITYAREA', name, null, null, m2 * unit * unit, null)
  const length = (name: string, m: number) => step.add('IFCQUANTITYLENGTH', name, null, null, m * unit, null)
  const volume = (name: string, m3: number) => step.add('IFCQUANTITYVOLUME', name, null, null, m3 * unit ** 3, null)
  const { z0, z1 } = part.body ? bodyHeights(part.body) : { z0: 0, z1: 0 }
  return wall
    ? [
        ...(part.length ? [length('Length', part.length)] : []),
        length('Height', z1 - z0),
        length('Width', part.thickness),
        area('GrossSideArea', part.area),
        area('NetSideArea', part.area),
        ...(part.body
          ? [volume('GrossVolume', bodyVolume(part.body)), volume('NetVolume', bodyVolume(part.body))]
          : []),
      ]
    : [
        length('Width', part.thickness),
        area('GrossArea', part.area),
        area('NetArea', part.area),
        ...(part.body
          ? [volume('GrossVolume', bodyVolume(part.body)), volume('NetVolume', bodyVolume(part.body))]
          : []),
      ]
}

/** Pset_WallCommon and the like: what stands on a face of a form is outside. */
export function commonProperties(step: StepWriter, part: PartStudy): Reference[] {
  const inside = part.role === 'floor slab' || part.role === 'ground slab'
  const property = (name: string, value: Argument) => step.add('IFCPROPERTYSINGLEVALUE', name, null, value, null)
  return [
    property('IsExternal', step.typed('IFCBOOLEAN', enumeration(inside ? 'F' : 'T'))),
    property('LoadBearing', step.typed('IFCBOOLEAN', enumeration(part.role === 'parapet' ? 'F' : 'T'))),
  ]
}
