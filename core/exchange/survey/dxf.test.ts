import { describe, expect, it } from 'vitest'
import { NO_LOCATION } from '../../project'
import { loopArea, type Vec2 } from '../../solid'
import { readSite } from './index'

type Group = [number, string | number]
const lines = (groups: Group[]) => groups.map(([code, value]) => `${code}\n${value}`).join('\n')
/** A drawing in metres with some things; `end`: what its text ends with. */
const drawing = (groups: Group[], end = '\n0\nENDSEC\n0\nEOF\n', blocks: Group[] = []) =>
  [
    lines([
      [0, 'SECTION'],
      [2, 'HEADER'],
      [9, '$INSUNITS'],
      [70, 6],
      [0, 'ENDSEC'],
    ]),
    ...(blocks.length ? [lines([[0, 'SECTION'], [2, 'BLOCKS'], ...blocks, [0, 'ENDSEC']])] : []),
    lines([[0, 'SECTION'], [2, 'ENTITIES'], ...groups]),
  ].join('\n') + end
const read = async (text: string) => (await readSite('plot.dxf', new TextEncoder().encode(text), NO_LOCATION)).read
const corners = (points: Vec2[]): Group[] =>
  points.flatMap(([x, y]): Group[] => [
    [10, x],
    [20, y],
  ])
const plot = (points: Vec2[], count = points.length): Group[] => [
  [0, 'LWPOLYLINE'],
  [8, 'Plot'],
  [90, count],
  [70, 1],
  ...corners(points),
]
const SQUARE: Vec2[] = [
  [0, 0],
  [40, 0],
  [40, 40],
  [0, 40],
]
const areas = async (text: string) => (await read(text)).outlines.map((o) => Math.abs(loopArea(o.points)))
const OTHER: Group[] = plot([
  [50, 0],
  [60, 0],
  [60, 10],
  [50, 10],
])

describe('a DXF that ends early', () => {
  it('never offers a plot of which corners are missing, wherever it is cut, and says that it ends', async () => {
    const whole = drawing([...OTHER, ...plot(SQUARE)])
    const from = whole.indexOf('Plot', whole.indexOf('Plot') + 1)
    for (let cut = from; cut < whole.lastIndexOf('ENDSEC'); cut += 3) {
      const got = await read(whole.slice(0, cut))
      expect(got.outlines.map((o) => Math.abs(loopArea(o.points)))).toEqual([100])
      expect(got.remarks).toEqual([
        'The file ends early, in a LWPOLYLINE, which was left out: what followed is missing. Export it once more.',
      ])
    }
    await expect(read(drawing(plot(SQUARE.slice(0, 3), 4), ''))).rejects.toThrow('ends early, before any point')
    expect((await read(whole)).remarks).toEqual([])
  })
  it('leaves out a polyline that has fewer corners than it tells', async () => {
    const got = await read(drawing([...OTHER, ...plot(SQUARE.slice(0, 3), 4)]))
    expect([got.outlines.length, got.remarks]).toEqual([1, ['Left out: 1 LWPOLYLINE.']])
  })
})

describe('a DXF of another writer', () => {
  it('gives circles drawn as ellipses and splines their area', async () => {
    const ellipse: Group[] = [
      [0, 'ELLIPSE'],
      [10, 5],
      [20, 5],
      [30, 0],
      [11, 6],
      [21, 0],
      [31, 0],
      [40, 0.5],
      [41, 0],
      [42, 2 * Math.PI],
    ]
    const [found] = await areas(drawing(ellipse))
    expect(Math.abs((found ?? 0) / (18 * Math.PI) - 1)).toBeLessThan(5e-4)
    // A circle of radius 3 as a rational spline of degree 2 (nine control points).
    const w = Math.SQRT1_2
    const ring: [number, number, number][] = [
      [3, 0, 1],
      [3, 3, w],
      [0, 3, 1],
      [-3, 3, w],
      [-3, 0, 1],
      [-3, -3, w],
      [0, -3, 1],
      [3, -3, w],
      [3, 0, 1],
    ]
    const spline: Group[] = [
      [0, 'SPLINE'],
      [70, 5],
      [71, 2],
      [72, 12],
      [73, 9],
      ...[0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4].map((k): Group => [40, k]),
      ...ring.map(([, , weight]): Group => [41, weight]),
      ...ring.flatMap(([x, y]): Group[] => [
        [10, x + 100],
        [20, y],
        [30, 0],
      ]),
    ]
    const got = await read(drawing(spline))
    for (const [x, y] of got.outlines[0]?.points ?? []) expect(Math.hypot(x - 100, y)).toBeCloseTo(3, 5)
    expect(Math.abs(loopArea(got.outlines[0]?.points ?? [])) / (9 * Math.PI)).toBeCloseTo(1, 3)
  })
  it('runs smoothly through the fit points of a spline that has no control points', async () => {
    const spline = (points: Vec2[], closed: boolean, more: Group[] = []): Group[] => [
      [0, 'SPLINE'],
      [70, closed ? 11 : 10],
      [71, 3],
      [74, points.length],
      ...more,
      ...points.flatMap(([x, y]): Group[] => [
        [11, x],
        [21, y],
        [31, 0],
      ]),
    ]
    const ring = (n: number): Vec2[] =>
      Array.from({ length: n }, (_, i) => [20 * Math.cos((2 * Math.PI * i) / n), 20 * Math.sin((2 * Math.PI * i) / n)])
    // Through twelve points of a circle it is that circle to a thousandth; the polygon has 4.5 % less.
    const [found] = await areas(drawing(spline(ring(12), true)))
    expect(Math.abs((found ?? 0) / (400 * Math.PI) - 1)).toBeLessThan(1e-3)
    // A quarter with its directions told, open: a line on the ground that lies on the circle.
    const quarter = [0, 1, 2, 3].map((i): Vec2 => [20 * Math.cos((Math.PI * i) / 6), 20 * Math.sin((Math.PI * i) / 6)])
    const ends: Group[] = [[12, 0], [22, 1], [32, 0], [13, -1], [23, 0], [33, 0]] // prettier-ignore
    const [line = []] = (await read(drawing([...spline(quarter, false, ends), ...plot(SQUARE)]))).lines
    expect(line.length).toBeGreaterThan(12)
    for (const [x, y] of line) expect(Math.abs(Math.hypot(x, y) - 20)).toBeLessThan(0.02)
    // Through points on one line it is that line.
    const straight = await read(drawing([...spline([[0, 0], [3, 3], [10, 10]], false), ...plot(SQUARE)])) // prettier-ignore
    for (const [x, y] of straight.lines[0] ?? []) expect(x).toBeCloseTo(y, 9)
  })
  it('gives hatches as outlines, once where their line is drawn too', async () => {
    const hatch = (points: Vec2[]): Group[] => [
      [0, 'HATCH'],
      [8, 'Plot'],
      [10, 0],
      [20, 0],
      [30, 0],
      [2, 'SOLID'],
      [70, 1],
      [71, 0],
      [91, 1],
      [92, 3],
      [72, 0],
      [73, 1],
      [93, points.length],
      ...corners(points),
      [97, 0],
      [75, 0],
      [76, 1],
      [98, 1],
      [10, 1],
      [20, 1],
    ]
    expect(await areas(drawing(hatch(SQUARE)))).toEqual([1600])
    expect(await areas(drawing([...plot(SQUARE), ...hatch(SQUARE)]))).toEqual([1600])
    // A half disc by edges: a line and an arc, counter-clockwise and clockwise.
    for (const [start, end, ccw] of [
      [0, 180, 1],
      [180, 360, 0],
    ] as const) {
      const half: Group[] = [
        [0, 'HATCH'],
        [10, 0],
        [20, 0],
        [30, 0],
        [70, 1],
        [91, 1],
        [92, 1],
        [93, 2],
        [72, 1],
        [10, -10],
        [20, 0],
        [11, 10],
        [21, 0],
        [72, 2],
        [10, 0],
        [20, 0],
        [40, 10],
        [50, start],
        [51, end],
        [73, ccw],
        [97, 0],
      ]
      expect((await areas(drawing(half)))[0]).toBeCloseTo(50 * Math.PI, 5)
    }
  })
  it('leaves out invisible things, other drawings and the control points of smoothed lines, and says so', async () => {
    const hidden: Group[] = [...OTHER.slice(0, 2), [60, 1], ...OTHER.slice(2)]
    const outside: Group[] = [
      [0, 'BLOCK'],
      [2, 'Street'],
      [70, 4],
      [1, 'street.dxf'],
      [0, 'ENDBLK'],
    ]
    const smooth: Group[] = [
      [0, 'POLYLINE'],
      [70, 5],
      ...(
        [
          [0, 0, 8],
          [10, 0, 8],
          [10, 10, 8],
          [0, 10, 8],
          [90, 90, 16],
        ] as const
      ).flatMap(([x, y, flag]): Group[] => [
        [0, 'VERTEX'],
        [10, x],
        [20, y],
        [70, flag],
      ]),
      [0, 'SEQEND'],
    ]
    const got = await read(
      drawing([...plot(SQUARE), ...hidden, [0, 'INSERT'], [2, 'Street'], ...smooth], undefined, outside),
    )
    expect(got.outlines.map((o) => Math.abs(loopArea(o.points)))).toEqual([1600, 100])
    expect(got.remarks).toEqual(['Left out: 1 other drawing ("street.dxf").', '1 invisible thing was left out.'])
  })
  it('takes the corners of faces and meshes as ground, and keeps the edges of faces, each once', async () => {
    const face: Group[] = [
      [0, '3DFACE'],
      ...SQUARE.flatMap(([x, y], i): Group[] => [
        [10 + i, x],
        [20 + i, y],
        [30 + i, i],
      ]),
    ]
    const mesh: Group[] = [
      [0, 'POLYLINE'],
      [70, 64],
      ...SQUARE.slice(0, 3).flatMap(([x, y], i): Group[] => [
        [0, 'VERTEX'],
        [70, 192],
        [10, x],
        [20, y],
        [30, i],
      ]),
      [0, 'VERTEX'],
      [70, 128],
      [71, 1],
      [72, 2],
      [73, 3],
      [0, 'SEQEND'],
    ]
    const faces = await read(drawing([...face, ...face]))
    expect([faces.points.length, faces.lines.length]).toEqual([8, 4])
    expect((await read(drawing(mesh))).points).toEqual([
      [0, 0, 0],
      [40, 0, 1],
      [40, 40, 2],
    ])
  })
})
