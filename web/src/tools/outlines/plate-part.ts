import { changePlate, type PartDone } from '@geotome/core/form'
import { inOrder, refuse } from '@geotome/core/project'
import type { World } from '../kind'
import type { OutlineUse } from './kind'

/** Another use than a mass has: the first one. */
const otherUse = ({ project, scheme }: World, of: string): PartDone => ({
  use: inOrder(project.uses).find((u) => u.id !== scheme.masses[of]?.use)?.id ?? '',
})
const massOf = ({ scheme }: World, of = '') => scheme.masses[of]?.name ?? 'the mass'
const picks = (of: string) => ({ kind: 'mass' as const, ids: [of] })

const part = (name: string, what: string, label: string, done: (world: World, of: string) => PartDone): OutlineUse => ({
  name,
  what: (world, { of }) => `${what} of the plate of ${massOf(world, of)}`,
  isNamed: true,
  on: 'level',
  rises: false,
  make: (shape, _, world, { of = '' }) => ({
    label: `${label} of ${massOf(world, of)}`,
    edit: () => changePlate(world.project, world.scheme, () => world.id(0), of, [world.level], shape, done(world, of)),
    picks: picks(of),
  }),
})

/** A part of the plate of a mass is no floor on the level that is looked at. */
export const platePartOut = part('plate-out', 'what is left out', 'leave out a part', () => ({ leaveOut: true }))

/** A part of the plate of a mass has another use there. */
export const platePartUse = part('plate-use', 'what has another use', 'another use for a part', otherUse)

/** A line parts the plate of a mass: what lies left of it has another use. */
export const plateSplit: OutlineUse = {
  name: 'plate-split',
  what: (world, { of }) => `the line across the plate of ${massOf(world, of)}`,
  isNamed: true,
  on: 'level',
  rises: false,
  isOpen: true,
  ends: 2,
  make: (shape, _, world, { of = '' }) => {
    const [a, b] = shape.kind === 'polygon' ? shape.points : []
    if (!a || !b) return refuse('outline', 'The line has no two ends.', 'Draw it across the plate.')
    return {
      label: `split the plate of ${massOf(world, of)}`,
      edit: () =>
        changePlate(
          world.project,
          world.scheme,
          () => world.id(0),
          of,
          [world.level],
          { line: [a, b] },
          otherUse(world, of),
        ),
      picks: picks(of),
    }
  },
}
