import { writeArrayBuffer } from 'geotiff'
import { describe, expect, it } from 'vitest'
import { NO_LOCATION, packSurvey, triangulateSurvey, unpackSurvey } from '../project'
import { readSite, surveyOf } from './index'

const bytes = (text: string) => new TextEncoder().encode(text)
const read = async (name: string, text: string, location = NO_LOCATION, leaveOut = false) =>
  (await readSite(name, bytes(text), location, { leaveOut })).read

describe('surveyed points as text', () => {
  it('with a head in any order, or without, with commas, semicolons or spaces', async () => {
    const three = [
      [1, 2, 3.5],
      [4, 5, 6],
    ]
    expect((await read('a.csv', 'Height,Easting,Northing\n3.5,1,2\n6,4,5')).points).toEqual(three)
    expect((await read('a.csv', 'P1;1;2;3,5\nP2;4;5;6')).points).toEqual(three)
    expect((await read('a.xyz', '1 2 3.5\n4  5\t6\n')).points).toEqual(three)
    expect((await read('a.csv', 'line,x,y,z\nA,0,0,1\nA,5,0,1\n,9,9,2')).lines).toEqual([
      [
        [0, 0, 1],
        [5, 0, 1],
      ],
    ])
  })
  it('says which rows are not numbers, and reads without them on demand', async () => {
    const text = 'x,y,z\n1,2,3\n4,five,6\n7,8,9\n10,11,\n1,1,1'
    await expect(read('levels.csv', text)).rejects.toThrow(
      'In "levels.csv", rows 3, 5 are not numbers: "4, five, 6". Mend them, or read the file without these rows.',
    )
    const rest = await read('levels.csv', text, NO_LOCATION, true)
    expect([rest.points.length, rest.remarks]).toEqual([3, ['2 rows were left out: rows 3, 5.']])
  })
})

describe('coordinates', () => {
  it('of a map lose the lower left corner, which is said', async () => {
    const placed = await readSite(
      'a.csv',
      bytes('432110.5,5812345.25,4\n432160.5,5812345.25,5\n432110.5,5812395.25,6'),
      NO_LOCATION,
    )
    expect(placed.location.zero).toEqual([432100, 5812300, 0])
    expect(placed.read.points[0]).toEqual([10.5, 45.25, 4])
    const later = await readSite('b.csv', bytes('432200,5812400,4\n1,1,1\n2,2,2'), placed.location)
    expect(later.read.points[0]).toEqual([100, 100, 4])
    const own = await readSite('c.csv', bytes('1,2,3\n4,5,6\n7,8,9'), { ...NO_LOCATION, trueNorth: 30 })
    expect(own.read.points[0]).toEqual([1, 2, 3])
  })
  it('in degrees become metres about the place; turned by true north', async () => {
    const at = { ...NO_LOCATION, latitude: 53.5, longitude: 10 }
    const square = JSON.stringify({
      type: 'Feature',
      properties: { name: 'Plot' },
      geometry: {
        type: 'Polygon',
        coordinates: [
          [
            [10, 53.5],
            [10.001, 53.5],
            [10.001, 53.501],
            [10, 53.501],
            [10, 53.5],
          ],
        ],
      },
    })
    const [plot] = (await readSite('plot.geojson', bytes(square), at)).read.outlines
    expect(plot?.points).toHaveLength(4)
    expect(plot?.points[1]?.[0]).toBeCloseTo(66.4, 0)
    expect(plot?.points[2]?.[1]).toBeCloseTo(111.3, 0)
    const [turned] = (await readSite('plot.geojson', bytes(square), { ...at, trueNorth: 90 })).read.outlines
    expect(turned?.points[3]?.[0]).toBeCloseTo(111.3, 0)
  })
  it('in an unknown system are refused with what can be done', async () => {
    const file = JSON.stringify({
      type: 'FeatureCollection',
      crs: { type: 'name', properties: { name: 'urn:ogc:def:crs:EPSG::99999' } },
      features: [{ type: 'Feature', properties: null, geometry: { type: 'Point', coordinates: [1, 2, 3] } }],
    })
    await expect(read('a.geojson', file)).rejects.toThrow('"EPSG:99999", which is not known here. Export it in degrees')
  })
})

describe('other formats', () => {
  it('LandXML: points in its order, breaklines, feet', async () => {
    const xml =
      '<?xml version="1.0"?><LandXML><Units><Metric linearUnit="meter"/></Units><Surfaces><Surface name="s"><SourceData><Breaklines><Breakline><PntList3D>5 0 1 5 10 2</PntList3D></Breakline></Breaklines></SourceData><Definition><Pnts><P id="1">0 0 0</P><P id="2">20 10 1.5</P></Pnts></Definition></Surface></Surfaces></LandXML>'
    const got = await read('g.xml', xml)
    expect(got.points).toEqual([
      [0, 0, 0],
      [10, 20, 1.5],
    ])
    expect(got.lines).toEqual([
      [
        [0, 5, 1],
        [10, 5, 2],
      ],
    ])
    expect(
      (await read('g.xml', xml.replace('<Metric linearUnit="meter"/>', '<Imperial linearUnit="foot"/>')))
        .points[1]?.[2],
    ).toBeCloseTo(0.4572, 9)
    await expect(read('g.xml', '<a></b>')).rejects.toThrow('damaged XML')
    await expect(read('g.xml', '<kml/>')).rejects.toThrow('no LandXML')
  })
  it('DXF: points, lines, closed polylines with a thickness, millimetres', async () => {
    const poly = [
      '0',
      'LWPOLYLINE',
      '8',
      'Sheds',
      '90',
      '4',
      '70',
      '1',
      '39',
      '7500',
      '10',
      '0',
      '20',
      '0',
      '10',
      '10000',
      '20',
      '0',
      '10',
      '10000',
      '20',
      '6000',
      '10',
      '0',
      '20',
      '6000',
    ]
    const text = [
      '0',
      'SECTION',
      '2',
      'HEADER',
      '9',
      '$INSUNITS',
      '70',
      '4',
      '0',
      'ENDSEC',
      '0',
      'SECTION',
      '2',
      'ENTITIES',
      '0',
      'POINT',
      '8',
      '0',
      '10',
      '1000',
      '20',
      '2000',
      '30',
      '3500',
      '0',
      'LINE',
      '8',
      '0',
      '10',
      '0',
      '20',
      '0',
      '30',
      '1000',
      '11',
      '5000',
      '21',
      '0',
      '31',
      '2000',
      ...poly,
      '0',
      'ENDSEC',
      '0',
      'EOF',
    ].join('\n')
    const got = await read('s.dxf', text)
    expect(got.points).toEqual([[1, 2, 3.5]])
    expect(got.lines).toEqual([
      [
        [0, 0, 1],
        [5, 0, 2],
      ],
    ])
    expect(got.outlines).toEqual([
      {
        name: 'Sheds',
        points: [
          [0, 0],
          [10, 0],
          [10, 6],
          [0, 6],
        ],
        height: 7.5,
        base: null,
      },
    ])
    await expect(read('s.dxf', 'binary drawing')).rejects.toThrow('no DXF text')
  })
  it('GeoJSON: outlines with heights, points with heights', async () => {
    const file = JSON.stringify({
      type: 'FeatureCollection',
      crs: { type: 'name', properties: { name: 'EPSG:25832' } },
      features: [
        {
          type: 'Feature',
          properties: { height: '9.5', base: 2 },
          geometry: {
            type: 'Polygon',
            coordinates: [
              [
                [0, 0],
                [8, 0],
                [8, 5],
                [0, 0],
              ],
            ],
          },
        },
        { type: 'Feature', properties: { ele: 4 }, geometry: { type: 'Point', coordinates: [3, 3] } },
        { type: 'Feature', properties: null, geometry: null },
      ],
    })
    const got = await read('n.geojson', file)
    expect(got.outlines[0]).toMatchObject({
      height: 9.5,
      base: 2,
      points: [
        [0, 0],
        [8, 0],
        [8, 5],
      ],
    })
    expect(got.points).toEqual([[3, 3, 4]])
    expect(got.remarks[0]).toContain('Feature 3 was left out')
  })
  it('an ASCII grid and a GeoTIFF of the same ground give the same ground', async () => {
    const asc = await read(
      'g.asc',
      'ncols 3\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 10\nNODATA_value -9999\n1 2 3\n4 5 -9999',
    )
    expect(asc.points).toEqual([
      [5, 15, 1],
      [15, 15, 2],
      [25, 15, 3],
      [5, 5, 4],
      [15, 5, 5],
    ])
    await expect(read('g.asc', 'ncols 2\nnrows 1\ncellsize 1\n1 x')).rejects.toThrow('row 1, column 2 is not a number')
    await expect(read('g.asc', 'ncols 2\nnrows 2\ncellsize 1\n1 2 3')).rejects.toThrow('2 columns and 2 rows make 4')
    const tif = writeArrayBuffer(
      Float32Array.from([1, 2, 3, 4, 5, 6]) as never,
      {
        width: 3,
        height: 2,
        ModelTiepoint: [0, 0, 0, 0, 20, 0],
        ModelPixelScale: [10, 10, 0],
        GTModelTypeGeoKey: 1,
        ProjectedCSTypeGeoKey: 25832,
      } as never,
    ) as ArrayBuffer
    const got = (await readSite('g.tif', new Uint8Array(tif), NO_LOCATION)).read
    expect(got.points.slice(0, 5)).toEqual(asc.points)
  })
  it('what is no such file is refused', async () => {
    await expect(read('photo.psd', 'x')).rejects.toThrow('Choose one of .csv')
    await expect(read('a.csv', '')).rejects.toThrow('is empty')
    await expect(read('g.tif', 'not a tiff')).rejects.toThrow('cannot be read as a GeoTIFF')
  })
})

it('what was read is kept as a survey and becomes ground', async () => {
  const survey = surveyOf(await read('a.csv', 'line,x,y,z\n,0,0,0\n,20,0,0\n,20,20,0\n,0,20,0\nR,2,10,3\nR,18,10,3'))
  const tin = triangulateSurvey(unpackSurvey(packSurvey(survey)))
  expect([tin.points.length / 3, tin.low, tin.high]).toEqual([6, 0, 3])
})
