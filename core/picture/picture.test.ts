import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Sheet } from '../../demo/raster'
import { numbersOf, readTyped, type KeptMeasure, type Picture } from '../project'
import type { Vec2 } from '../solid'
import { apply, projectWith, schemeOf } from '../testing/make'
import {
  calibrate,
  compareLine,
  fromPixel,
  lay,
  pixelOf,
  readMarks,
  scalingOf,
  tiltOf,
  toPixel,
  traceSketch,
  worldOf,
  type Model,
} from './index'

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

describe('levels read from a section', () => {
  it('are proposed, rounded by the stride, and doubles are flagged', () => {
    const scaling = scalingOf(picture({ pairs: [pair([0, 0], [0, 100], 10, 'plumb')] }), numbers)
    const at = (height: number): [number, number] => [300 + height, 700 - height * 10]
    const read = readMarks(scaling, { px: at(0), height: 0 }, [0, 0.453, 4.1, 4.098, 7.402].map(at), 0.05)
    expect(read.map((m) => m.height)).toEqual([0, 0.45, 4.1, 4.1, 7.4])
    expect(read.map((m) => m.repeats)).toEqual([null, null, null, 2, null])
    expect(read[1]?.read).toBeCloseTo(0.453, 9)
  })
  it('sums typed in other units come out', () => {
    expect(readTyped('-(165+790) mm', 'length', project, null).value).toBe(-0.955)
  })
})

describe('tracing an ink sketch', () => {
  const k = 300 / 0.0254 / 200
  const turned = ([x, y]: number[]): number[] => {
    const a = (1.5 * Math.PI) / 180
    const [u, v] = [(x ?? 0) * k, (y ?? 0) * k]
    return [500 + u * Math.cos(a) - v * Math.sin(a), 900 + u * Math.sin(a) + v * Math.cos(a)]
  }
  const scan = () =>
    new Sheet(2480, 3508)
      .loop(
        [
          [0, 0],
          [8, 0],
          [8, 10],
          [24, 10],
          [24, 18],
          [0, 18],
        ].map(turned),
        6,
      )
      .loop(
        [
          [2.5, 13],
          [5.5, 13],
          [5.5, 15],
          [2.5, 15],
        ].map(turned),
        6,
      )
      .specks(3000)
      .shade(40, 30)
  it('finds an L with its courtyard on a skewed, speckled A4 scan: 6 and 4 corners, areas within 0.2 %', async () => {
    const steps: number[] = []
    const found = await traceSketch(scan().rgba(), { within: 5, smallest: 400 }, (done) => steps.push(done))
    expect(found.map((f) => [f.outer.length, f.holes.map((h) => h.length)])).toEqual([[6, [4]]])
    expect(Math.abs((found[0]?.area ?? 0) / k / k / 266 - 1)).toBeLessThan(0.002)
    expect(steps).toEqual([...steps].sort((a, b) => a - b))
    // Right angles are true.
    const outer = found[0]?.outer ?? []
    outer.forEach((p, i) => {
      const [a, b] = [outer[(i + 5) % 6] as Vec2, outer[(i + 1) % 6] as Vec2]
      expect(
        Math.abs((p[0] - a[0]) * (b[0] - p[0]) + (p[1] - a[1]) * (b[1] - p[1])) /
          Math.hypot(p[0] - a[0], p[1] - a[1]) /
          Math.hypot(b[0] - p[0], b[1] - p[1]),
      ).toBeLessThan(1e-9)
    })
  }, 60_000)
  it('offers several shapes apart, and those that share a line', async () => {
    const sheet = new Sheet(900, 700)
      .loop(
        [
          [100, 100],
          [400, 100],
          [400, 300],
          [100, 300],
        ],
        5,
      )
      .line([250, 100], [250, 300], 5)
      .loop(
        [
          [550, 120],
          [800, 160],
          [640, 420],
        ],
        5,
      )
      .specks(200)
    const found = await traceSketch(sheet.rgba(), { within: 5, smallest: 300 })
    expect(found.map((f) => f.outer.length).sort()).toEqual([3, 4, 4])
    const rooms = found.filter((f) => f.outer.length === 4).map((f) => f.area)
    for (const area of rooms) expect(Math.abs(area / 30000 - 1)).toBeLessThan(0.02)
  }, 60_000)
  it('finds nothing on an empty sheet, and refuses one that is too large', async () => {
    expect(await traceSketch(new Sheet(400, 300).specks(150).rgba(), { within: 5, smallest: 300 })).toEqual([])
    await expect(
      traceSketch({ width: 20000, height: 20000, data: new Uint8Array() }, { within: 5, smallest: 300 }),
    ).rejects.toThrow('million pixels')
  })
})

it('a line is compared with an outline: greatest and mean distance', () => {
  const outline = [
    [
      [0, 0],
      [10, 0],
      [10, 6],
      [0, 6],
    ] as Vec2[],
  ]
  expect(
    compareLine(
      [
        [
          [0, -0.02],
          [10, -0.02],
        ],
      ],
      false,
      outline,
    ),
  ).toMatchObject({ greatest: expect.closeTo(0.02, 9), mean: expect.closeTo(0.02, 6) })
  const tilted = compareLine(
    [
      [
        [0, 0],
        [10, -0.1],
      ],
    ],
    false,
    outline,
  )
  expect(tilted?.greatest).toBeCloseTo(0.1, 6)
  expect(tilted?.mean).toBeCloseTo(0.05, 4)
  expect(
    compareLine(
      [
        [
          [0, 0],
          [10, 0],
        ],
      ],
      false,
      [],
    ),
  ).toBeNull()
})
