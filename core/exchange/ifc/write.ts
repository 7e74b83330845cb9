import { bodyHeights } from '../../fabric'
import { placeSolid, type Arc, type Vec2, TOLERANCE } from '../../solid'
import { givesFloor, type Study } from '../../study'
import { BodyWriter, frameAt, type Frame } from './bodies'
import { connect } from './connections'
import { address, compoundAngle, factProperties, trueNorth } from './facts'
import { aroundSite, mapConversion } from './ground'
import { ifcGuid } from './guid'
import { Looks, massMaterial, materialOf } from './looks'
import { axisOf, commonProperties, frameOf, isRoof, kindOf, layerSets, layerUsage, quantities, roofOf } from './parts'
import { writeSpaces } from './spaces'
import { derived, enumeration, int, label, StepWriter, type Argument, type Reference } from './step'
import { unitsOf } from './units'

/**
 * The scheme as IFC4 (ISO 16739-1): storeys with spaces by use, walls with their axes, types, layers, properties, quantities and joins, slabs, roofs
 * of their slopes; the site with its boundary, terrain and neighbours, and where all of it lies on the map. A mass without parts is given as
 * a proxy, with `forms` every mass. Metres, or feet where the project is in feet; ids are stable from export to export. `stamp` is an ISO 8601 time.
 */
export function writeIfc(study: Study, stamp: string, forms = false): string {
  const { project, scheme } = study
  const { facts, location } = project
  const step = new StepWriter()
  const feet = project.unit === 'ft'
  const unit = feet ? 1 / 0.3048 : 1
  const guid = (of: string) => ifcGuid(`${scheme.id}/${of}`)
  const relate = (type: string, of: string, ...args: Argument[]) => step.add(type, guid(of), null, null, null, ...args)

  const world = step.add('IFCAXIS2PLACEMENT3D', step.add('IFCCARTESIANPOINT', [0, 0, 0]), null, null)
  const context = step.add(
    'IFCGEOMETRICREPRESENTATIONCONTEXT',
    null,
    'Model',
    int(3),
    TOLERANCE.point,
    world,
    trueNorth(step, project),
  )
  const within = (name: string, view: string) =>
    step.add(
      'IFCGEOMETRICREPRESENTATIONSUBCONTEXT',
      name,
      'Model',
      derived,
      derived,
      derived,
      derived,
      context,
      null,
      enumeration(view),
      null,
    )
  const bodies = new BodyWriter(
    step,
    within('Body', 'MODEL_VIEW'),
    within('Axis', 'GRAPH_VIEW'),
    within('FootPrint', 'PLAN_VIEW'),
    unit,
  )
  const looks = new Looks(step)
  mapConversion(step, study, context, unit)

  const origin = originOf(study)
  const root = step.add(
    'IFCPROJECT',
    ifcGuid(project.id),
    null,
    label(project.name),
    label(scheme.name),
    null,
    label(facts.number ? `${facts.number} ${project.name}` : project.name),
    label(facts.stage || scheme.name),
    [context],
    unitsOf(step, feet),
  )
  const sitePlace = bodies.placement(null, null, origin)
  const ring = study.ground.site?.ring
  const site = step.add(
    'IFCSITE',
    guid('site'),
    null,
    'Site',
    null,
    null,
    sitePlace,
    ring ? bodies.footprint(ring, origin) : null,
    null,
    enumeration('ELEMENT'),
    compoundAngle(location.latitude),
    compoundAngle(location.longitude),
    null,
    null,
    address(step, project),
  )
  const buildingPlace = bodies.placement(sitePlace, origin, origin)
  const building = step.add(
    'IFCBUILDING',
    guid('building'),
    null,
    label(project.name),
    label(`Scheme: ${scheme.name}`),
    null,
    buildingPlace,
    null,
    label(scheme.name),
    enumeration('ELEMENT'),
    null,
    null,
    null,
  )
  relate('IFCRELAGGREGATES', 'site-of-project', root, [site])
  relate('IFCRELAGGREGATES', 'building-of-site', site, [building])
  const said = factProperties(step, project, scheme.name, guid('facts'))
  if (said) relate('IFCRELDEFINESBYPROPERTIES', 'facts-of-building', [building], said)
  const around = aroundSite(step, bodies, looks, study, bodies.placement(sitePlace, origin, origin), origin, guid)
  if (around.length) relate('IFCRELCONTAINEDINSPATIALSTRUCTURE', 'on-site', around, site)

  const storeys = new Map(
    study.floors.map((floor) => {
      const frame: Frame = { ...origin, z: floor.level.height }
      const place = bodies.placement(buildingPlace, origin, frame)
      const entity = step.add(
        'IFCBUILDINGSTOREY',
        ifcGuid(floor.level.id),
        null,
        label(floor.level.name),
        null,
        null,
        place,
        null,
        null,
        enumeration('ELEMENT'),
        floor.level.height * unit,
      )
      return [floor.level.id, { entity, place, frame, height: floor.level.height, holds: [] as Reference[] }]
    }),
  )
  if (storeys.size)
    relate(
      'IFCRELAGGREGATES',
      'storeys',
      building,
      [...storeys.values()].map((s) => s.entity),
    )
  writeSpaces(step, bodies, looks, study, storeys, guid, relate)

  const layers = layerSets(study, step, unit)
  const uses = new Map<string, { of: Reference; parts: Reference[] }>()
  const types = new Map<string, { type: Reference; parts: Reference[] }>()
  const commons = new Map<string, { values: Reference[]; word: string; parts: Reference[] }>()
  const roofs = new Map<
    string,
    {
      storey: (typeof storeys extends Map<string, infer S> ? S : never) | undefined
      name: string
      gabled: boolean
      slopes: Reference[]
    }
  >()
  const walls: { entity: Reference; line: Vec2[]; id: string }[] = []
  const loose: Reference[] = []
  for (const part of study.parts) {
    if (!part.body) continue
    const storey =
      storeys.get(part.part.base?.level ?? '') ?? nearestStorey([...storeys.values()], bodyHeights(part.body).z0)
    const [over, inside] = storey ? [storey.place, storey.frame] : [buildingPlace, origin]
    const frame = frameOf(part, inside)
    const axis = axisOf(part)
    const arcs: Arc[] =
      axis?.arcs ??
      (part.part.host.face === 'plate'
        ? (study.floors
            .find((f) => f.level.id === part.part.base?.level)
            ?.plates.find((p) => p.mass === part.part.host.mass)?.arcs ?? [])
        : [])
    const shape = bodies.shape(part.body, frame, arcs, axis?.line ?? null)
    const kind = kindOf(part)
    const entity = step.add(
      kind.entity,
      ifcGuid(part.id),
      null,
      label(part.part.name),
      null,
      part.role,
      bodies.placement(over, inside, frame),
      shape.shape,
      null,
      enumeration(kind.predefined),
    )
    looks.dress(materialOf(study, part), kind.predefined === 'ROOF' ? 'roofs' : `${kind.word.toLowerCase()}s`, shape)
    if (axis && axis.line.length > 1) walls.push({ entity, line: axis.line, id: part.id })
    if (isRoof(part)) {
      const roof = roofs.get(roofOf(part)) ?? {
        storey,
        name: part.part.name,
        gabled: part.role === 'pitched roof',
        slopes: [],
      }
      roof.slopes.push(entity)
      roofs.set(roofOf(part), roof)
    } else if (storey) storey.holds.push(entity)
    else loose.push(entity)
    relate(
      'IFCRELDEFINESBYPROPERTIES',
      `quantities/${part.id}`,
      [entity],
      step.add(
        'IFCELEMENTQUANTITY',
        ifcGuid(`${part.id}/quantities`),
        null,
        `Qto_${kind.word}BaseQuantities`,
        null,
        null,
        quantities(step, part, unit),
      ),
    )
    const common = commons.get(
      `${kind.word} ${part.role === 'floor slab' || part.role === 'ground slab'} ${part.role === 'parapet'}`,
    ) ?? { values: commonProperties(step, part), word: kind.word, parts: [] }
    common.parts.push(entity)
    commons.set(
      `${kind.word} ${part.role === 'floor slab' || part.role === 'ground slab'} ${part.role === 'parapet'}`,
      common,
    )
    const set = layers.get(part.part.buildUp)
    const key = `${part.part.buildUp}/${kind.predefined}`
    const type = types.get(key) ?? {
      type: step.add(
        kind.type,
        guid(`type/${key}`),
        null,
        label(project.buildUps[part.part.buildUp]?.name ?? 'type'),
        null,
        null,
        null,
        null,
        null,
        null,
        enumeration(kind.predefined),
      ),
      parts: [],
    }
    type.parts.push(entity)
    types.set(key, type)
    if (!set) continue
    const laid = uses.get(`${key}/${part.part.side}`) ?? {
      of: layerUsage(step, set.set, part, set.thickness),
      parts: [],
    }
    laid.parts.push(entity)
    uses.set(`${key}/${part.part.side}`, laid)
  }
  for (const [key, laid] of uses) relate('IFCRELASSOCIATESMATERIAL', `layers/${key}`, laid.parts, laid.of)
  for (const [key, { type, parts }] of types) {
    relate('IFCRELDEFINESBYTYPE', `of-type/${key}`, parts, type)
    const set = layers.get(key.split('/')[0] ?? '')
    if (set) relate('IFCRELASSOCIATESMATERIAL', `layers-of-type/${key}`, [type], set.set)
  }
  for (const [key, { values, word, parts }] of commons)
    relate(
      'IFCRELDEFINESBYPROPERTIES',
      `common/${key}`,
      parts,
      step.add('IFCPROPERTYSET', guid(`common-set/${key}`), null, `Pset_${word}Common`, null, values),
    )
  for (const [key, { storey, name, gabled, slopes }] of roofs) {
    const roof = step.add(
      'IFCROOF',
      guid(`roof/${key}`),
      null,
      label(name.replace(/ \d+$/, '')),
      null,
      null,
      storey ? bodies.placement(storey.place, storey.frame, storey.frame) : buildingPlace,
      null,
      null,
      enumeration(gabled ? (slopes.length > 1 ? 'GABLE_ROOF' : 'SHED_ROOF') : 'FLAT_ROOF'),
    )
    relate('IFCRELAGGREGATES', `slopes/${key}`, roof, slopes)
    if (storey) storey.holds.push(roof)
    else loose.push(roof)
  }
  connect(walls, relate)

  for (const form of [...study.forms.filter((f) => givesFloor(study.scheme, f)), ...study.around]) {
    if (!forms && study.parts.some((p) => p.part.host.mass === form.id && p.body)) continue
    const mass = scheme.masses[form.id]
    const shape = bodies.meshShape(placeSolid(form.body.solid, form.at), origin)
    looks.dress(massMaterial(project, mass?.material), mass?.context ? 'context' : 'forms', shape)
    loose.push(
      step.add(
        'IFCBUILDINGELEMENTPROXY',
        ifcGuid(form.id),
        null,
        label(form.name),
        null,
        mass?.context ? 'context' : 'mass',
        bodies.placement(buildingPlace, origin, origin),
        shape.shape,
        null,
        enumeration('USERDEFINED'),
      ),
    )
  }
  for (const [id, storey] of storeys)
    if (storey.holds.length) relate('IFCRELCONTAINEDINSPATIALSTRUCTURE', `in/${id}`, storey.holds, storey.entity)
  if (loose.length) relate('IFCRELCONTAINEDINSPATIALSTRUCTURE', 'in-building', loose, building)
  looks.close()
  return step.file('IFC4', `${project.name}.ifc`, stamp.slice(0, 19), facts.author)
}

const nearestStorey = <S extends { height: number }>(storeys: S[], z: number): S | undefined =>
  storeys.filter((s) => s.height <= z + TOLERANCE.point).sort((a, b) => b.height - a.height)[0] ?? storeys[0]

/** Whole metres near the building, where its coordinates are large: the site is placed there, the rest stays small. */
function originOf(study: Study): Frame {
  const first = study.forms[0]
  return first && Math.abs(first.at.x) + Math.abs(first.at.y) > 4096
    ? frameAt(Math.round(first.at.x), Math.round(first.at.y), 0)
    : frameAt(0, 0, 0)
}
