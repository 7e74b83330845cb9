import { newMass } from '@geotome/core/form'
import { inOrder, namesOf, numberedName } from '@geotome/core/project'
import type { OutlineUse } from './kind'

export const mass: OutlineUse = {
  name: 'mass',
  what: () => 'the outline',
  isNamed: false,
  on: 'level',
  rises: true,
  make: (shape, raised, world) => {
    const { project, scheme } = world
    let n = 0
    const thing = newMass(scheme, () => world.id(n++), {
      name: numberedName('Mass', namesOf(scheme.masses), Object.keys(scheme.masses).length + 1),
      use: inOrder(project.uses)[0]?.id ?? '',
      level: world.level,
      height: raised?.height ?? 0,
      upTo: raised?.upTo ? { level: raised.upTo, above: 0 } : null,
      shape,
    })
    return {
      label: `draw ${thing.name}`,
      edit: () => ({ edit: 'mass.add', scheme: scheme.id, thing }),
      picks: { kind: 'mass', ids: [thing.id] },
    }
  },
}
