import { describe, expect, it } from 'vitest'
import { Sheet } from '../../demo/raster'
import { numbersOf, readTyped, type Picture } from '../project'
import type { Vec2 } from '../solid'
import { projectWith, schemeOf } from '../testing/make'
import { compareLine, readMarks, scalingOf, traceSketch } from './index'

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
  })
  it('keeps square sides square beside a long slanting one', async () => {
    const corners: Vec2[] = [[150, 150], [450, 150], [450, 350], [950, 700], [150, 700]] // prettier-ignore
    const found = await traceSketch(new Sheet(1100, 850).loop(corners, 5).rgba(), { within: 5, smallest: 400 })
    const outer = found[0]?.outer ?? []
    const angles = outer.map((p, i) => {
      const q = outer[(i + 1) % outer.length] as Vec2
      return (Math.atan2(q[1] - p[1], q[0] - p[0]) * 180) / Math.PI
    })
    const off = angles.map((a) => Math.abs(a - 90 * Math.round(a / 90))).sort((a, b) => a - b)
    // Four sides lie along the sheet; the fifth slants by 35 degrees.
    expect(off.length).toBe(5)
    for (const a of off.slice(0, 4)) expect(a).toBeLessThan(0.15)
    expect(off[4]).toBeCloseTo(35, 0)
  })
  it('a circle in ink is a circle: four quarter arcs, to a thousandth of its area', async () => {
    const ring = Array.from({ length: 720 }, (_, i) => [
      500 + 280 * Math.cos((Math.PI * i) / 360),
      400 + 280 * Math.sin((Math.PI * i) / 360),
    ])
    const found = await traceSketch(new Sheet(1000, 800).loop(ring, 6).rgba(), { within: 5, smallest: 400 })
    expect(found.map((f) => [f.outer.length, f.bulges.map((b) => b.map((x) => x.toFixed(4)))])).toEqual([
      [4, [['0.4142', '0.4142', '0.4142', '0.4142']]],
    ])
    expect(Math.abs((found[0]?.area ?? 0) / (Math.PI * 280 ** 2) - 1)).toBeLessThan(1e-3)
    // A round court in a square keeps its sense as a hole.
    const square = [[150, 50], [850, 50], [850, 750], [150, 750]] // prettier-ignore
    const court = await traceSketch(new Sheet(1000, 800).loop(square, 6).loop(ring, 6).rgba(), {
      within: 5,
      smallest: 400,
    })
    expect(court[0]?.bulges[1]?.every((b) => b < 0)).toBe(true)
    expect(Math.abs((court[0]?.area ?? 0) / (700 ** 2 - Math.PI * 280 ** 2) - 1)).toBeLessThan(2e-3)
  })
  it('cells between thick and thin lines meet in the middle of their line, and do not overlap', async () => {
    const box = [[100, 100], [900, 100], [900, 640], [100, 640]] // prettier-ignore
    const sheet = new Sheet(1000, 740).loop(box, 14).line([500, 100], [500, 640], 3).line([100, 300], [900, 300], 3)
    const found = await traceSketch(sheet.rgba(), { within: 5, smallest: 400 })
    expect(found.map((f) => f.outer.length)).toEqual([4, 4, 4, 4])
    const sum = found.reduce((total, f) => total + f.area, 0)
    expect(Math.abs(sum / (800 * 540) - 1)).toBeLessThan(2e-3)
    for (const f of found) {
      const wanted = f.area > 110_000 ? 400 * 340 : 400 * 200
      expect(Math.abs(f.area / wanted - 1)).toBeLessThan(4e-3)
    }
  })
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
  })
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
