import { uprightMass, type DrawnShape, type DrawnUpright } from '@geotome/core/form'
import { inOrder, namesOf, numberedName, refuse } from '@geotome/core/project'
import type { Taken, World } from '../kind'
import type { OutlineUse } from './kind'

/** A new mass from what is drawn on an upright plane. */
function made(shape: DrawnShape, becomes: DrawnUpright, world: World, { on }: Taken): ReturnType<OutlineUse['make']> {
  const { project, scheme } = world
  if (on?.kind !== 'upright')
    return refuse('unknown-id', 'There is no plane to draw on.', 'Begin again, with two points in plan.')
  let n = 0
  const edit = uprightMass(project, scheme, () => world.id(n++), {
    name: numberedName('Mass', namesOf(scheme.masses), Object.keys(scheme.masses).length + 1),
    use: inOrder(project.uses)[0]?.id ?? '',
    level: world.level,
    plane: on.plane,
    shape,
    becomes,
  })
  return { label: `draw ${edit.thing.name}`, edit: () => edit, picks: { kind: 'mass', ids: [edit.thing.id] } }
}

/** A section that is carried straight away from its plane. */
export const section: OutlineUse = {
  name: 'section',
  what: () => 'the section',
  isNamed: true,
  on: 'plane',
  rises: true,
  depth: {
    label: 'long',
    begins: 9,
    hint: 'Move away from the plane for the length, or type it (below zero it comes towards you). Enter or a click accepts',
    towards: -1,
  },
  make: (shape, raised, world, taken) => made(shape, { carried: raised?.height ?? 0 }, world, taken),
}

/** A line that is turned about the first point of its plane. */
export const profile: OutlineUse = {
  name: 'profile',
  what: () => 'the profile',
  isNamed: true,
  on: 'plane',
  rises: false,
  isOpen: true,
  make: (shape, _, world, taken) => made(shape, { turned: 360 }, world, taken),
}
