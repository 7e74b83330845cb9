import type { Id } from '../../values'
import type { StepBase, StepKind } from './kind'

export interface DressStep extends StepBase {
  step: 'dress'
  use: Id | null
  material: Id | null
  projecting: 'as before' | 'no' | 'apart' | 'covers'
}

/** Gives each a use and what it is drawn in. */
export const dress: StepKind<DressStep> = {
  step: 'dress',
  called: 'use',
  about: 'a use, and what they are drawn in',
  fields: {
    use: { is: 'use', label: 'use', otherwise: 'as before' },
    material: { is: 'material', label: 'drawn in', otherwise: 'as before' },
    projecting: {
      is: 'choice',
      label: 'projecting',
      options: [
        { value: 'as before', label: 'as before' },
        { value: 'no', label: 'with floors' },
        { value: 'apart', label: 'projecting, listed apart' },
        { value: 'covers', label: 'projecting, covering the site' },
      ],
    },
  },
  says: 'give each the use {use}, drawn in {material}, {projecting}',
  starts: () => ({ use: null, material: null, projecting: 'as before' }),
  each: (cell, s) => {
    const projecting = s.projecting === 'as before' ? cell.projecting : s.projecting === 'no' ? null : s.projecting
    return [{ ...cell, use: s.use ?? cell.use, material: s.material ?? cell.material, projecting }]
  },
}
