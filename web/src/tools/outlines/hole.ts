import { addHole } from '@geotome/core/form'
import type { OutlineUse } from './kind'

export const hole: OutlineUse = {
  name: 'hole',
  what: (world, { of }) => `the hole in ${world.scheme.masses[of ?? '']?.name ?? 'the mass'}`,
  isNamed: true,
  on: 'level',
  rises: false,
  make: (shape, _, { project, scheme }, { of = '' }) => ({
    label: `hole in ${scheme.masses[of]?.name ?? 'the mass'}`,
    edit: () => addHole(project, scheme, of, shape),
  }),
}
