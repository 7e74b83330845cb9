import { bodyHeights, bodyVolume, isWall, type PartStudy } from '../../fabric'
import type { BuildUp } from '../../project'
import { placeSolid } from '../../solid'
import type { Study } from '../../study'
import { BodyWriter } from './bodies'
import { address, compoundAngle, factProperties, trueNorth } from './facts'
import { ifcGuid } from './guid'
import { derived, enumeration, int, StepWriter, type Reference } from './step'

/**
 * The scheme as IFC4 (ISO 16739-1): storeys at their heights, walls, slabs and roofs with their layers and quantities.
 * A mass without parts is given as a proxy, so that nothing of the form is lost. Metres; ids are stable from export to export.
 * `stamp` is an ISO 8601 time.
 */
export function writeIfc(study: Study, stamp: string): string {
  const { project, scheme } = study
  const { facts, location } = project
  const step = new StepWriter()
  const unit = (type: string, name: string) => step.add('IFCSIUNIT', derived, enumeration(type), null, enumeration(name))
  const units = step.add('IFCUNITASSIGNMENT', [unit('LENGTHUNIT', 'METRE'), unit('AREAUNIT', 'SQUARE_METRE'), unit('VOLUMEUNIT', 'CUBIC_METRE'), unit('PLANEANGLEUNIT', 'RADIAN')])
  const world = step.add('IFCAXIS2PLACEMENT3D', step.add('IFCCARTESIANPOINT', [0, 0, 0]), null, null)
  const context = step.add('IFCGEOMETRICREPRESENTATIONCONTEXT', null, 'Model', int(3), 1e-6, world, trueNorth(step, project))
  const bodyContext = step.add('IFCGEOMETRICREPRESENTATIONSUBCONTEXT', 'Body', 'Model', derived, derived, derived, derived, context, null, enumeration('MODEL_VIEW'), null)
  const bodies = new BodyWriter(step, bodyContext)
  const guid = (id: string) => ifcGuid(id)
  const relate = (type: string, id: string, ...args: Parameters<StepWriter['add']>[1][]) => step.add(type, guid(`${scheme.id}/${id}`), null, null, null, ...args)

  const [ox, oy] = originOf(study)
  const root = step.add('IFCPROJECT', guid(project.id), null, project.name, facts.client || null, null, facts.number || null, facts.stage || scheme.name, [context], units)
  const sitePlace = bodies.placement(null, ox, oy, 0)
  const site = step.add('IFCSITE', guid(`${scheme.id}/site`), null, 'Site', null, null, sitePlace, null, null, enumeration('ELEMENT'), compoundAngle(location.latitude), compoundAngle(location.longitude), null, null, address(step, project))
  const buildingPlace = bodies.placement(sitePlace, 0, 0, 0)
  const building = step.add('IFCBUILDING', guid(`${scheme.id}/building`), null, project.name, null, null, buildingPlace, null, null, enumeration('ELEMENT'), null, null, null)
  relate('IFCRELAGGREGATES', 'site-of-project', root, [site])
  relate('IFCRELAGGREGATES', 'building-of-site', site, [building])
  const said = factProperties(step, project, guid(`${scheme.id}/facts`))
  if (said) relate('IFCRELDEFINESBYPROPERTIES', 'facts-of-building', [building], said)

  const storeys = new Map(study.floors.map((floor) => {
    const place = bodies.placement(buildingPlace, 0, 0, floor.level.height)
    const entity = step.add('IFCBUILDINGSTOREY', guid(floor.level.id), null, floor.level.name, null, null, place, null, null, enumeration('ELEMENT'), floor.level.height)
    return [floor.level.id, { entity, place, height: floor.level.height, holds: [] as Reference[] }]
  }))
  if (storeys.size) relate('IFCRELAGGREGATES', 'storeys', building, [...storeys.values()].map((s) => s.entity))

  const layers = layerSets(study, step)
  const uses = new Map<string, { of: Reference; parts: Reference[] }>()
  const loose: Reference[] = []
  for (const part of study.parts) {
    if (!part.body) continue
    const storey = storeys.get(part.part.base?.level ?? '') ?? nearestStorey([...storeys.values()], bodyHeights(part.body).z0)
    const place = bodies.placement(storey?.place ?? buildingPlace, 0, 0, 0)
    const shape = bodies.shape(part.body, ox, oy, storey?.height ?? 0)
    const entity = element(step, guid(part.id), part, place, shape)
    if (storey) storey.holds.push(entity)
    else loose.push(entity)
    quantities(step, relate, part, entity)
    const set = layers.get(part.part.buildUp)
    if (set) {
      const key = `${part.part.buildUp}/${part.role}/${part.part.side}`
      const use = uses.get(key) ?? { of: layerUsage(step, set.set, part, set.thickness), parts: [] }
      use.parts.push(entity)
      uses.set(key, use)
    }
  }
  for (const [key, use] of uses) relate('IFCRELASSOCIATESMATERIAL', `layers/${key}`, use.parts, use.of)

  for (const form of [...study.forms, ...study.around]) {
    if (study.parts.some((p) => p.part.host.mass === form.id && p.body)) continue
    const place = bodies.placement(buildingPlace, 0, 0, 0)
    const shape = bodies.meshShape(placeSolid(form.body.solid, form.at), ox, oy, 0)
    loose.push(step.add('IFCBUILDINGELEMENTPROXY', guid(form.id), null, form.name, null, study.scheme.masses[form.id]?.context ? 'context' : 'mass', place, shape, null, enumeration('USERDEFINED')))
  }
  for (const [id, storey] of storeys) if (storey.holds.length) relate('IFCRELCONTAINEDINSPATIALSTRUCTURE', `in/${id}`, storey.holds, storey.entity)
  if (loose.length) relate('IFCRELCONTAINEDINSPATIALSTRUCTURE', 'in-building', loose, building)
  return step.file('IFC4', `${project.name}.ifc`, stamp.slice(0, 19), facts.author)
}

function element(step: StepWriter, id: string, part: PartStudy, place: Reference, shape: Reference): Reference {
  const head = [id, null, part.part.name, null, part.role, place, shape, null] as const
  switch (part.role) {
    case 'wall': case 'curved wall': case 'sloping wall': case 'facet wall': return step.add('IFCWALL', ...head, enumeration(part.body?.kind === 'prism' ? 'STANDARD' : 'SOLIDWALL'))
    case 'parapet': return step.add('IFCWALL', ...head, enumeration('PARAPET'))
    case 'soffit slab': return step.add('IFCSLAB', ...head, enumeration('NOTDEFINED'))
    case 'terrace': return step.add('IFCSLAB', ...head, enumeration('ROOF'))
    case 'floor slab': return step.add('IFCSLAB', ...head, enumeration('FLOOR'))
    case 'ground slab': return step.add('IFCSLAB', ...head, enumeration('BASESLAB'))
    case 'flat roof': return step.add('IFCROOF', ...head, enumeration('FLAT_ROOF'))
    case 'pitched roof': return step.add('IFCROOF', ...head, enumeration('GABLE_ROOF'))
  }
}

/** A material per name and a layer set per build-up. */
function layerSets(study: Study, step: StepWriter): Map<string, { set: Reference; thickness: number }> {
  const { project, context } = study
  const materials = new Map<string, Reference>()
  const used = new Set(study.parts.map((p) => p.part.buildUp))
  const material = (name: string) => { const known = materials.get(name) ?? step.add('IFCMATERIAL', name, null, null); materials.set(name, known); return known }
  return new Map(Object.values(project.buildUps).filter((b) => used.has(b.id)).map((buildUp: BuildUp) => {
    const thicknesses = buildUp.layers.map((l) => context.numbers.length(l.thickness))
    const layers = buildUp.layers.map((l, i) => step.add('IFCMATERIALLAYER', material(l.material), thicknesses[i] ?? 0, null, l.name, null, null, null))
    return [buildUp.id, { set: step.add('IFCMATERIALLAYERSET', layers, buildUp.name, null), thickness: thicknesses.reduce((a, b) => a + b, 0) }]
  }))
}

/** Walls are layered from the face inwards (axis 2), slabs and roofs from the top down (axis 3). */
function layerUsage(step: StepWriter, set: Reference, part: PartStudy, thickness: number): Reference {
  const wall = isWall(part.role) || part.role === 'parapet'
  return step.add('IFCMATERIALLAYERSETUSAGE', set, enumeration(wall ? 'AXIS2' : 'AXIS3'), enumeration(wall && part.part.side === 'inside' ? 'POSITIVE' : 'NEGATIVE'), wall ? 0 : thickness, null)
}

/** The figures that the application shows, as base quantities. */
function quantities(step: StepWriter, relate: (type: string, id: string, ...args: (Reference | Reference[])[]) => Reference, part: PartStudy, entity: Reference): void {
  const wall = isWall(part.role) || part.role === 'parapet'
  const name = wall ? 'Wall' : part.role.endsWith('slab') || part.role === 'terrace' ? 'Slab' : 'Roof'
  const values = [
    step.add('IFCQUANTITYAREA', wall ? 'GrossSideArea' : 'GrossArea', null, null, part.area, null),
    ...(part.body ? [step.add('IFCQUANTITYVOLUME', 'GrossVolume', null, null, bodyVolume(part.body), null)] : []),
    step.add('IFCQUANTITYLENGTH', wall ? 'Width' : 'Depth', null, null, part.thickness, null),
  ]
  const set = step.add('IFCELEMENTQUANTITY', ifcGuid(`${part.id}/quantities`), null, `Qto_${name}BaseQuantities`, null, null, values)
  relate('IFCRELDEFINESBYPROPERTIES', `quantities/${part.id}`, [entity], set)
}

const nearestStorey = <S extends { height: number }>(storeys: S[], z: number): S | undefined =>
  storeys.filter((s) => s.height <= z + 1e-6).sort((a, b) => b.height - a.height)[0] ?? storeys[0]

/** Whole metres near the building, where its coordinates are large: the site is placed there, the rest stays small. */
function originOf(study: Study): [number, number] {
  const first = study.forms[0]
  return first && Math.abs(first.at.x) + Math.abs(first.at.y) > 4096 ? [Math.round(first.at.x), Math.round(first.at.y)] : [0, 0]
}
