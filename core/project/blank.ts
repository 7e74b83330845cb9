import type { Id, Unit } from '../values'
import type { BuildUp, Project, Use } from './schema'

/** A new project with one scheme, a storey at the datum, the usual uses and build-ups. `mint` gives new ids. */
export function blankProject(mint: () => Id, name: string, unit: Unit, siteArea: number | null): Project {
  const ids = <T extends { id: Id }>(things: T[]): Record<Id, T> => Object.fromEntries(things.map((t) => [t.id, t]))
  const ground = mint()
  const scheme = mint()
  return {
    id: mint(), name, unit, siteArea, headroom: 2, smallestArea: 2, stride: { length: 0.1, angle: 15 },
    uses: ids(USES.map(([useName, colour, counts], order): Use => ({ id: mint(), name: useName, colour, counts, order }))),
    dials: {},
    buildUps: ids(BUILD_UPS.map((b, order): BuildUp => ({ ...b, id: mint(), order }))),
    schemes: {
      [scheme]: {
        id: scheme, name: 'Scheme A', order: 0, dials: {}, masses: {}, parts: {},
        levels: { [ground]: { id: ground, name: 'Ground', kind: 'storey', tie: { kind: 'fixed', height: 0 }, floorBuildUp: 0 } },
      },
    },
  }
}

const USES: [string, string, boolean][] = [
  ['homes', '#c79a3e', true], ['studios', '#4f8a86', true], ['market', '#8a5878', true], ['ferry', '#6a84a6', true], ['parking', '#9a948a', false],
]

const layer = (name: string, material: string, thickness: number) => ({ name, material, thickness })
const BUILD_UPS: Omit<BuildUp, 'id' | 'order'>[] = [
  { name: 'Brick wall 280', for: 'wall', layers: [layer('facing', 'brick', 0.1), layer('insulation', 'mineral wool', 0.08), layer('structure', 'concrete block', 0.1)] },
  { name: 'Timber wall 350', for: 'wall', layers: [layer('cladding', 'larch', 0.05), layer('insulation', 'wood fibre', 0.2), layer('structure', 'cross-laminated timber', 0.1)] },
  { name: 'Concrete slab 300', for: 'slab', layers: [layer('structure', 'concrete', 0.3)] },
  { name: 'Timber slab 220', for: 'slab', layers: [layer('structure', 'cross-laminated timber', 0.22)] },
  { name: 'Roof 320', for: 'roof', layers: [layer('covering', 'zinc', 0.02), layer('insulation', 'mineral wool', 0.2), layer('structure', 'timber', 0.1)] },
]
