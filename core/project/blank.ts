import { usualPrecision, type Id, type Unit } from '../values'
import { NO_FACTS, NO_LOCATION } from '../ground'
import { emptyOf, PROJECT_COLLECTIONS, SCHEME_COLLECTIONS } from './collections'
import { LAYERS, placeId } from './place-ids'
import type { Project } from './schema'
import type { BuildUp, Material, Use } from './things'

/** A new project with one scheme, a storey at the datum, the usual uses and build-ups. `mint` gives new ids. */
export function blankProject(mint: () => Id, name: string, unit: Unit, siteArea: number | null): Project {
  const ids = <T extends { id: Id }>(things: T[]): Record<Id, T> => Object.fromEntries(things.map((t) => [t.id, t]))
  const ground = mint()
  const scheme = mint()
  return {
    ...emptyOf(PROJECT_COLLECTIONS),
    id: mint(),
    name,
    unit,
    precision: usualPrecision(unit),
    directions: 'bearing',
    upright: 0.5,
    wallLike: 30,
    siteArea,
    facts: NO_FACTS,
    location: NO_LOCATION,
    site: null,
    terrain: null,
    givesWay: null,
    ratioRule: { kind: 'datum' },
    // What is usual in the unit: 6' 8" and 20 ft², or 2 m and 2 m².
    headroom: unit === 'ft' ? 80 * 0.0254 : 2,
    smallestArea: unit === 'ft' ? 20 * 0.3048 ** 2 : 2,
    wallAllowance: null,
    deepest: null,
    stride: { length: unit === 'ft' ? 6 * 0.0254 : 0.1, angle: 15 },
    uses: ids(
      USES.map(([useName, colour, counts], order): Use => ({
        id: mint(),
        name: useName,
        colour,
        counts,
        pattern: null,
        efficiency: null,
        cores: 0,
        order,
      })),
    ),
    buildUps: ids(
      BUILD_UPS.map((b, order): BuildUp => ({
        ...b,
        id: mint(),
        order,
        layers: b.layers.map((l, i) => ({ ...l, id: placeId(LAYERS.word, i) })),
      })),
    ),
    materials: ids(
      MATERIALS.map(([material, colour, opacity], order): Material => ({
        id: mint(),
        name: material,
        colour,
        opacity,
        order,
      })),
    ),
    kinds: {},
    schemes: {
      [scheme]: {
        ...emptyOf(SCHEME_COLLECTIONS),
        id: scheme,
        name: 'Scheme A',
        order: 0,
        aside: false,
        levels: {
          [ground]: {
            id: ground,
            name: 'Ground',
            kind: 'storey',
            tie: { kind: 'fixed', height: 0 },
            floorBuildUp: 0,
            slab: 0,
          },
        },
      },
    },
  }
}

const USES: [string, string, boolean][] = [
  ['homes', '#c79a3e', true],
  ['studios', '#4f8a86', true],
  ['market', '#8a5878', true],
  ['ferry', '#6a84a6', true],
  ['parking', '#9a948a', false],
]

const MATERIALS: [string, string, number][] = [
  ['brick', '#b06a4e', 1],
  ['larch', '#c9a06a', 1],
  ['zinc', '#8d979c', 1],
  ['plaster', '#e6dfd0', 1],
  ['glass', '#9fb8bd', 0.35],
]

const layer = (name: string, material: string, thickness: number) => ({ name, material, thickness })
const BUILD_UPS: { name: string; for: BuildUp['for']; layers: Omit<BuildUp['layers'][number], 'id'>[] }[] = [
  {
    name: 'Brick wall 280',
    for: 'wall',
    layers: [
      layer('facing', 'brick', 0.1),
      layer('insulation', 'mineral wool', 0.08),
      layer('structure', 'concrete block', 0.1),
    ],
  },
  {
    name: 'Timber wall 350',
    for: 'wall',
    layers: [
      layer('cladding', 'larch', 0.05),
      layer('insulation', 'wood fibre', 0.2),
      layer('structure', 'cross-laminated timber', 0.1),
    ],
  },
  { name: 'Concrete slab 300', for: 'slab', layers: [layer('structure', 'concrete', 0.3)] },
  { name: 'Timber slab 220', for: 'slab', layers: [layer('structure', 'cross-laminated timber', 0.22)] },
  {
    name: 'Roof 320',
    for: 'roof',
    layers: [
      layer('covering', 'zinc', 0.02),
      layer('insulation', 'mineral wool', 0.2),
      layer('structure', 'timber', 0.1),
    ],
  },
  {
    name: 'Terrace 260',
    for: 'terrace',
    layers: [
      layer('paving', 'stone', 0.06),
      layer('insulation', 'foam glass', 0.12),
      layer('structure', 'concrete', 0.08),
    ],
  },
  {
    name: 'Parapet 240',
    for: 'parapet',
    layers: [layer('facing', 'brick', 0.1), layer('structure', 'concrete', 0.14)],
  },
]
