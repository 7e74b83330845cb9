import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, it } from 'vitest'
import { NO_LOCATION, unpackSurvey } from '../project'
import { loopArea, openKernel } from '../solid'
import { readBodies, readSite, type Answers } from './index'

beforeAll(() => openKernel())

const file = (name: string) => new Uint8Array(readFileSync(new URL(`../testing/damaged/${name}`, import.meta.url)))
const bytes = (text: string) => new TextEncoder().encode(text)
const site = async (name: string, content: Uint8Array | string, answers: Answers = {}) =>
  (await readSite(name, typeof content === 'string' ? bytes(content) : content, NO_LOCATION, { answers })).read

describe('DXF says where things lie, and in what', () => {
  const dxf = (entities: string, units: number | null = 6, more = '') =>
    [
      '0\nSECTION\n2\nHEADER',
      ...(units === null ? [] : [`9\n$INSUNITS\n70\n${units}`]),
      more,
      `0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}\n0\nENDSEC\n0\nEOF`,
    ]
      .filter(Boolean)
      .join('\n')
  it('blocks are placed: moved, turned and scaled', async () => {
    const read = await site('block.dxf', file('block.dxf'))
    expect(read.points).toEqual([[98, 202, 14]])
    expect(read.outlines[0]?.points).toEqual([
      [100, 200],
      [100, 220],
      [90, 220],
      [90, 200],
    ])
  })
  it('mirrored things lie on the other side; what is on paper or on layers that are off is left', async () => {
    expect((await site('m.dxf', file('mirrored.dxf'))).outlines[0]?.points).toEqual([
      [-10, 0],
      [-20, 0],
      [-20, 5],
      [-10, 5],
    ])
    const paper = await site('paper.dxf', file('paper.dxf'))
    expect([paper.outlines.length, paper.lines.length]).toEqual([1, 0])
    expect(paper.remarks).toEqual([
      '1 things on paper (title blocks, frames) were left out.',
      '1 things on layers that are off were left out.',
    ])
  })
  it('lines keep their elevation; closed ones with a height are contours, or what is answered', async () => {
    const read = await site('contour.dxf', file('contour.dxf'))
    expect(read.lines.map((l) => [l.length, l[0]?.[2]])).toEqual([
      [3, 13],
      [5, 12.5],
    ])
    expect(read.asks.map((a) => [a.what, a.taken])).toEqual([['contours', 'contours']])
    expect((await site('contour.dxf', file('contour.dxf'), { contours: 'outlines' })).outlines[0]?.base).toBe(12.5)
  })
  it.each([
    [14, 0.1],
    [7, 1000],
    [10, 0.9144],
    [21, 1200 / 3937],
    [4, 0.001],
    [2, 0.3048],
  ])('unit %d is %d m', async (unit, metres) => {
    expect((await site('u.dxf', dxf('0\nPOINT\n10\n10\n20\n20\n30\n1', unit))).points[0]?.[0]).toBeCloseTo(
      10 * metres,
      6,
    )
  })
  it('a drawing that says no unit is asked for it', async () => {
    const text = dxf('0\nPOINT\n10\n1000\n20\n2000\n30\n1', null)
    expect((await site('u.dxf', text)).asks.map((a) => [a.what, a.taken])).toEqual([['unit', 'm']])
    expect((await site('u.dxf', text, { unit: 'mm' })).points[0]).toEqual([1, 2, 0.001])
  })
  it('older code pages keep their letters', async () => {
    const text = dxf(
      '0\nLWPOLYLINE\n8\nGROSSE_\xd6DE\n70\n1\n39\n4\n10\n0\n20\n0\n10\n9\n20\n0\n10\n9\n20\n9',
      6,
      '9\n$DWGCODEPAGE\n3\nANSI_1252',
    )
    const read = await site(
      'old.dxf',
      Uint8Array.from(text, (c) => c.charCodeAt(0)),
    )
    expect(read.outlines[0]).toMatchObject({ name: 'GROSSE_ÖDE', height: 4 })
  })
})

describe('grids stand where they say', () => {
  it('pixels that are points, turned ones, south up', async () => {
    const first = async (name: string) => {
      const { points } = await site(name, file(name))
      return points[0]?.map((c) => Number(c.toFixed(3)))
    }
    expect(await first('point.tif')).toEqual([3.75, 98.75, 15.012])
    expect(await first('rotated.tif')).toEqual([3.873, 100.792, 15.012])
    expect(await first('southup.tif')).toEqual([1.25, 26.25, 11.337])
  })
})

describe('coordinates', () => {
  it('of a web map become true metres: 20 m stay 20 m at 52 degrees north', async () => {
    const [house] = (await site('merc.geojson', file('mercator.geojson'))).outlines
    const [a = [0, 0], b = [0, 0], c = [0, 0]] = house?.points ?? []
    expect(Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(20, 1)
    expect(Math.hypot(c[0] - b[0], c[1] - b[1])).toBeCloseTo(12, 0)
  })
})

describe('LandXML', () => {
  const xml = (inner: string, unit = '<Metric linearUnit="meter"/>') =>
    `<?xml version="1.0"?><LandXML><Units>${unit}</Units>${inner}</LandXML>`
  const surface = (name: string, z: number) =>
    `<Surface name="${name}"><Definition><Pnts><P id="1">0 0 ${z}</P><P id="2">20 10 ${z}</P><P id="3">0 30 ${z}</P></Pnts></Definition></Surface>`
  it.each([
    ['millimeter', 0.001],
    ['centimeter', 0.01],
    ['meter', 1],
  ])('in %s', async (unit, metres) => {
    expect(
      (await site('g.xml', xml(`<Surfaces>${surface('s', 5)}</Surfaces>`, `<Metric linearUnit="${unit}"/>`)))
        .points[1]?.[1],
    ).toBeCloseTo(20 * metres, 6)
  })
  it('of several surfaces one is taken, and which one is asked', async () => {
    const two = xml(`<Surfaces>${surface('ground', 5)}${surface('rock', 1)}</Surfaces>`)
    const read = await site('g.xml', two)
    expect([read.points.length, read.points[0]?.[2], read.asks[0]?.taken]).toEqual([3, 5, 'ground'])
    expect((await site('g.xml', two, { surface: 'rock' })).points[0]?.[2]).toBe(1)
  })
  it('contours with a height and parcels are kept', async () => {
    const read = await site(
      'g.xml',
      xml(
        '<Parcels><Parcel name="Plot 7"><CoordGeom><Line><Start>0 0</Start><End>0 30</End></Line><Line><Start>0 30</Start><End>20 30</End></Line><Line><Start>20 30</Start><End>0 0</End></Line></CoordGeom></Parcel></Parcels><Surfaces><Surface name="s"><SourceData><Contours><Contour elev="12.5"><PntList2D>0 0 0 10 10 10</PntList2D></Contour></Contours></SourceData></Surface></Surfaces>',
      ),
    )
    expect(read.lines).toEqual([
      [
        [0, 0, 12.5],
        [10, 0, 12.5],
        [10, 10, 12.5],
      ],
    ])
    expect(read.outlines).toEqual([
      {
        name: 'Plot 7',
        points: [
          [0, 0],
          [30, 0],
          [30, 20],
        ],
        height: null,
        base: null,
      },
    ])
  })
})

describe('surveyed points', () => {
  it.each([
    [
      '1.5 2.5 3.5 120\n4.5 5.5 6.5 130',
      [
        [1.5, 2.5, 3.5],
        [4.5, 5.5, 6.5],
      ],
    ],
    [
      '1.5 2.5 3.5 255 0 10\n4.5 5.5 6.5 1 2 3',
      [
        [1.5, 2.5, 3.5],
        [4.5, 5.5, 6.5],
      ],
    ],
    [
      '101,1.5,2.5,3.5\n102,4.5,5.5,6.5',
      [
        [1.5, 2.5, 3.5],
        [4.5, 5.5, 6.5],
      ],
    ],
    [
      'x,y,z\n1,2,3\n4,5,nan\n7,8,-9999\n9,9,9',
      [
        [1, 2, 3],
        [9, 9, 9],
      ],
    ],
  ])('%j', async (text, want) => {
    expect((await site('p.xyz', text)).points).toEqual(want)
  })
  it('in feet by their head', async () => {
    expect((await site('p.csv', 'easting (ft),northing (ft),height (ft)\n10,20,30\n1,1,1')).points[0]).toEqual([
      3.048, 6.096, 9.144,
    ])
  })
  it('rows are counted as in the file, empty ones too', async () => {
    await expect(site('p.csv', 'x,y,z\n\n\n1,2,three\n')).rejects.toThrow('row 4 is not numbers')
  })
  it('a stored survey with what is no number is refused', () => {
    expect(() => unpackSurvey(file('not-a-number.survey'))).toThrow('damaged')
  })
})

describe('bodies', () => {
  it('that look inwards are turned, which is said; mirrored ones as well', async () => {
    const inside = await readBodies('inverted.obj', file('inverted.obj'), false)
    expect(inside.bodies.map((b) => [b.fault, b.done])).toEqual([[null, ['its faces looked inwards, and were turned']]])
    expect((await readBodies('mirrored.glb', file('mirrored.glb'), false)).bodies.map((b) => b.fault)).toEqual([null])
  })
  it('of concave polygons are cut as they are', async () => {
    const {
      bodies: [l],
    } = await readBodies('concave.obj', file('concave.obj'), false)
    const base = l?.body.faces.find((f) => f.triangles.every((v) => (l.body.corners[v * 3 + 2] ?? 0) < 1e-9))
    const area = (base?.triangles ?? []).reduce(
      (sum, _, i, t) =>
        i % 3
          ? sum
          : sum +
            Math.abs(
              loopArea(
                [0, 1, 2].map((k) => [
                  l?.body.corners[(t[i + k] ?? 0) * 3] ?? 0,
                  l?.body.corners[(t[i + k] ?? 0) * 3 + 1] ?? 0,
                ]),
              ),
            ),
      0,
    )
    expect([l?.fault, area]).toEqual([null, 20])
  })
  it('groups are bodies where there are no objects; which way is up, and the unit, are asked with a guess', async () => {
    const box = (x: number, from: number) =>
      `${[
        [0, 0, 0],
        [4000, 0, 0],
        [4000, 0, 9000],
        [0, 0, 9000],
      ]
        .flatMap(([a = 0, , c = 0]) => [0, 300].map((h) => `v ${a + x} ${h} ${c}`))
        .join('\n')}\n${[
        [1, 3, 5, 7],
        [2, 8, 6, 4],
        [1, 2, 4, 3],
        [3, 4, 6, 5],
        [5, 6, 8, 7],
        [7, 8, 2, 1],
      ]
        .map((f) => `f ${f.map((v) => v + from).join(' ')}`)
        .join('\n')}`
    const text = bytes(`g one\n${box(0, 0)}\ng two\n${box(6000, 8)}`)
    const read = await readBodies('two.obj', text, false)
    expect(read.bodies.map((b) => [b.name, b.fault])).toEqual([
      ['one', null],
      ['two', null],
    ])
    expect(read.asks.map((a) => [a.what, a.taken])).toEqual([
      ['up', 'y'],
      ['unit', 'mm'],
    ])
    expect(Math.max(...(read.bodies[0]?.body.corners ?? []).filter((_, i) => i % 3 === 2))).toBeCloseTo(0.3, 9)
    const told = await readBodies('two.obj', text, false, null, { up: 'z', unit: 'cm' })
    expect(Math.max(...(told.bodies[0]?.body.corners ?? []).filter((_, i) => i % 3 === 2))).toBeCloseTo(90, 9)
  })
})
