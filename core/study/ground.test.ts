import { beforeAll, describe, expect, it } from 'vitest'
import { moveMasses } from '../form'
import { addLevel, setStoreyHeight } from '../levels'
import { packSurvey, towardSide, type KeptMeasure, type Picture, type Project, type Site, type Wing } from '../project'
import { silhouetteOf, sectionOf } from '../slice'
import { areaOf, openKernel, type Vec2 } from '../solid'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { compareTrace, ledgerOf, StudyCache, studyScheme, tracedPlan } from './index'

beforeAll(() => openKernel())

const site = (points: Vec2[], setbacks: number[] = [], limit: number | null = null): Site => ({
  limit,
  corners: points.map(([x, y], i) => ({ id: `c${i}`, x, y, setback: setbacks[i] ?? 0, slope: null })),
})
const plot = site(
  [
    [0, 0],
    [22.4, 0],
    [22.4, 35],
    [0, 35],
  ],
  [5.5, 1.8, 6, 1.8],
  9.9,
)
const onPlot = (p: Project, s = plot) => apply(p, { edit: 'project.change', set: { site: s } })

describe('a scheme on its site', () => {
  it("takes the site's area for ratio and coverage", () => {
    const { totals } = studied(onPlot(withMass(projectWith([0, 3]), { box: [2, 6, 10, 10], height: 6 })))
    expect([totals.site, totals.ratio, totals.coverage]).toEqual([
      784,
      expect.closeTo(200 / 784, 9),
      expect.closeTo(100 / 784, 9),
    ])
  })
  it('a top tied to a level that is stacked up from the basement: over, spare, and still over', () => {
    // Basement at -3.20, all stacked up from it; the top of the mass is tied to the level at 10.20.
    let project = onPlot(projectWith([-3.2, 0, 3.4, 6.8, 10.2]))
    project = withMass(project, { name: 'House', box: [1.8, 5.5, 18.8, 20], height: 13.4, upTo: 'L4' })
    const say = (p: Project) => studied(p).ground.fits.get(massNamed(p, 'House').id)
    const height = (p: Project) => say(p)?.limits.find((l) => l.limit === 'height')?.over
    expect(height(project)).toBeCloseTo(0.3, 9)
    expect(say(project)?.over).toBeCloseTo(18.8 * 20 * 0.3, 2)
    expect(studied(project).findings.find((f) => f.kind === 'over the envelope')?.say).toBe(
      'House is over the permitted height by 0.300 m',
    )
    const lower = apply(project, setStoreyHeight(project, schemeOf(project), 'L0', 'L1', 2.75, 'lower'))
    expect(height(lower)).toBeCloseTo(-0.15, 9)
    expect(studied(lower).findings.filter((f) => f.kind === 'over the envelope')).toEqual([])
    const ground = apply(project, setStoreyHeight(project, schemeOf(project), 'L0', 'L1', 2.75, 'upper'))
    expect(height(ground)).toBeCloseTo(0.3, 9)
  })
  it('a mass is placed by its distance to a side; the others show without measuring', () => {
    const project = onPlot(withMass(projectWith([0]), { name: 'Hut', box: [5, 10, 8, 6], height: 3 }))
    const before = studied(project)
    const hut = massNamed(project, 'Hut').id
    expect(before.ground.fits.get(hut)?.clear).toEqual([10, 9.4, 19, 5])
    const { envelope } = before.ground
    if (!envelope) throw new Error('no envelope')
    const moved = apply(project, moveMasses(project, schemeOf(project), [hut], towardSide(envelope, 1, 9.4, 1.8)))
    expect(studied(moved).ground.fits.get(hut)?.clear).toEqual([10, 1.8, 19, 12.6])
  })
  it('a mass turned in a slanted site is measured to its nearest corner', () => {
    const project = onPlot(
      withMass(projectWith([0]), { name: 'Hut', box: [10, 10, 4, 4], height: 3 }, (m) => ({
        ...m,
        place: { ...m.place, turn: 45 },
      })),
      site([
        [0, 0],
        [28, 0],
        [31, 19],
        [2, 22],
      ]),
    )
    expect(studied(project).ground.fits.get(massNamed(project, 'Hut').id)?.clear[0]).toBeCloseTo(10, 3)
  })
})

it('heights above ground go by the lowest, mean and highest ground along the foot', () => {
  const bytes = packSurvey({ points: Float64Array.from([0, 0, 0, 40, 0, 4, 40, 40, 4, 0, 40, 0]), lines: [] })
  const hash = 'b'.repeat(64)
  const project = apply(
    withMass(projectWith([0]), { name: 'House', box: [10, 10, 10, 20], height: 9 }),
    { edit: 'project.change', set: { terrain: { kind: 'survey', asset: hash, name: 'survey', points: 4, lines: 0 } } },
    {
      edit: 'neighbour.add',
      thing: {
        id: 'n1',
        name: 'Shed',
        order: 0,
        outline: [
          [30, 10],
          [36, 10],
          [36, 16],
          [30, 16],
        ],
        base: null,
        height: 5,
      },
    },
  )
  const cache = new StudyCache()
  const study = studyScheme(project, schemeOf(project).id, cache, (h) => (h === hash ? bytes : null))
  const foot = study.ground.feet.get(massNamed(project, 'House').id)
  expect([foot?.lowest, foot?.mean, foot?.highest].map((v) => Number(v?.toFixed(4)))).toEqual([1, 1.5, 2])
  expect(foot?.above.mean).toBeCloseTo(7.5, 4)
  expect(study.ground.neighbours[0]).toMatchObject({ base: expect.closeTo(3.3, 9), top: expect.closeTo(8.3, 9) })
  expect(study.totals.area).toBe(200)
  // Without the asset at hand it says so, and the figures stand all the same.
  expect(studied(project).ground.missing).toBe(true)
})

describe('wings', () => {
  const wing = (id: string, order: number, x0: number, x1: number): Wing => ({
    id,
    name: id.toUpperCase(),
    order,
    outline: [
      [x0, -50],
      [x1, -50],
      [x1, 50],
      [x0, 50],
    ],
  })
  const withWings = (p: Project) =>
    apply(
      p,
      ...[wing('a', 0, -50, 10), wing('b', 1, 10, 50)].map((thing) => ({
        edit: 'wing.add' as const,
        scheme: schemeOf(p).id,
        thing,
      })),
    )
  it('areas by level and wing; a mass that spans two counts once, in the one that holds most of its plan', () => {
    const project = withWings(
      withMass(withMass(projectWith([0, 3]), { name: 'Left', box: [0, 0, 8, 10], height: 6 }), {
        name: 'Span',
        box: [6, 20, 10, 10],
        height: 3,
      }),
    )
    const { wings } = ledgerOf(studied(project))
    expect(wings.map((w) => [w.name, w.total, w.areas.L1 ?? 0])).toEqual([
      ['A', 160, 80],
      ['B', 100, 0],
    ])
    const told = changeMass(project, 'Span', { wing: 'a' })
    expect(ledgerOf(studied(told)).wings.map((w) => w.total)).toEqual([260, 0])
  })
  it('add up to the total where masses overlap, and list what lies in none', () => {
    const project = withWings(
      withMass(
        withMass(withMass(projectWith([0]), { name: 'P', box: [0, 0, 9, 10], height: 3 }), {
          name: 'Q',
          box: [7, 0, 20, 10],
          height: 3,
        }),
        { name: 'Far', box: [100, 0, 5, 5], height: 3 },
      ),
    )
    const study = studied(project)
    const { wings } = ledgerOf(study)
    expect(wings.map((w) => w.name)).toEqual(['A', 'B', 'in no wing'])
    expect(wings.reduce((sum, w) => sum + w.total, 0)).toBeCloseTo(study.totals.area, 6)
  })
  it('a wing in use cannot go', () => {
    const project = changeMass(
      withWings(withMass(projectWith([0]), { name: 'P', box: [0, 0, 9, 10], height: 3 })),
      'P',
      { wing: 'a' },
    )
    expect(() => apply(project, { edit: 'wing.remove', scheme: schemeOf(project).id, id: 'a' })).toThrow(
      'belongs to a wing that is not there',
    )
  })
})

describe('pictures and the model', () => {
  const picture = (id: string, length: number, stands: Picture['stands']): Picture => ({
    id,
    name: id,
    order: 0,
    asset: 'c'.repeat(64),
    type: 'image/png',
    width: 400,
    height: 400,
    crop: null,
    turn: 0,
    opacity: 1,
    locked: false,
    pairs: [{ id: 'p', a: [0, 0], b: [100, 0], length, lies: 'anyhow' }],
    pin: { px: [0, 400], to: { kind: 'point', x: 0, y: 0, z: 0 } },
    stands,
  })
  const base = () => withMass(projectWith([0, 3]), { name: 'House', box: [0, 0, 10, 6], height: 6 })
  it('two of one thing that disagree are a finding with the percentage', () => {
    const measure = (id: string, on: string, same: string | null): KeptMeasure => ({
      id,
      name: `width ${id}`,
      order: 0,
      kind: 'distance',
      picture: on,
      points: [
        [0, 0],
        [200, 0],
      ],
      same,
    })
    const project = apply(
      base(),
      { edit: 'picture.add', thing: picture('plan', 10, []) },
      { edit: 'picture.add', thing: picture('photo', 10.4, []) },
      { edit: 'measure.add', thing: measure('one', 'plan', null) },
      { edit: 'measure.add', thing: measure('two', 'photo', 'one') },
    )
    expect(studied(project).findings.find((f) => f.kind === 'pictures disagree')?.say).toBe(
      'width two on photo is 4.0 % more than width one on plan',
    )
  })
  it('a trace is compared with the plan and with the elevation that its picture is laid in, in millimetres', () => {
    const trace = (points: Vec2[]) => ({
      edit: 'trace.add' as const,
      thing: {
        id: 't',
        name: 'traced',
        order: 0,
        picture: 'pic',
        closed: true,
        loops: [{ points, bulges: points.map(() => 0) }],
      },
    })
    const traced: Vec2[] = [
      [0, 400],
      [100, 400],
      [100, 340.2],
      [0, 340.2],
    ]
    const inPlan = apply(
      base(),
      {
        edit: 'picture.add',
        thing: picture('pic', 10, [
          { id: 's', lies: { kind: 'plan', level: 'L1', above: 0 }, shown: true, front: false },
        ]),
      },
      trace(traced),
    )
    expect(compareTrace(studied(inPlan), 't')).toMatchObject({
      greatest: expect.closeTo(0.02, 6),
      view: 'the floor of Level 1',
    })
    expect(tracedPlan(studied(inPlan), 't')[0]?.points[2]).toEqual([10, 5.98])
    const south = apply(
      base(),
      {
        edit: 'picture.add',
        thing: picture('pic', 10, [
          { id: 's', lies: { kind: 'upright', azimuth: -90, toward: 0 }, shown: true, front: false },
        ]),
      },
      trace(traced),
    )
    expect(compareTrace(studied(south), 't').greatest).toBeCloseTo(0.02, 6)
    expect(() => tracedPlan(studied(south), 't')).toThrow('not laid in plan')
  })
})

it('a form is cut by an upright plane, and seen from a side', () => {
  const form = studied(
    withMass(projectWith([0]), {
      points: [
        [0, 0],
        [20, 0],
        [20, 8],
        [8, 8],
        [8, 18],
        [0, 18],
      ],
      height: 5,
    }),
  ).forms[0]
  if (!form) throw new Error('no form')
  expect(areaOf(sectionOf(form, { azimuth: -90, toward: -4 }))).toBeCloseTo(20 * 5, 6)
  expect(areaOf(sectionOf(form, { azimuth: -90, toward: -12 }))).toBeCloseTo(8 * 5, 6)
  expect(areaOf(silhouetteOf(form, -90))).toBeCloseTo(20 * 5, 4)
  expect(areaOf(silhouetteOf(form, 0))).toBeCloseTo(18 * 5, 4)
})

it("a level named in another one's height is a level like any other", () => {
  const project = projectWith([0, 3])
  const added = apply(
    project,
    addLevel(schemeOf(project), minter('m'), {
      name: 'Ceiling',
      kind: 'mark',
      on: 'L1',
      above: { formula: '{L1} - 3.3 m' },
    }),
  )
  expect(studied(added).levels.find((l) => l.name === 'Ceiling')?.height).toBeCloseTo(2.7, 9)
})
