import fc from 'fast-check'
import { expect, it } from 'vitest'
import { RectIndex, rectsMeet, type Rect } from './rect'

/** Rectangles within some 60 m of a place, on whole quarters of a metre, so that many touch. */
const rectNear = ([ox, oy]: [number, number]) =>
  fc
    .tuple(...[60, 60, 30, 30].map((most) => fc.integer({ min: 0, max: most * 4 })))
    .map(([x = 0, y = 0, w = 0, h = 0]): Rect => ({
      x0: ox + x / 4,
      y0: oy + y / 4,
      x1: ox + (x + w) / 4,
      y1: oy + (y + h) / 4,
    }))

it('an index of extents finds what going through all of them finds, in their order, wherever they lie', () => {
  const place = fc.constantFrom<[number, number]>([0, 0], [-31.25, -7], [3_500_000, 5_400_000])
  fc.assert(
    fc.property(
      place.chain((at) => fc.tuple(fc.array(rectNear(at), { maxLength: 40 }), rectNear(at))),
      fc.constantFrom(0.5, 4, 16, 500),
      ([rects, wanted], side) => {
        const index = new RectIndex(
          rects.map((rect, thing) => ({ rect, thing })),
          side,
        )
        const all = rects.flatMap((rect, thing) => (rectsMeet(rect, wanted) ? [thing] : []))
        expect(index.meeting(wanted)).toEqual(all)
      },
    ),
  )
})
