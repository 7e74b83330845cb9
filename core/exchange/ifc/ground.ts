import type { Study } from '../../study'
import { betweenSheets, loopArea, type Vec2, TOLERANCE } from '../../solid'
import type { BodyWriter, Frame } from './bodies'
import type { Looks } from './looks'
import { derived, enumeration, type Reference, type StepWriter } from './step'

/** The project's zero on the map (IfcMapConversion), where it is known: its x axis runs turned from east by the angle between project and true north. */
export function mapConversion(
  step: StepWriter,
  { project: { location } }: Study,
  context: Reference,
  unit: number,
): void {
  if (!location.zero) return
  const [east, north, height] = location.zero
  const name = location.system ?? 'unknown'
  const metre = step.add('IFCSIUNIT', derived, enumeration('LENGTHUNIT'), null, enumeration('METRE'))
  const crs = step.add(
    'IFCPROJECTEDCRS',
    name,
    location.system ? null : 'The coordinate system of the map was not said',
    null,
    null,
    null,
    null,
    metre,
  )
  const a = (location.trueNorth * Math.PI) / 180
  step.add('IFCMAPCONVERSION', context, crs, east, north, height, Math.cos(a), Math.sin(a), 1 / unit)
}

/** Terrain and neighbours as things of the site, apart from the building. */
export function aroundSite(
  step: StepWriter,
  bodies: BodyWriter,
  looks: Looks,
  study: Study,
  place: Reference,
  frame: Frame,
  id: (of: string) => string,
): Reference[] {
  const { ground } = study
  const out: Reference[] = []
  if (ground.tin) {
    const shape = bodies.meshShape({ positions: ground.tin.points, triangles: ground.tin.triangles }, frame)
    looks.dress(null, 'terrain', shape)
    out.push(
      step.add(
        'IFCGEOGRAPHICELEMENT',
        id('terrain'),
        null,
        'Terrain',
        null,
        null,
        place,
        shape.shape,
        null,
        enumeration('TERRAIN'),
      ),
    )
  }
  for (const n of ground.neighbours) {
    const outline: Vec2[] = loopArea(n.outline) < 0 ? [...n.outline].reverse() : n.outline
    const shape =
      n.top - n.base > TOLERANCE.least
        ? bodies.meshShape(
            betweenSheets(
              [outline],
              () => n.base,
              () => n.top,
            ),
            frame,
          )
        : null
    if (!shape) continue
    looks.dress(null, 'neighbours', shape)
    out.push(
      step.add(
        'IFCBUILDINGELEMENTPROXY',
        id(`neighbour/${n.id}`),
        null,
        n.name,
        null,
        'neighbour',
        place,
        shape.shape,
        null,
        enumeration('USERDEFINED'),
      ),
    )
  }
  return out
}
