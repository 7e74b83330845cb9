import { splitFaceOf } from '@geotome/core/form'
import { refuse } from '@geotome/core/project'
import type { OutlineUse } from './kind'

/** A line across a face of a mass parts it. */
export const split: OutlineUse = {
  name: 'split',
  what: ({ scheme }, { on }) =>
    on?.kind === 'face'
      ? `the line across the ${on.label} of ${scheme.masses[on.mass]?.name ?? 'the mass'}`
      : 'the line',
  isNamed: true,
  on: 'plane',
  rises: false,
  isOpen: true,
  ends: 2,
  make: (shape, _, world, { on }) => {
    if (on?.kind !== 'face' || shape.kind !== 'polygon')
      return refuse('unknown-id', 'The face is picked no longer.', 'Pick a face, and draw a line across it.')
    return {
      label: `split ${on.label} of ${world.scheme.masses[on.mass]?.name ?? 'the mass'}`,
      edit: () => splitFaceOf(world.scheme, () => world.id(0), on.mass, on.face, shape.points),
      picks: { kind: 'mass', ids: [on.mass] },
    }
  },
}
