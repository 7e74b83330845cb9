import type { Num } from '../values'
import { asideBy, carriedAlong, highOf, storeysOf } from './along'
import { moveKind } from './define'
import { angle, direction } from './fields'
import type { MoveBase } from './kind'

export interface LeanMove extends MoveBase {
  move: 'lean'
  /** degrees from upright */ by: Num
  /** degrees: where to, from the mass's x axis */ towards: Num
}

/**
 * Lets a body lean over: every level cut is shifted by its height, floors stay level, areas and volume stay. Flat faces stay flat where
 * all of it leans.
 */
export const lean = moveKind<LeanMove>({
  move: 'lean',
  called: 'a lean',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  placed: true,
  spans: true,
  fields: { by: angle('from upright by', { from: 0, to: 75 }), towards: direction('towards', 'mass') },
  starts: () => ({ by: 10, towards: 0 }),
  dependsOn: storeysOf,
  build: (form, m, { numbers, ranges, asBody }) => {
    const body = asBody(form)
    const out = highOf(body, ranges) * Math.tan((numbers.angle(m.by) * Math.PI) / 180)
    return carriedAlong(body, { shift: asideBy(out, numbers.angle(m.towards)) }, ranges, numbers)
  },
})
