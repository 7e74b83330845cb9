import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numbersOf, readTyped, type KeptMeasure, type Picture } from '../project'
import type { Vec2 } from '../solid'
import { apply, projectWith, schemeOf } from '../testing/make'
import { calibrate, doubtOf, fromPixel, lay, pixelOf, scalingOf, tiltOf, toPixel, worldOf, type Model } from './index'

const project = projectWith([0, 3])
const numbers = numbersOf(project, schemeOf(project))
const picture = (more: Partial<Picture> = {}): Picture => ({
  id: 'pic',
  name: 'Section',
  order: 0,
  asset: 'a'.repeat(64),
  type: 'image/png',
  width: 1000,
  height: 800,
  crop: null,
  turn: 0,
  opacity: 1,
  locked: false,
  pairs: [],
  pin: { px: [0, 0], to: { kind: 'point', x: 0, y: 0, z: 0 } },
  stands: [],
  ...more,
})
const pair = (a: Vec2, b: Vec2, length: number, lies: 'anyhow' | 'level' | 'plumb' = 'anyhow') => ({
  id: `p${a.join('-')}`,
  a,
  b,
  length,
  lies,
})

describe('calibrating', () => {
  it('a scale bar gives scale and tilt, and other lengths by them', () => {
    const bar = picture({ pairs: [pair([212, 1190], [668, 1181], 12, 'level')] })
    const found = calibrate(bar, numbers)
    expect((found?.scale ?? 0) * 1000).toBeCloseTo(26.3107, 4)
    expect(found?.tilt).toBeCloseTo(1.131, 3)
    expect(178 * (found?.scale ?? 0)).toBeCloseTo(4.683, 3)
    // Levelled, the bar lies level, whichever end was picked first.
    const scaling = scalingOf(bar, numbers)
    expect(fromPixel(scaling, [212, 1190])[1]).toBeCloseTo(fromPixel(scaling, [668, 1181])[1], 9)
    expect(tiltOf([668, 1181], [212, 1190])).toBeCloseTo(1.131, 3)
    expect(tiltOf([10, 500], [19, 44], true)).toBeCloseTo(-1.131, 2)
  })
  it('a sheet that lies on its side is tilted by 90 degrees, though its pairs tilt it by 89.9 and -89.9', () => {
    const side = picture({
      pairs: [
        pair([0, 0], [1, 573], 10, 'level'),
        pair([50, 0], [49, 573], 10, 'level'),
        pair([0, 9], [573, 9], 10, 'plumb'),
      ],
    })
    expect(calibrate(side, numbers)?.tilt).toBeCloseTo(90, 6)
    for (const turn of [3, 37, 84, 90, 91, 178]) {
      const at = (degrees: number): [number, number] => [
        500 * Math.cos(((turn + degrees) * Math.PI) / 180),
        -500 * Math.sin(((turn + degrees) * Math.PI) / 180),
      ]
      const turned = picture({
        pairs: [-2, 1, 1].map((d) => pair([0, 0], at(d), 10, 'level')).concat(pair([0, 0], at(90), 10, 'plumb')),
      })
      const off = (calibrate(turned, numbers)?.tilt ?? NaN) - turn
      expect(Math.sin((off * Math.PI) / 180)).toBeCloseTo(0, 4)
    }
  })
  it('a pair is asked about that is far from how it is said to lie, or from the other pairs', () => {
    expect(doubtOf([], pair([0, 0], [100, 8], 10, 'level'))).toBeNull()
    expect(doubtOf([], pair([0, 0], [37, 96], 10, 'level'))).toMatchObject({ others: null, better: 'anyhow' })
    expect(doubtOf([], pair([0, 0], [3, 96], 10, 'level'))).toMatchObject({ better: 'plumb' })
    expect(doubtOf([], pair([0, 0], [96, 3], 10, 'plumb'))).toMatchObject({ better: 'level' })
    expect(doubtOf([], pair([0, 0], [37, 96], 10, 'anyhow'))).toBeNull()
    // On a sheet that lies on its side by what is known already, the next level pair may run up the picture.
    const side = [pair([0, 0], [0, 500], 10, 'level')]
    expect(doubtOf(side, pair([9, 0], [8, 400], 8, 'level'))).toBeNull()
    expect(doubtOf(side, pair([0, 9], [400, 8], 8, 'level'))).toMatchObject({ others: 90, better: 'plumb' })
  })
  it('more pairs give the scale of least squares, with the error stated', () => {
    const found = calibrate(picture({ pairs: [pair([0, 0], [100, 0], 10), pair([0, 50], [200, 50], 20.4)] }), numbers)
    expect(found?.scale).toBeCloseTo((100 * 10 + 200 * 20.4) / (100 ** 2 + 200 ** 2), 12)
    expect(found?.off.map((o) => Number(o.toFixed(3)))).toEqual([0.16, -0.08])
    expect(found?.percent).toBeCloseTo(
      (100 * Math.sqrt((0.16 ** 2 + 0.08 ** 2) / 2)) / Math.sqrt((10 ** 2 + 20.4 ** 2) / 2),
      6,
    )
    expect(calibrate(picture(), numbers)).toBeNull()
  })
  it('pixels and metres go back and forth', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.double({ min: 1, max: 900, noNaN: true }),
        fc.double({ min: 1, max: 700, noNaN: true }),
        (turn, x, y) => {
          const scaling = scalingOf(picture({ turn, pairs: [pair([10, 10], [300, 40], 12, 'level')] }), numbers)
          const [bx, by] = toPixel(scaling, fromPixel(scaling, [x, y]))
          return Math.abs(bx - x) < 1e-6 && Math.abs(by - y) < 1e-6
        },
      ),
    )
  })
  it('refuses a pair at one place, and a length of nothing', () => {
    const add = (p: Picture) => () => apply(project, { edit: 'picture.add', thing: p })
    expect(add(picture({ pairs: [pair([5, 5], [5, 5], 3)] }))).toThrow('lie at one place')
    expect(add(picture({ pairs: [pair([5, 5], [50, 5], 0)] }))).toThrow('zero or less')
  })
})

describe('laying', () => {
  const model: Model = {
    numbers,
    pictures: {},
    measures: {},
    height: (id) => numbers.height(id),
    mass: (id) =>
      id === 'tower'
        ? {
            centre: [10, 5],
            corners: [
              [8, 4],
              [12, 4],
              [12, 6],
              [8, 6],
            ],
            base: 0,
          }
        : null,
  }
  const tenth = [pair([0, 0], [100, 0], 10)]
  it('one picture stands in several views; its pin is where it was tied', () => {
    const p = picture({ pairs: tenth, pin: { px: [100, 200], to: { kind: 'corner', mass: 'tower', corner: 1 } } })
    const plan = lay(p, { id: 's', lies: { kind: 'plan', level: 'L1', above: 0.1 }, shown: true, front: false }, model)
    const south = lay(
      p,
      { id: 't', lies: { kind: 'upright', azimuth: -90, toward: 2 }, shown: true, front: true },
      model,
    )
    const scaling = scalingOf(p, numbers)
    expect(worldOf(plan, scaling, [100, 200])).toEqual([12, 4, 3.1])
    expect(worldOf(south, scaling, [100, 200]).map((c) => c + 0)).toEqual([12, 2, 0])
    expect(worldOf(south, scaling, [200, 100]).map((c) => Number(c.toFixed(9)))).toEqual([22, 2, 10])
    expect(pixelOf(plan, scaling, [13, 5, 9]).map((c) => Number(c.toFixed(6)))).toEqual([110, 190])
  })
  it('can be tied to the axis of a circle found in another picture', () => {
    const other = picture({
      id: 'plan',
      pairs: tenth,
      pin: { px: [0, 0], to: { kind: 'point', x: 0, y: 0, z: 0 } },
      stands: [{ id: 's', lies: { kind: 'plan', level: null, above: 0 }, shown: true, front: false }],
    })
    const circle: KeptMeasure = {
      id: 'drum',
      name: 'drum',
      order: 0,
      kind: 'radius',
      picture: 'plan',
      points: [
        [50, 0],
        [100, 50],
        [50, 100],
      ],
      same: null,
    }
    const tied = picture({ pairs: tenth, pin: { px: [0, 0], to: { kind: 'axis', measure: 'drum' } } })
    const laid = lay(
      tied,
      { id: 's', lies: { kind: 'plan', level: null, above: 0 }, shown: true, front: false },
      { ...model, pictures: { plan: other, pic: tied }, measures: { drum: circle } },
    )
    expect(laid.corner.map((c) => Number(c.toFixed(9)))).toEqual([5, -5, 0])
  })
})

describe('measures', () => {
  const measure = (kind: KeptMeasure['kind'], points: number[][], more: Partial<KeptMeasure> = {}): KeptMeasure => ({
    id: kind,
    name: `the ${kind}`,
    order: 0,
    kind,
    picture: 'pic',
    points,
    same: null,
    ...more,
  })
  const withAll = apply(
    project,
    { edit: 'picture.add', thing: picture({ pairs: [pair([0, 0], [100, 0], 10)] }) },
    ...[
      measure('distance', [
        [0, 0],
        [30, 40],
      ]),
      measure('rise', [
        [0, 100],
        [50, 60],
      ]),
      measure('angle', [
        [10, 0],
        [0, 0],
        [0, 10],
      ]),
      measure('radius', [
        [50, 0],
        [100, 50],
        [50, 100],
      ]),
      measure('area', [
        [0, 0],
        [40, 0],
        [40, 30],
        [0, 30],
      ]),
      measure(
        'distance',
        [
          [0, 0, 0],
          [3, 4, 12],
        ],
        { id: 'room', name: 'diagonal', picture: null },
      ),
    ].map((thing) => ({ edit: 'measure.add' as const, thing })),
  )
  const value = (text: string, quantity: 'length' | 'angle' | 'area' = 'length') =>
    readTyped(text, quantity, withAll, schemeOf(withAll)).value
  it('are kept, named, and usable in formulas, on pictures and on the model', () => {
    expect([
      value('the distance'),
      value('the rise'),
      value('the radius'),
      value('diagonal'),
      value('the distance * 2 + diagonal'),
    ]).toEqual([5, 4, 5, 13, 23])
    expect([value('the angle', 'angle'), value('the area', 'area')]).toEqual([90, 12])
  })
  it('follow the calibration', () => {
    const half = apply(withAll, { edit: 'picture.change', id: 'pic', set: { pairs: [pair([0, 0], [100, 0], 5)] } })
    expect(readTyped('the distance', 'length', half, schemeOf(half)).value).toBe(2.5)
  })
  it('hold what names them: a measure in use cannot go, and a circle of numbers is refused', () => {
    const used = apply(withAll, { edit: 'project.change', set: { headroom: { formula: '{distance}' } } })
    expect(() => apply(used, { edit: 'measure.remove', id: 'distance' })).toThrow('not there')
    expect(() =>
      apply(withAll, {
        edit: 'picture.change',
        id: 'pic',
        set: { pairs: [{ ...pair([0, 0], [100, 0], 1), length: { formula: '{distance} * 2' } }] },
      }),
    ).toThrow('in a circle')
    expect(() =>
      apply(withAll, {
        edit: 'measure.add',
        thing: measure(
          'radius',
          [
            [0, 0],
            [1, 1],
            [2, 2],
          ],
          { id: 'x', name: 'x' },
        ),
      }),
    ).toThrow('three points in a line')
  })
})
