import * as v from 'valibot'
import type { Vec2 } from '../../solid'
import { NumSchema, refuse, type Num } from '../../values'
import { atLeastAMillimetre } from '../sizes'
import type { ShapeKind } from './kind'

export const FOOTPRINT_FORMS = ['L', 'T', 'U', 'H', 'cross', 'court'] as const
export type FootprintForm = (typeof FOOTPRINT_FORMS)[number]

export interface Footprint {
  kind: 'footprint'
  form: FootprintForm
  width: Num
  depth: Num
  /** two sizes that depend on the form: see FOOTPRINT_SIZES */
  a: Num
  b: Num
}

/** What the two sizes of each form are called. */
export const FOOTPRINT_SIZES: Record<FootprintForm, readonly [string, string]> = {
  L: ['arm along the south', 'arm along the west'],
  T: ['bar along the north', 'stem'],
  U: ['gap, wide', 'gap, deep'],
  H: ['gaps, wide', 'gaps, deep'],
  cross: ['bar from west to east', 'bar from south to north'],
  court: ['wings along south and north', 'wings along west and east'],
}

/**
 * A ready footprint of right angles, from the mass's origin within a width and a depth. L: arms along south and west; T: a bar along the
 * north, a stem in the middle; U: open to the north; H: a gap in the middle of south and north; cross: two bars through the middle; court: wings
 * all round, the court's sides are court/e1 and on. Sides
 * are named e1, e2 ... from the south-west corner, counter-clockwise.
 */
export const footprint: ShapeKind<Footprint> = {
  kind: 'footprint',
  schema: v.strictObject({
    kind: v.literal('footprint'),
    form: v.picklist(FOOTPRINT_FORMS),
    width: NumSchema,
    depth: NumSchema,
    a: NumSchema,
    b: NumSchema,
  }),
  numbers: (s) => [
    [s.width, 'length'],
    [s.depth, 'length'],
    [s.a, 'length'],
    [s.b, 'length'],
  ],
  corners: (s, numbers) => {
    const [w, d, a, b] = [s.width, s.depth, s.a, s.b].map((n) => numbers.length(n)) as [number, number, number, number]
    return WAYS[s.form](w, d, a, b).map((at, i) => ({ id: `e${i + 1}`, at, bulge: 0 }))
  },
  inner: (s, numbers) => {
    if (s.form !== 'court') return []
    const [w, d, a, b] = [s.width, s.depth, s.a, s.b].map((n) => numbers.length(n)) as [number, number, number, number]
    const within: Vec2[] = [
      [b, a],
      [w - b, a],
      [w - b, d - a],
      [b, d - a],
    ]
    return [{ id: 'court', corners: within.map((at, i) => ({ id: `e${i + 1}`, at, bulge: 0 })) }]
  },
  check: (s, name, numbers) => {
    const [w, d, a, b] = [s.width, s.depth, s.a, s.b].map((n) => numbers.length(n)) as [number, number, number, number]
    const [sayA, sayB] = FOOTPRINT_SIZES[s.form]
    for (const [value, what] of [
      [w, 'width'],
      [d, 'depth'],
      [a, sayA],
      [b, sayB],
    ] as const)
      atLeastAMillimetre(value, `The ${what} of ${name}`)
    const [mostA, mostB] = MOST[s.form](w, d)
    const over = a >= mostA ? ([sayA, a, mostA] as const) : b >= mostB ? ([sayB, b, mostB] as const) : null
    if (over)
      refuse(
        'size',
        `The ${over[0]} of ${name} is ${over[1]} m.`,
        `Type less than ${over[2]} m, or make the whole larger.`,
      )
  },
}

/** What the two sizes must stay below, m. */
const MOST: Record<FootprintForm, (w: number, d: number) => [number, number]> = {
  L: (w, d) => [d, w],
  T: (w, d) => [d, w],
  U: (w, d) => [w, d],
  H: (w, d) => [w, d / 2],
  cross: (w, d) => [d, w],
  court: (w, d) => [d / 2, w / 2],
}

/** The outline of each form; a court's is the rectangle round it. */
const WAYS: Record<FootprintForm, (w: number, d: number, a: number, b: number) => Vec2[]> = {
  L: (w, d, a, b) => [
    [0, 0],
    [w, 0],
    [w, a],
    [b, a],
    [b, d],
    [0, d],
  ],
  T: (w, d, a, b) => [
    [(w - b) / 2, 0],
    [(w + b) / 2, 0],
    [(w + b) / 2, d - a],
    [w, d - a],
    [w, d],
    [0, d],
    [0, d - a],
    [(w - b) / 2, d - a],
  ],
  U: (w, d, a, b) => [
    [0, 0],
    [w, 0],
    [w, d],
    [(w + a) / 2, d],
    [(w + a) / 2, d - b],
    [(w - a) / 2, d - b],
    [(w - a) / 2, d],
    [0, d],
  ],
  H: (w, d, a, b) => [
    [0, 0],
    [(w - a) / 2, 0],
    [(w - a) / 2, b],
    [(w + a) / 2, b],
    [(w + a) / 2, 0],
    [w, 0],
    [w, d],
    [(w + a) / 2, d],
    [(w + a) / 2, d - b],
    [(w - a) / 2, d - b],
    [(w - a) / 2, d],
    [0, d],
  ],
  cross: (w, d, a, b) => [
    [(w - b) / 2, 0],
    [(w + b) / 2, 0],
    [(w + b) / 2, (d - a) / 2],
    [w, (d - a) / 2],
    [w, (d + a) / 2],
    [(w + b) / 2, (d + a) / 2],
    [(w + b) / 2, d],
    [(w - b) / 2, d],
    [(w - b) / 2, (d + a) / 2],
    [0, (d + a) / 2],
    [0, (d - a) / 2],
    [(w - b) / 2, (d - a) / 2],
  ],
  court: (w, d) => [
    [0, 0],
    [w, 0],
    [w, d],
    [0, d],
  ],
}
