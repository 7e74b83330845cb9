import type { Id } from '../../values'
import type { StepBase, StepKind } from './kind'

export interface DressStep extends StepBase {
  step: 'dress'
  use: Id | null
  material: Id | null
}

/** Gives each a use and what it is drawn in. */
export const dress: StepKind<DressStep> = {
  step: 'dress',
  called: 'use',
  about: 'a use, and what they are drawn in',
  fields: {
    use: { is: 'use', label: 'use', otherwise: 'as before' },
    material: { is: 'material', label: 'drawn in', otherwise: 'as before' },
  },
  says: 'give each the use {use}, drawn in {material}',
  starts: () => ({ use: null, material: null }),
  each: (cell, s) => [{ ...cell, use: s.use ?? cell.use, material: s.material ?? cell.material }],
}
