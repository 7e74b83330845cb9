import type { Num } from '../values'
import { carriedAlong, heightOf, storeysOf } from './along'
import { moveKind } from './define'
import { angle } from './fields'
import type { MoveBase } from './kind'
import { boxOf } from '../solid'

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
  spans: true,
  fields: {
    by: angle('from upright by', { from: 0, to: 75 }),
    towards: angle('towards', { hint: '0 along its x axis, 90 to the left of it.' }),
  },
  starts: () => ({ by: 10, towards: 0 }),
  dependsOn: storeysOf,
  build: (form, m, { numbers, ranges, asBody }) => {
    const body = asBody(form)
    const [by, towards] = [m.by, m.towards].map((a) => (numbers.angle(a) * Math.PI) / 180) as [number, number]
    const { z0 } = boxOf(body.solid.positions)
    const high = (ranges ?? [[z0, heightOf(body)]]).reduce((sum, [from, to]) => sum + to - from, 0)
    const out = high * Math.tan(by)
    return carriedAlong(body, { shift: [out * Math.cos(towards), out * Math.sin(towards)] }, ranges, numbers)
  },
})
