import type { Rule, Step } from '../rules'

const base = { on: true, of: null, others: false }
/** A rule at the origin made of these steps, each on and reading the step before it. */
export const rule = (steps: object[]): Rule => ({
  id: 'r',
  name: 'Any',
  order: 0,
  use: 'u',
  base: { level: 'l', above: 0 },
  place: { x: 0, y: 0, turn: 0 },
  steps: steps.map((s, i) => ({ id: `s${i}`, ...base, ...s }) as Step),
  most: 5000,
  out: [],
  own: {},
  frozen: null,
})

/** A world of no storeys, no site and no other mass. */
export const world = { base: 0, storeys: [], site: null, mass: () => null, darkness: () => () => null }
