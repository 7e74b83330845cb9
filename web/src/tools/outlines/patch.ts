import { patchFace } from '@geotome/core/form'
import { refuse } from '@geotome/core/project'
import type { OutlineUse } from './kind'

/** An outline on a face of a mass: it stands out of it, or recesses. */
export const patch: OutlineUse = {
  name: 'patch',
  what: ({ scheme }, { on }) =>
    on?.kind === 'face' ? `the patch on the ${on.label} of ${scheme.masses[on.mass]?.name ?? 'the mass'}` : 'the patch',
  isNamed: true,
  on: 'plane',
  rises: true,
  depth: {
    label: 'out',
    begins: 0.5,
    hint: 'Move away from the face, or into it, or type how far (below zero it recesses). Enter or a click accepts',
    towards: 1,
  },
  make: (shape, raised, world, { on }) => {
    if (on?.kind !== 'face')
      return refuse('unknown-id', 'The face is picked no longer.', 'Pick a face, and draw on it.')
    return {
      label: `patch on ${world.scheme.masses[on.mass]?.name ?? 'the mass'}`,
      edit: () => patchFace(world.scheme, () => world.id(0), on.mass, on.face, shape, raised?.height ?? 0),
      picks: { kind: 'mass', ids: [on.mass] },
    }
  },
}
