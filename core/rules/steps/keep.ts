import type { StepBase, StepKind } from './kind'

export interface KeepStep extends StepBase {
  step: 'keep'
  what: 'leave' | 'keep'
}

/** Leaves those out that it acts on, or all others. */
export const keep: StepKind<KeepStep> = {
  step: 'keep',
  called: 'keep',
  about: 'only some of them, or all but some',
  fields: {
    what: {
      is: 'choice',
      label: 'what',
      options: [
        { value: 'leave', label: 'leave these out' },
        { value: 'keep', label: 'keep only these' },
      ],
    },
  },
  says: '{what}',
  starts: () => ({ what: 'leave' }),
  all: (cells, s) => (s.what === 'keep' ? cells : []),
  dropsOthers: (s) => s.what === 'keep',
}
