import type { Num } from '../values'
import { asideBy, carriedAlong, highOf, storeysOf } from './along'
import { moveKind } from './define'
import { angle, direction } from './fields'
import type { MoveBase } from './kind'

export interface BendMove extends MoveBase {
  move: 'bend'
  /** degrees that it leans over at its top */ by: Num
  /** degrees: where to, from the mass's x axis */ towards: Num
}

/**
 * Bends a body over: upright at its foot, and leaning more and more along the arc of a circle. Floors stay level, each is shifted; areas,
 * heights and volume stay.
 */
export const bend = moveKind<BendMove>({
  move: 'bend',
  called: 'a bend',
  group: 'shape',
  takes: 'body',
  gives: 'body',
  placed: true,
  spans: true,
  fields: { by: angle('leaning at its top by', { from: 0.01, to: 75 }), towards: direction('towards', 'mass') },
  starts: () => ({ by: 20, towards: 0 }),
  dependsOn: storeysOf,
  build: (form, m, { numbers, ranges, asBody }) => {
    const body = asBody(form)
    const by = numbers.angle(m.by)
    // The arc has the height of the form, and its radius is height / sin(angle): it goes aside by radius - radius x cos(angle).
    const out = highOf(body, ranges) * Math.tan((by * Math.PI) / 360)
    return carriedAlong(body, { shift: asideBy(out, numbers.angle(m.towards)), bows: true, bend: by }, ranges, numbers)
  },
})
