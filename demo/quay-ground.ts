import { createHash } from 'node:crypto'
import { mkdir, rm, writeFile } from 'node:fs/promises'
import { batch, type SingleEdit } from '@geotome/core/edits'
import { surveyOf } from '@geotome/core/exchange'
import { packSurvey } from '@geotome/core/project'
import { type Vec2, type Vec3 } from '@geotome/core/solid'
import { madeUpGround } from '../server/src/stand-ins/made-up-ground'
import { inkSketch, sectionPicture } from './pictures'
import { chance } from './raster'

import { levelNamed, change, mint } from './quay-work'

/** The ground: surveyed points with the quay's edge as a breakline, the site with its setbacks and limits, what stands around, pictures. */
export async function layGround(): Promise<void> {
  // The ground: surveyed points with the quay's edge as a breakline, the site with its setbacks and limits, what stands around.
  const assets = new URL('./assets/', import.meta.url)
  await rm(assets, { recursive: true, force: true })
  await mkdir(assets, { recursive: true })
  const store = async (bytes: Uint8Array): Promise<string> => {
    const hash = createHash('sha256').update(bytes).digest('hex')
    await writeFile(new URL(hash, assets), bytes)
    return hash
  }
  const next = chance(11)
  const round = (v: number) => Math.round(v * 1000) / 1000
  const points: Vec3[] = Array.from({ length: 1600 }, () => {
    const [x, y] = [-48 + next() * 178, -34 + next() * 118] as const
    return [round(x), round(y), round(madeUpGround(x, y))]
  })
  const edge = Array.from({ length: 45 }, (_, i): Vec3 => {
    const x = -48 + i * 4
    return [x, -6, round(madeUpGround(x, -6))]
  })
  const survey = surveyOf({ points, lines: [edge] })
  const terrain = await store(packSurvey(survey))
  const boundary: [number, number, number, { from: number; angle: number } | null][] = [
    [-26, -4, 3, null],
    [101, -4, 3, null],
    [104, 52, 5, { from: 20, angle: 70 }],
    [-24, 55, 3, null],
  ]
  change({
    edit: 'project.change',
    set: {
      facts: {
        number: 'KQ-07',
        client: 'Kiln Quay Housing Cooperative',
        address: '7 Kiln Quay, Easthaven',
        stage: 'massing study',
        author: 'A. Marlow',
        custom: [{ id: 'plot', name: 'plot', text: 'E 14' }],
      },
      location: {
        latitude: 53.5461,
        longitude: 9.9937,
        timeZone: 'Europe/Berlin',
        trueNorth: 12,
        zero: null,
        system: null,
      },
      site: { limit: 36, corners: boundary.map(([x, y, setback, slope]) => ({ id: mint(), x, y, setback, slope })) },
      terrain: {
        kind: 'survey',
        asset: terrain,
        name: 'survey of the quay',
        points: points.length + edge.length,
        lines: 1,
      },
    },
  })
  const around: [string, number, Vec2[]][] = [
    [
      'Rope works',
      9,
      [
        [-6, 62],
        [40, 61],
        [40, 74],
        [-6, 75],
      ],
    ],
    [
      'Customs house',
      14,
      [
        [52, 60],
        [82, 59],
        [83, 73],
        [53, 74],
      ],
    ],
    [
      'Kiln',
      17,
      [
        [-44, 20],
        [-33, 20],
        [-33, 31],
        [-44, 31],
      ],
    ],
    [
      'Boat store',
      7,
      [
        [112, 12],
        [124, 12],
        [124, 44],
        [112, 44],
      ],
    ],
  ]
  change(
    batch(
      around.map(([name, height, outline], order): SingleEdit => ({
        edit: 'neighbour.add',
        thing: { id: mint(), name, order, outline, base: null, height },
      })),
    ),
  )

  // Pictures: the ink sketch lies in plan under the forms, the section stands before the south; both are calibrated.
  const sketch = inkSketch()
  const section = sectionPicture([0, 5.4, 8.55, 11.7, 14.85])
  const sketchId = mint()
  change({
    edit: 'picture.add',
    thing: {
      id: sketchId,
      name: 'Ink sketch',
      order: 0,
      asset: await store(sketch.sheet.png()),
      type: 'image/png',
      width: sketch.sheet.width,
      height: sketch.sheet.height,
      crop: null,
      turn: 0,
      opacity: 0.7,
      locked: false,
      pairs: [{ id: mint(), a: sketch.bar[0], b: sketch.bar[1], length: 20, lies: 'level' }],
      pin: { px: sketch.pin, to: { kind: 'point', x: 0, y: 0, z: 0 } },
      stands: [{ id: mint(), lies: { kind: 'plan', level: levelNamed('Quay'), above: 0 }, shown: false, front: false }],
    },
  })
  const sectionId = mint()
  change({
    edit: 'picture.add',
    thing: {
      id: sectionId,
      name: 'Section of the bar',
      order: 1,
      asset: await store(section.sheet.png()),
      type: 'image/png',
      width: section.sheet.width,
      height: section.sheet.height,
      crop: null,
      turn: 0,
      opacity: 1,
      locked: false,
      pairs: [{ id: mint(), a: section.bar[0], b: section.bar[1], length: 10, lies: 'plumb' }],
      pin: { px: section.zero, to: { kind: 'point', x: 72, y: 30, z: 0 } },
      stands: [{ id: mint(), lies: { kind: 'upright', azimuth: 0, toward: 40 }, shown: false, front: false }],
    },
  })
  change({
    edit: 'measure.add',
    thing: {
      id: mint(),
      name: 'bar_depth',
      order: 0,
      kind: 'distance',
      picture: sectionId,
      points: [section.zero, [section.zero[0] + 14.4 * 26, section.zero[1]]],
      same: null,
    },
  })
}
