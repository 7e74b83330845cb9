import { beforeAll, describe, expect, it } from 'vitest'
import { packSurvey, type Picture, type Project, type Site } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { NO_ASSETS, StudyCache, studyScheme } from '@geotome/core/study'
import { moveLevel } from '@geotome/core/levels'
import { apply, projectWith, schemeOf, withMass } from '../../../core/testing/make'
import type { Ask } from './protocol'
import { forget, nothingSent, viewOf } from './view'

beforeAll(() => openKernel())

const hash = 'd'.repeat(64)
/** A page as the worker sees it, with or without the survey at hand. */
function page(survey: Uint8Array | null = null) {
  const [cache, sent] = [new StudyCache(), nothingSent()]
  return (project: Project, section: Ask['section'] = null) => {
    const ask: Ask = { scheme: schemeOf(project).id, preview: null, compare: null, proposal: null, section }
    const view = viewOf(studyScheme(project, ask.scheme, cache, survey ? () => survey : NO_ASSETS), ask, sent, 0)
    forget(view, sent)
    return view
  }
}
const site = (limit: number | null): Site => ({
  limit,
  corners: [
    [0, 0],
    [40, 0],
    [40, 30],
    [0, 30],
  ].map(([x = 0, y = 0], i) => ({ id: `c${i}`, x, y, setback: 3, slope: null })),
})
const house = (limit: number | null = 5) =>
  apply(withMass(projectWith([0, 3]), { name: 'House', box: [5, 5, 10, 8], height: 6 }), {
    edit: 'project.change',
    set: { site: site(limit) },
  })

describe('the ground that is sent to the page', () => {
  it('draws the envelope and what is over it once; again only when one of the two has changed', () => {
    const show = page()
    const first = show(house())
    expect(first.ground.envelope?.area).toBeCloseTo(34 * 24, 3)
    const fit = Object.values(first.ground.fits)[0]
    expect(fit?.over).toBeCloseTo(80, 3)
    expect(first.geometry.map((g) => g.key)).toEqual(expect.arrayContaining([first.ground.envelope?.mesh, fit?.mesh]))
    expect(show(apply(house(), { edit: 'project.change', set: { name: 'Other' } })).geometry).toHaveLength(2)
    const show2 = page()
    const project = house()
    show2(project)
    expect(show2(apply(project, { edit: 'project.change', set: { name: 'Other' } })).geometry).toEqual([])
    expect(show2(apply(project, moveLevel(project, schemeOf(project), 'L1', 3.2, 'held'))).geometry).toEqual([])
  })
  it('has no body of the envelope where nothing bounds it upwards, and the area all the same', () => {
    const { envelope } = page()(house(null)).ground
    expect([envelope?.mesh, envelope?.area]).toEqual([null, expect.closeTo(816, 3)])
  })
  it('shares the corners of terrain among its triangles, with contours for edges; without the survey it says so', () => {
    const project = apply(house(), {
      edit: 'project.change',
      set: { terrain: { kind: 'survey', asset: hash, name: 's', points: 4, lines: 0 } },
    })
    const view = page(packSurvey({ points: Float64Array.from([0, 0, 0, 40, 0, 4, 40, 30, 4, 0, 30, 0]), lines: [] }))(
      project,
    )
    const ground = view.geometry.find((g) => g.key === view.ground.terrain?.mesh)
    expect([ground?.positions.length, ground?.index?.length, (ground?.edges.length ?? 0) % 6]).toEqual([12, 6, 0])
    // The boundary lies on it: at its corners, and where it crosses the triangles' sides.
    const line = view.geometry.find((g) => g.key === view.ground.site?.line)?.edges ?? new Float32Array()
    for (let i = 0; i < line.length; i += 3)
      expect(line[i + 2]).toBeCloseTo(((line[i] ?? 0) + view.origin[0]) / 10 + 0.03, 4)
    expect(line.length / 6).toBeGreaterThanOrEqual(4)
    expect(view.ground.missing).toBe(false)
    expect(page()(project).ground).toMatchObject({ missing: true, terrain: null })
  })
  it('thins a large survey for drawing, and keeps its figures', () => {
    const points = Float64Array.from({ length: 60_000 * 3 }, (_, i) =>
      i % 3 === 0 ? Math.floor(i / 3) % 300 : i % 3 === 1 ? Math.floor(i / 900) : Math.sin(i) * 0.1,
    )
    const view = page(packSurvey({ points, lines: [] }))(
      apply(house(), {
        edit: 'project.change',
        set: { terrain: { kind: 'survey', asset: hash, name: 's', points: 60_000, lines: 0 } },
      }),
    )
    expect(view.ground.terrain?.points).toBe(60_000)
    expect(view.geometry.find((g) => g.key === view.ground.terrain?.mesh)?.positions.length).toBeLessThan(40_000 * 3)
  })
})

it('the envelope stays one thing while its numbers do, whatever else changes, and follows a formula', () => {
  const cache = new StudyCache()
  const envelopeIn = (project: Project) => studyScheme(project, schemeOf(project).id, cache).ground.envelope
  const dial = {
    id: 'set',
    name: 'strip',
    order: 0,
    quantity: 'length' as const,
    value: 3,
    least: null,
    most: null,
    step: null,
  }
  const s = site(5)
  const project = apply(
    house(),
    { edit: 'project-dial.add', thing: dial },
    {
      edit: 'project.change',
      set: { site: { ...s, corners: s.corners.map((c) => ({ ...c, setback: { formula: '{set}' } })) } },
    },
  )
  const first = envelopeIn(project)
  expect(envelopeIn(apply(project, moveLevel(project, schemeOf(project), 'L1', 3.2, 'held')))).toBe(first)
  const wider = envelopeIn(apply(project, { edit: 'project-dial.change', id: 'set', set: { value: 5 } }))
  expect(wider).not.toBe(first)
  expect(wider?.area).toBeCloseTo(30 * 20, 3)
})

describe('what else of the ground is drawn', () => {
  it("an upright cut, along its plane from the view's origin, at map coordinates too", () => {
    const near = page()(house(), { azimuth: -90, toward: -9 }).section
    expect(near?.regions.map((r) => r.area)).toEqual([expect.closeTo(60, 6)])
    const far = page()(withMass(projectWith([0, 3]), { name: 'Far', box: [350000, 5600000, 10, 8], height: 6 }), {
      azimuth: -90,
      toward: -5600004,
    }).section
    expect(far?.regions[0]?.area).toBeCloseTo(60, 3)
    expect(Math.max(...(far?.regions[0]?.region.flat(2) ?? []))).toBeLessThan(100)
    expect(page()(house()).section).toBeNull()
  })
  it('pictures where they are laid, those that are shown, with what their crop leaves', () => {
    const stand = (id: string, shown: boolean, lies: Picture['stands'][number]['lies']) => ({
      id,
      shown,
      front: false,
      lies,
    })
    const thing: Picture = {
      id: 'p',
      name: 'p',
      order: 0,
      asset: 'e'.repeat(64),
      type: 'image/png',
      width: 200,
      height: 100,
      crop: [50, 0, 150, 100],
      turn: 0,
      opacity: 1,
      locked: false,
      pairs: [{ id: 'q', a: [0, 0], b: [100, 0], length: 10, lies: 'level' }],
      pin: { px: [0, 100], to: { kind: 'point', x: 0, y: 0, z: 0 } },
      stands: [
        stand('plan', true, { kind: 'plan', level: 'L1', above: 0 }),
        stand('south', true, { kind: 'upright', azimuth: -90, toward: 2 }),
        stand('off', false, { kind: 'plan', level: null, above: 0 }),
      ],
    }
    const [plan, south, ...more] = page()(apply(house(), { edit: 'picture.add', thing })).pictures
    expect(more).toEqual([])
    expect(plan?.shown.map((c) => c.map((v) => Number(v.toFixed(6))))).toEqual([
      [5, 10, 3],
      [15, 10, 3],
      [15, 0, 3],
      [5, 0, 3],
    ])
    expect(plan?.part).toEqual([0.25, 0, 0.75, 1])
    expect([south?.upright, south?.shown[0]?.map((v) => Number(v.toFixed(6)))]).toEqual([-90, [5, -2, 10]])
  })
})
