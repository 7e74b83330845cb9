import { describe, expect, it } from 'vitest'
import { NO_LOCATION } from '../../project'
import { tiffOf, type TestImage } from '../../testing/tiff'
import { readSite, type Answers } from './index'

const read = async (images: TestImage[], answers: Answers = {}) =>
  (await readSite('ground.tif', tiffOf(images), NO_LOCATION, { answers })).read
const GROUND: TestImage = { width: 2, height: 2, bands: [[1, 2, 3, 4]], keys: { 1024: 1, 3072: 25832 } }
const heights = async (images: TestImage[], answers: Answers = {}) =>
  (await read(images, answers)).points.map((p) => p[2])

describe('a GeoTIFF by another writer', () => {
  it('of one band is the ground, north up', async () => {
    const { points, asks, remarks, system } = await read([GROUND])
    expect(points).toEqual([
      [5, 15, 1],
      [15, 15, 2],
      [5, 5, 3],
      [15, 5, 4],
    ])
    expect([asks, remarks, system]).toEqual([[], [], 'EPSG:25832'])
  })
  it('in colours is refused: a picture is no ground', async () => {
    const bytes: TestImage = { ...GROUND, kind: 'bytes', photometric: 2 }
    const colours = [GROUND.bands[0], GROUND.bands[0], GROUND.bands[0]] as number[][]
    await expect(read([{ ...bytes, bands: colours }])).rejects.toThrow('is a picture in colours (red, green and blue)')
    await expect(read([{ ...bytes, bands: [...colours, [255, 255, 255, 255]] }])).rejects.toThrow('not heights')
    await expect(read([{ ...bytes, photometric: 3 }])).rejects.toThrow('a palette')
    const grey = await read([{ ...bytes, photometric: 1 }])
    expect(grey.remarks).toEqual([expect.stringContaining('from 0 to 255')])
  })
  it('of several bands asks which one, and offers the one that is named for heights', async () => {
    const two = { ...GROUND, bands: [[9, 9, 9, 9], GROUND.bands[0] as number[]] }
    const first = await read([two])
    expect(first.asks).toMatchObject([{ what: 'band', say: 'The file has 2 bands', taken: '1' }])
    expect(await heights([two], { band: '2' })).toEqual([1, 2, 3, 4])
    const metadata =
      '<GDALMetadata><Item name="DESCRIPTION" sample="0">slope</Item><Item name="DESCRIPTION" sample="1">elevation</Item></GDALMetadata>'
    const named = await read([{ ...two, metadata }])
    expect(named.asks[0]?.options.map((o) => o.label)).toEqual(['band 1, slope', 'band 2, elevation'])
    expect(named.points.map((p) => p[2])).toEqual([1, 2, 3, 4])
  })
  it('with a mask has no height where the mask leaves a cell out; overviews are passed over', async () => {
    const mask: TestImage = { ...GROUND, kind: 'bytes', photometric: 4, subfile: 4, bands: [[255, 0, 255, 255]] }
    const overview: TestImage = { ...GROUND, width: 1, height: 1, subfile: 1, bands: [[99]] }
    expect(await heights([GROUND, overview, mask])).toEqual([1, 3, 4])
    expect(await heights([overview, GROUND, mask])).toEqual([1, 3, 4])
  })
  it('with heights in feet is in metres, whichever way it says so; its plan too, where only that is in feet', async () => {
    const feet = [0.3048, 0.6096, 0.9144, 1.2192]
    const survey = feet.map((f) => (f / 0.3048) * (1200 / 3937))
    const cases: [Partial<TestImage>, number[]][] = [
      [{ keys: { 1024: 1, 3072: 25832, 4099: 9002 } }, feet],
      [{ keys: { 1024: 1, 3072: 25832, 4099: 9003 } }, survey],
      [{ keys: { 1024: 1, 3072: 25832, 4096: 6360 } }, survey],
      [{ metadata: '<GDALMetadata><Item name="UNITTYPE" sample="0" role="unittype">ft</Item></GDALMetadata>' }, feet],
      [
        { metadata: '<GDALMetadata><Item name="UNITTYPE" sample="0" role="unittype">m</Item></GDALMetadata>' },
        [1, 2, 3, 4],
      ],
    ]
    for (const [more, wanted] of cases) {
      const got = await heights([{ ...GROUND, ...more }])
      got.forEach((z, i) => expect(z).toBeCloseTo(wanted[i] ?? NaN, 6))
    }
    const plan = await read([{ ...GROUND, keys: { 1024: 1, 3072: 32767, 3076: 9002 } }])
    expect(plan.points[0]?.[0]).toBeCloseTo(5 * 0.3048, 6)
    expect(plan.remarks[0]).toContain('coordinate system of its own')
  })
})
