import type { OutlineUse } from './kind'
import { pointsOf } from './points'

export const wing: OutlineUse = {
  name: 'wing',
  what: () => 'the wing',
  isNamed: true,
  on: 'ground',
  rises: false,
  make: (shape, _, { scheme }, { of = '' }) => ({
    label: `outline of ${scheme.wings[of]?.name ?? 'the wing'}`,
    edit: () => ({ edit: 'wing.change', scheme: scheme.id, id: of, set: { outline: pointsOf(shape) } }),
  }),
}
