import Delaunator from 'delaunator'
import { applyEdit, type Edit } from '@geotome/core/edits'
import { moveMasses } from '@geotome/core/form'
import {
  contoursOf,
  groundAlong,
  inOrder,
  packSurvey,
  traceSketch,
  triangulateSurvey,
  unpackSurvey,
  type Project,
  type Survey,
} from '@geotome/core/project'
import { firstScheme, StudyCache, studyScheme } from '@geotome/core/study'
import { chance, Sheet } from '../../demo/raster'
import { town } from './projects'

type Row = (what: string, ms: number, bareMs: number | null, whole: number | null) => void
type Best = (times: number, work: () => void) => number

/** Terrain of 100,000 points beside the bare triangulation; the envelope of 200 masses; the trace of a scan. */
export async function benchGround(row: Row, best: Best): Promise<void> {
  const survey = bigSurvey()
  const flat = Float64Array.from(
    { length: (survey.points.length / 3) * 2 },
    (_, i) => survey.points[Math.floor(i / 2) * 3 + (i % 2)] ?? 0,
  )
  row(
    'terrain: 100,000 points, 4,000 pieces of lines (bare: the points alone)',
    best(2, () => {
      triangulateSurvey(survey)
    }),
    best(2, () => {
      new Delaunator(flat)
    }),
    null,
  )
  const bytes = packSurvey(survey)
  row(
    '  read from its asset',
    best(3, () => {
      unpackSurvey(bytes)
    }),
    null,
    null,
  )
  const tin = triangulateSurvey(survey)
  row(
    '  contours',
    best(3, () => {
      contoursOf(tin, 0.5)
    }),
    null,
    null,
  )
  row(
    '  ground along 200 feet of 60 m',
    best(3, () => {
      for (let i = 0; i < 200; i++)
        groundAlong(tin, [
          [
            [i, 10],
            [i + 20, 10],
            [i + 20, 20],
            [i, 20],
          ],
        ])
    }),
    null,
    null,
  )

  const plain = town(200, 10)
  const site: Edit = {
    edit: 'project.change',
    set: {
      site: {
        limit: 24,
        corners: [
          [-50, -50],
          [900, -50],
          [900, 900],
          [-50, 900],
        ].map(([x = 0, y = 0], i) => ({ id: `c${i}`, x, y, setback: 5, slope: null })),
      },
    },
  }
  const project: Project = applyEdit(plain, site).project
  const id = firstScheme(project).id
  const without = best(2, () => {
    studyScheme(plain, id, new StudyCache())
  })
  row(
    'cold: 200 masses in an envelope (bare: without one)',
    best(2, () => {
      studyScheme(project, id, new StudyCache())
    }),
    without,
    null,
  )
  const cache = new StudyCache()
  studyScheme(project, id, cache)
  const house = inOrder(firstScheme(project).masses)[77]?.id ?? ''
  let n = 0
  row(
    '  one mass moved',
    best(4, () => {
      studyScheme(
        applyEdit(project, moveMasses(project, firstScheme(project), [house], [0.1 * ++n, 0])).project,
        id,
        cache,
      )
    }),
    null,
    null,
  )

  const scan = new Sheet(2480, 3508)
    .loop(
      [
        [500, 900],
        [1972, 900],
        [1972, 1700],
        [500, 1700],
      ],
      6,
    )
    .specks(3000)
    .shade(40, 30)
    .rgba()
  await traceSketch(scan, { within: 5, smallest: 400 })
  const started = performance.now()
  await traceSketch(scan, { within: 5, smallest: 400 })
  row('trace of an A4 scan at 300 dpi', performance.now() - started, null, null)
}

function bigSurvey(): Survey {
  const next = chance(5)
  const points: number[] = []
  for (let i = 0; i < 96000; i++) {
    const [x, y] = [next() * 1000, next() * 1000]
    points.push(x, y, 5 * Math.sin(x / 80) + y / 100)
  }
  const lines = Array.from({ length: 40 }, (_, l) =>
    Uint32Array.from({ length: 101 }, (_x, i) => {
      const [x, y] = [10 * i - 0.5 + l * 0.01, 25 * l + 3 * Math.sin(i / 5)]
      points.push(x, y, 5 * Math.sin(x / 80) + y / 100)
      return points.length / 3 - 1
    }),
  )
  return { points: Float64Array.from(points), lines }
}
