import { areaOf, intersectRegions, subtractRegions, uniteRegions, type Region, TOLERANCE } from '../../solid'
import type { Floor, Study } from '../../study'
import type { BodyWriter, Frame } from './bodies'
import type { Looks } from './looks'
import { enumeration, label, type Argument, type Reference, type StepWriter } from './step'

interface Space {
  use: string
  wing: string | null
  region: Region
  area: number
}

/** The floor of a storey by use and wing, as it is counted: until there are rooms, each is one space. */
function spacesOf(study: Study, floor: Floor): Space[] {
  const spaces = new Map<string, Space>()
  for (const island of floor.islands) {
    let taken: Region = []
    island.shares.forEach((share, i) => {
      const area = island.own[i] ?? 0
      if (area < TOLERANCE.least) return
      const own = subtractRegions(intersectRegions(share.plate.region, island.counted), taken)
      taken = taken.length ? uniteRegions([taken, share.plate.region]) : share.plate.region
      const wing = study.wings.of.get(share.plate.mass) ?? null
      const key = `${share.use}|${wing ?? ''}`
      const space = spaces.get(key)
      if (space) {
        space.region = uniteRegions([space.region, own])
        space.area += area
      } else spaces.set(key, { use: share.use, wing, region: own, area })
    })
  }
  return [...spaces.values()].filter((s) => areaOf(s.region) > TOLERANCE.least)
}

/** IfcSpace for each floor and use, in its storey; and a zone for each wing. */
export function writeSpaces(
  step: StepWriter,
  bodies: BodyWriter,
  looks: Looks,
  study: Study,
  storeys: ReadonlyMap<string, { entity: Reference; place: Reference; frame: Frame }>,
  id: (of: string) => string,
  relate: (type: string, of: string, ...args: Argument[]) => Reference,
): void {
  const { project, floors } = study
  const wings = new Map<string, Reference[]>()
  const area = (name: string, m2: number) =>
    step.add('IFCQUANTITYAREA', name, null, null, m2 * bodies.unit * bodies.unit, null)
  floors.forEach((floor, i) => {
    const storey = storeys.get(floor.level.id)
    if (!storey) return
    const top = Math.max(
      floor.level.height + 0.1,
      floors[i + 1]?.level.height ?? Math.max(...study.forms.map((f) => f.top), floor.level.height + 3),
    )
    const made = spacesOf(study, floor).map(({ use, wing, region, area: m2 }) => {
      const name = project.uses[use]?.name ?? use
      const of = `space/${floor.level.id}/${use}/${wing ?? ''}`
      const shape = bodies.shape(
        { kind: 'prism', region, z0: floor.level.height, z1: top },
        storey.frame,
        floor.plates.flatMap((p) => p.arcs),
      )
      looks.dress(null, 'spaces', shape)
      const place = bodies.placement(storey.place, storey.frame, storey.frame)
      const space = step.add(
        'IFCSPACE',
        id(of),
        null,
        label(`${floor.level.name}, ${name}`),
        null,
        label(name),
        place,
        shape.shape,
        label(name),
        enumeration('ELEMENT'),
        enumeration('GFA'),
        0,
      )
      relate(
        'IFCRELDEFINESBYPROPERTIES',
        `${of}/quantities`,
        [space],
        step.add('IFCELEMENTQUANTITY', id(`${of}/set`), null, 'Qto_SpaceBaseQuantities', null, null, [
          area('GrossFloorArea', m2),
          step.add('IFCQUANTITYLENGTH', 'Height', null, null, (top - floor.level.height) * bodies.unit, null),
        ]),
      )
      if (wing) {
        const list = wings.get(wing)
        if (list) list.push(space)
        else wings.set(wing, [space])
      }
      return space
    })
    if (made.length) relate('IFCRELAGGREGATES', `spaces/${floor.level.id}`, storey.entity, made)
  })
  for (const [wing, spaces] of wings) {
    const zone = step.add(
      'IFCZONE',
      id(`wing/${wing}`),
      null,
      label(study.scheme.wings[wing]?.name ?? 'wing'),
      null,
      'wing',
      null,
    )
    relate('IFCRELASSIGNSTOGROUP', `wing/${wing}/spaces`, spaces, null, zone)
  }
}
