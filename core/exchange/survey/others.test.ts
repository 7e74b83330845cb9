import { describe, expect, it } from 'vitest'
import { NO_LOCATION } from '../../project'
import { loopArea, type Vec2 } from '../../solid'
import { readSite, type Answers } from './index'

const placed = (name: string, text: string, answers: Answers = {}) =>
  readSite(name, new TextEncoder().encode(text), NO_LOCATION, { answers })
const read = async (name: string, text: string, answers: Answers = {}) => (await placed(name, text, answers)).read
const areaOf = (points: Vec2[] = []) => Math.abs(loopArea(points))

describe('LandXML of another writer', () => {
  const parcel = (geometry: string, points = '') =>
    `<LandXML><Units><Metric linearUnit="meter"/></Units>${points}<Parcels><Parcel name="Plot 7"><CoordGeom>${geometry}</CoordGeom></Parcel></Parcels></LandXML>`
  const line = (a: string, b: string) => `<Line><Start>${a}</Start><End>${b}</End></Line>`
  it('takes the arcs of a parcel as arcs: a half disc on a square, outwards and inwards', async () => {
    const arc = (rot: string) =>
      `<Curve rot="${rot}" crvType="arc" radius="10"><Start>0 20</Start><Center>10 20</Center><End>20 20</End></Curve>`
    const ring = (rot: string) => parcel(line('0 0', '0 20') + arc(rot) + line('20 20', '20 0') + line('20 0', '0 0'))
    expect(areaOf((await read('p.xml', ring('ccw'))).outlines[0]?.points)).toBeCloseTo(400 + 50 * Math.PI, 5)
    expect(areaOf((await read('p.xml', ring('cw'))).outlines[0]?.points)).toBeCloseTo(400 - 50 * Math.PI, 5)
  })
  it('finds the surveyed points that a parcel names, wherever they stand, and says which are missing', async () => {
    const named = ['1', '2', '3'].map(
      (a, i, all) => `<Line><Start pntRef="${a}"/><End pntRef="${all[(i + 1) % 3]}"/></Line>`,
    )
    const known =
      '<CgPoints><CgPoint name="1">0 0 5</CgPoint><CgPoint name="2">0 30</CgPoint><CgPoint name="3">20 0 5</CgPoint></CgPoints>'
    expect(areaOf((await read('p.xml', parcel(named.join(''), known))).outlines[0]?.points)).toBeCloseTo(300, 9)
    const without = await read('p.xml', parcel(named.join(''), known.replace('name="3"', 'name="9"')))
    expect(without.outlines).toEqual([])
    expect(without.remarks).toEqual(['The parcel "Plot 7" was left out: its points 3 are not in the file.'])
  })
})

describe('GeoJSON of another writer', () => {
  const square = (size: number, [x, y]: Vec2 = [0, 0]) => ({
    type: 'Polygon',
    coordinates: [
      [
        [x, y],
        [x + size, y],
        [x + size, y + size],
        [x, y + size],
        [x, y],
      ],
    ],
  })
  const file = (geometry: object, properties: object = {}) =>
    JSON.stringify({ type: 'FeatureCollection', features: [{ type: 'Feature', properties, geometry }] })
  it('in metres without a system is no site of thousands of square kilometres: it is asked', async () => {
    const got = await read('site.geojson', file(square(40)))
    expect(areaOf(got.outlines[0]?.points)).toBeCloseTo(1600, 6)
    expect(got.asks).toMatchObject([{ what: 'system', taken: 'metres' }])
    expect(
      areaOf((await read('site.geojson', file(square(40)), { system: 'degrees' })).outlines[0]?.points),
    ).toBeGreaterThan(1e12)
    const map = await read('site.geojson', file(square(40, [432100, 5812300])))
    expect(map.asks[0]?.options).toEqual([{ value: 'metres', label: 'metres' }])
    expect(areaOf(map.outlines[0]?.points)).toBeCloseTo(1600, 5)
    const degrees = await read('site.geojson', file(square(0.0005, [10, 53])))
    expect(degrees.asks).toEqual([])
  })
  it('gives heights by other names and as text', async () => {
    for (const [properties, height] of [
      [{ height: '12 m' }, 12],
      [{ 'building:height': '40 ft' }, 12.192],
      [{ measuredHeight: '9,5' }, 9.5],
      [{ HOEHE: 7 }, 7],
      [{ Building_Height: 11.25 }, 11.25],
      [{ height: `10' 6"` }, 3.2004],
      [{ height: 'high' }, null],
    ] as [object, number | null][]) {
      const got = (await read('n.geojson', file(square(40), properties))).outlines[0]?.height
      if (height === null) expect(got).toBeNull()
      else expect(got).toBeCloseTo(height, 9)
    }
    expect((await read('n.geojson', file(square(40), { min_height: '3 m' }))).outlines[0]?.base).toBe(3)
  })
  it('takes collections of geometries apart, and says what of them it leaves out', async () => {
    const collection = {
      type: 'GeometryCollection',
      geometries: [square(40), { type: 'Point', coordinates: [1, 1, 4] }],
    }
    const got = await read('c.geojson', file(collection))
    expect([got.outlines.length, got.points.length, got.remarks]).toEqual([1, 1, []])
    const some = await read(
      'c.geojson',
      file({ ...collection, geometries: [...collection.geometries, { type: 'Ball' }] }),
    )
    expect(some.remarks).toEqual(['A part of feature 1 was left out: it is no point, line or polygon.'])
  })
})

it.each([
  [2056, 2600000, 1200000, 46.95108, 7.43864],
  [2154, 652469, 6862035, 48.8566, 2.3522],
  [27700, 538880, 177320, 51.4779, -0.0015],
  [28992, 155000, 463000, 52.15517, 5.3872],
  [3035, 4321000, 3210000, 52, 10],
  [25832, 500000, 5761038.2, 52, 9],
  [4647, 32500000, 5761038.2, 52, 9],
])('EPSG:%i lies where it does on the globe', async (code, x, y, latitude, longitude) => {
  const site = { type: 'Point', coordinates: [x, y, 1] }
  const crs = { type: 'name', properties: { name: `urn:ogc:def:crs:EPSG::${code}` } }
  const { location } = await placed(
    'p.geojson',
    JSON.stringify({ type: 'Feature', crs, properties: null, geometry: site }),
  )
  // The project's zero is the file's corner, rounded down to 100 m.
  expect(location.latitude).toBeCloseTo(latitude, 2)
  expect(location.longitude).toBeCloseTo(longitude, 2)
})
