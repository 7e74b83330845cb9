import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numbersOf, type Picture } from '../project'
import type { Vec2, Vec3 } from '../solid'
import { projectWith, schemeOf } from '../testing/make'
import {
  calibrate,
  circleThrough,
  compareLine,
  fromPixel,
  lay,
  pixelOf,
  readMarks,
  scalingOf,
  valueOf,
  worldOf,
  type Model,
} from './index'

/** What must hold of any picture, however it is calibrated and laid. */
const project = projectWith([0, 3.4])
const numbers = numbersOf(project, schemeOf(project))
const model: Model = { numbers, pictures: {}, measures: {}, height: (id) => numbers.height(id), mass: () => null }
const px = fc.tuple(fc.integer({ min: 0, max: 2000 }), fc.integer({ min: 0, max: 1500 })).map((p): Vec2 => p)
const pair = fc
  .tuple(
    px,
    px,
    fc.integer({ min: 1, max: 400 }),
    fc.constantFrom('anyhow' as const, 'level' as const, 'plumb' as const),
  )
  .filter(([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 20)
  .map(([a, b, dm, lies]) => ({ id: 'p', a, b, length: dm / 10, lies }))
const picture = (pairs: Picture['pairs'], more: Partial<Picture> = {}): Picture => ({
  id: 'pic',
  name: 'p',
  order: 0,
  asset: 'a'.repeat(64),
  type: 'image/png',
  width: 2000,
  height: 1500,
  crop: null,
  turn: 0,
  opacity: 1,
  locked: false,
  pairs,
  pin: { px: [100, 1400], to: { kind: 'point', x: 5, y: -3, z: 2 } },
  stands: [],
  ...more,
})
const lies = fc.oneof(
  fc.record({ kind: fc.constant('plan' as const), level: fc.constantFrom('L0', 'L1', null), above: fc.constant(0.1) }),
  fc.record({
    kind: fc.constant('upright' as const),
    azimuth: fc.integer({ min: -180, max: 180 }),
    toward: fc.integer({ min: -20, max: 20 }),
  }),
)

describe('any calibration', () => {
  it('has the least sum of squares: a hair more or less scale is worse', () => {
    fc.assert(
      fc.property(fc.array(pair, { minLength: 1, maxLength: 6 }), (pairs) => {
        const found = calibrate({ pairs }, numbers)
        const sum = (scale: number) =>
          pairs.reduce((s, p) => s + (scale * Math.hypot(p.a[0] - p.b[0], p.a[1] - p.b[1]) - p.length) ** 2, 0)
        const k = found?.scale ?? 0
        return sum(k) <= sum(k * 1.0001) + 1e-12 && sum(k) <= sum(k * 0.9999) + 1e-12
      }),
    )
  })
  it('does not mind which end of a pair was picked first', () => {
    fc.assert(
      fc.property(fc.array(pair, { minLength: 1, maxLength: 4 }), (pairs) => {
        const [one, other] = [
          calibrate({ pairs }, numbers),
          calibrate({ pairs: pairs.map((p) => ({ ...p, a: p.b, b: p.a })) }, numbers),
        ]
        expect(other?.scale).toBeCloseTo(one?.scale ?? 0, 12)
        if (pairs.length === 1)
          expect(Math.abs(Math.sin((((other?.tilt ?? 0) - (one?.tilt ?? 0)) * Math.PI) / 180))).toBeLessThan(1e-9)
      }),
    )
  })
  it('with one pair gives that pair its length, level or plumb where it was said to lie so', () => {
    fc.assert(
      fc.property(pair, (p) => {
        const scaling = scalingOf(picture([p]), numbers)
        const [a, b] = [fromPixel(scaling, p.a), fromPixel(scaling, p.b)]
        expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(p.length, 6)
        if (p.lies === 'level') expect(b[1] - a[1]).toBeCloseTo(0, 6)
        if (p.lies === 'plumb') expect(b[0] - a[0]).toBeCloseTo(0, 6)
      }),
    )
  })
})

describe('any laid picture', () => {
  it('has its pin where it is tied, and every pixel comes back from the world', () => {
    fc.assert(
      fc.property(fc.array(pair, { minLength: 1, maxLength: 3 }), lies, px, (pairs, how, p) => {
        const pic = picture(pairs)
        const laid = lay(pic, { id: 's', lies: how, shown: true, front: false }, model)
        const scaling = scalingOf(pic, numbers)
        const pin = worldOf(laid, scaling, pic.pin.px)
        if (how.kind === 'plan') expect(pin.slice(0, 2).map((c) => Number(c.toFixed(6)))).toEqual([5, -3])
        else expect(pin[2]).toBeCloseTo(2, 6)
        const back = pixelOf(laid, scaling, worldOf(laid, scaling, p))
        expect(back[0]).toBeCloseTo(p[0], 5)
        expect(back[1]).toBeCloseTo(p[1], 5)
      }),
    )
  })
  it('keeps lengths: what is apart on the picture is as far apart in the world', () => {
    fc.assert(
      fc.property(pair, lies, px, px, (one, how, p, q) => {
        const pic = picture([one])
        const laid = lay(pic, { id: 's', lies: how, shown: true, front: false }, model)
        const scaling = scalingOf(pic, numbers)
        const [a, b] = [worldOf(laid, scaling, p), worldOf(laid, scaling, q)]
        expect(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])).toBeCloseTo(
          scaling.scale * Math.hypot(p[0] - q[0], p[1] - q[1]),
          6,
        )
      }),
    )
  })
})

describe('any measure', () => {
  const point = fc
    .tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 }), fc.integer({ min: -20, max: 40 }))
    .map((p): Vec3 => p)
  it('of a circle through three points has all three on it', () => {
    fc.assert(
      fc.property(point, point, point, (a, b, c) => {
        const cross = [
          (b[1] - a[1]) * (c[2] - a[2]) - (b[2] - a[2]) * (c[1] - a[1]),
          (b[2] - a[2]) * (c[0] - a[0]) - (b[0] - a[0]) * (c[2] - a[2]),
          (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]),
        ]
        fc.pre(Math.hypot(...cross) > 1)
        const { centre, r } = circleThrough(a, b, c)
        for (const p of [a, b, c])
          expect(Math.hypot(p[0] - centre[0], p[1] - centre[1], p[2] - centre[2]) / r).toBeCloseTo(1, 8)
      }),
    )
  })
  it('angles of a triangle add up, its area is the same from every corner', () => {
    fc.assert(
      fc.property(point, point, point, (a, b, c) => {
        fc.pre(valueOf('area', [a, b, c]) > 1)
        expect(valueOf('angle', [a, b, c]) + valueOf('angle', [b, c, a]) + valueOf('angle', [c, a, b])).toBeCloseTo(
          180,
          6,
        )
        expect(valueOf('area', [b, c, a])).toBeCloseTo(valueOf('area', [a, b, c]), 6)
        expect(valueOf('rise', [a, b])).toBeCloseTo(-valueOf('rise', [b, a]), 12)
      }),
    )
  })
})

it('any marks: rounded heights lie on the stride and within half of it; a repeat points to an equal one before it', () => {
  fc.assert(
    fc.property(
      pair,
      fc.array(px, { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 1, max: 50 }),
      (one, marks, cm) => {
        const stride = cm / 100
        const read = readMarks(scalingOf(picture([one]), numbers), { px: marks[0] ?? [0, 0], height: 0 }, marks, stride)
        read.forEach((m, i) => {
          expect(Math.abs(m.height / stride - Math.round(m.height / stride))).toBeLessThan(1e-4)
          expect(Math.abs(m.height - m.read)).toBeLessThanOrEqual(stride / 2 + 1e-6)
          const first = read.findIndex((o) => Math.abs(o.height - m.height) < 1e-6)
          expect(m.repeats).toBe(first < i ? first : null)
        })
      },
    ),
  )
})

it('a line on an outline lies off it by nothing; moved square to a side, by as much', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 40 }),
      fc.integer({ min: 2, max: 40 }),
      fc.integer({ min: 1, max: 90 }),
      (w, h, cm) => {
        const outline: Vec2[][] = [
          [
            [0, 0],
            [w, 0],
            [w, h],
            [0, h],
          ],
        ]
        expect(compareLine(outline, true, outline)?.greatest).toBeCloseTo(0, 9)
        const off = compareLine(
          [
            [
              [0, -cm / 100],
              [w, -cm / 100],
            ],
          ],
          false,
          outline,
          0.05,
        )
        expect(off?.greatest).toBeCloseTo(cm / 100, 9)
        expect(off?.mean).toBeCloseTo(cm / 100, 6)
      },
    ),
    { numRuns: 20 },
  )
})
