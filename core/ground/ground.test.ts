import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { numbersOf, type Project, type Site } from '../project'
import { areaOf, openKernel, type Vec2 } from '../solid'
import { apply, projectWith, standingPlan, studied, withMass } from '../testing/make'
import {
  buildable,
  checkSite,
  envelopeOf,
  fitOf,
  planFit,
  readCorners,
  readLegs,
  siteFigures,
  towardSide,
  walk,
} from './index'

beforeAll(() => openKernel())

const numbers = numbersOf(projectWith([0]), null)
const siteOf = (points: Vec2[], more: Partial<Site> = {}, setbacks: number[] = []): Site => ({
  corners: points.map(([x, y], i) => ({ id: `c${i}`, x, y, setback: setbacks[i] ?? 0, slope: null })),
  limit: null,
  ...more,
})
const fixed = (values: number[], digits = 3) => values.map((v) => Number(v.toFixed(digits)))

describe('a site', () => {
  it('lists its area, sides and angles', () => {
    const { area, sides } = siteFigures([
      [0, 0],
      [28, 0],
      [31, 19],
      [2, 22],
    ])
    expect(area).toBeCloseTo(588, 9)
    expect(fixed(sides.map((s) => s.length))).toEqual([28, 19.235, 29.155, 22.091])
    expect(sides.reduce((sum, s) => sum + s.angle, 0)).toBeCloseTo(360, 6)
    expect(sides[0]?.bearing).toBe(90)
  })
  it('by lengths and directions closes itself', () => {
    const legs = readLegs('9.4 east; 5.6 north; 3.7 west; 1.6 north; 3.6 west; 1.1 north; 2.1 west', Number)
    const { closing, area, perimeter } = walk([0, 0], legs)
    expect([closing?.bearing, closing?.length]).toEqual([180, 8.3])
    expect(fixed([area, perimeter], 2)).toEqual([64.07, 35.4])
    expect(readLegs('east 9.4, north 5.6, west 3.7, north 1.6, west 3.6, north 1.1, west 2.1', Number)).toEqual(legs)
    expect(readLegs('9.4, east\n5.6, 0°', Number)).toEqual(legs.slice(0, 2))
  })
  it('reads corners however they are written, and says which line is none', () => {
    const ring = [
      [0, 0],
      [28, 0],
      [31.5, 19],
    ]
    for (const text of [
      '0, 0\n28, 0\n31.5, 19',
      '0 0\n28 0\n31.5 19',
      '(0; 0), (28; 0), (31.5; 19)',
      '0\t0\n28\t0\n\n31.5\t19',
    ])
      expect(readCorners(text, Number)).toEqual(ring)
    expect(() => readCorners('0, 0\n28\n31, 19', Number)).toThrow('Line 2, "28", is no point.')
    expect(() => readCorners('0, 0\n28, 0', Number)).toThrow('2 corners are typed.')
  })
  it('takes bearings, quadrants and turns as the same directions', () => {
    const same = (text: string) => walk([0, 0], readLegs(text, Number)).points.map((p) => fixed(p, 6))
    const square = same('10 east\n10 north\n10 west')
    expect(same('10 90°\n10 0\n10 270')).toEqual(square)
    expect(same('10 N 90 E\n10 left 90\n10 left 90')).toEqual(square)
    expect(same("10 89°60'; 10 N 0 E; 10 S 90 W")).toEqual(square)
    expect(() => readLegs('10 sideways', Number)).toThrow('Leg 1')
    expect(() => readLegs('10 left 90', Number)).toThrow('no leg before it')
  })
  it('is refused with what is wrong: crossing itself, two corners at one place, too few', () => {
    const check = (points: Vec2[]) => () => checkSite(siteOf(points), numbers)
    expect(
      check([
        [0, 0],
        [10, 10],
        [10, 0],
        [0, 10],
      ]),
    ).toThrow('crosses itself: side 1 meets side 3')
    expect(
      check([
        [0, 0],
        [10, 0],
        [10, 0],
        [0, 10],
      ]),
    ).toThrow('Corners 2 and 3 of the site lie at one place')
    expect(
      check([
        [0, 0],
        [10, 0],
      ]),
    ).toThrow('at least three corners')
  })
})

describe('setbacks', () => {
  it('leave a rectangle in a rectangle', () => {
    expect(
      areaOf(
        buildable(
          [
            [0, 0],
            [22.4, 0],
            [22.4, 35],
            [0, 35],
          ],
          [5.5, 1.8, 6, 1.8],
        ),
      ),
    ).toBeCloseTo(441.8, 3)
  })
  it('meet in their mitre, at corners that look in too, and leave nothing where they are too wide', () => {
    // An L: the inner corner's strips meet as its walls do.
    const l: Vec2[] = [
      [0, 0],
      [20, 0],
      [20, 8],
      [8, 8],
      [8, 20],
      [0, 20],
    ]
    expect(areaOf(buildable(l, [1, 1, 1, 1, 1, 1]))).toBeCloseTo(18 * 6 + 6 * 12, 3)
    expect(
      buildable(
        [
          [0, 0],
          [10, 0],
          [10, 10],
          [0, 10],
        ],
        [6, 0, 6, 0],
      ),
    ).toEqual([])
  })
  it('never leave more than half-planes do in a convex site, nor less', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 9 }),
        fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 9, maxLength: 9 }),
        (n, wide) => {
          const ring = Array.from({ length: n }, (_, i): Vec2 => [
            20 * Math.cos((2 * Math.PI * i) / n),
            20 * Math.sin((2 * Math.PI * i) / n),
          ])
          const setbacks = wide.slice(0, n).map((w) => w / 10)
          let clipped = ring
          ring.forEach((a, i) => {
            const b = ring[(i + 1) % n] as Vec2
            const l = Math.hypot(b[0] - a[0], b[1] - a[1])
            const off = (p: Vec2) =>
              ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / l - (setbacks[i] ?? 0)
            clipped = clipped.flatMap((p, k): Vec2[] => {
              const q = clipped[(k + 1) % clipped.length] as Vec2
              const [x, y] = [off(p), off(q)]
              const t = x / (x - y)
              return [
                ...(x >= 0 ? [p] : []),
                ...(x >= 0 !== y >= 0 ? [[p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])] as Vec2] : []),
              ]
            })
          })
          expect(areaOf(buildable(ring, setbacks))).toBeCloseTo(areaOf([clipped]), 1)
        },
      ),
      { numRuns: 40 },
    )
  })
})

describe('the envelope', () => {
  const site = siteOf(
    [
      [0, 0],
      [22.4, 0],
      [22.4, 35],
      [0, 35],
    ],
    { limit: 9.9 },
    [5.5, 1.8, 6, 1.8],
  )
  const fit = (box: [number, number, number, number], height: number, s = site) => {
    const form = studied(withMass(projectWith([0]), { box, height })).forms[0]
    if (!form) throw new Error('no form')
    const envelope = envelopeOf(s, numbers)
    return fitOf(form.body.solid, form.at, form.top, form.rect, envelope, () =>
      planFit(envelope, standingPlan(form), form.rect),
    )
  }
  it('says by how much a mass is over, in metres and cubic metres, and how far it is from each boundary', () => {
    const over = fit([1.8, 5.5, 18.8, 23.5], 10.2)
    expect(over.limits.find((l) => l.limit === 'height')?.over).toBeCloseTo(0.3, 9)
    expect(over.over).toBeCloseTo(18.8 * 23.5 * 0.3, 2)
    expect(over.clear).toEqual([5.5, 1.8, 6, 1.8])
    const inside = fit([3, 7, 10, 10], 9.75)
    expect(inside.over).toBe(0)
    expect(inside.limits.find((l) => l.limit === 'height')?.over).toBeCloseTo(-0.15, 9)
    expect(inside.limits.find((l) => l.limit === 'setback' && l.side === 4)?.over).toBeCloseTo(-1.2, 4)
  })
  it('tells a setback passed from a boundary passed, by side', () => {
    const left = fit([1, 7, 10, 10], 9)
    expect(left.limits.find((l) => l.limit === 'setback' && l.side === 4)?.over).toBeCloseTo(0.8, 3)
    expect(left.over).toBeCloseTo(0.8 * 10 * 9, 2)
    const out = fit([-2, 7, 10, 10], 9)
    expect(out.clear[3]).toBeCloseTo(-2, 3)
    expect(out.over).toBeCloseTo(3.8 * 10 * 9, 2)
  })
  it('says by how much a corner that looks in is passed, where strips meet in their mitre', () => {
    const l = siteOf(
      [
        [0, 0],
        [20, 0],
        [20, 8],
        [8, 8],
        [8, 20],
        [0, 20],
      ],
      { limit: 12 },
      [1, 1, 1, 1, 1, 1],
    )
    const corner = fit([2, 2, 5.2, 5.2], 6, l)
    expect(corner.over).toBeCloseTo(0.2 * 0.2 * 6, 2)
    expect(corner.limits.filter((x) => x.over > 1e-4).map((x) => [x.side, Number(x.over.toFixed(3))])).toEqual([
      [3, 0.2],
      [4, 0.2],
    ])
  })
  it('takes sloping limits into account', () => {
    const sloped = {
      ...site,
      limit: null,
      corners: site.corners.map((c, i) => (i === 0 ? { ...c, setback: 0, slope: { from: 4, angle: 45 } } : c)),
    }
    const over = fit([4, 2, 10, 10], 9, sloped)
    expect(over.limits.find((l) => l.limit === 'slope')).toEqual({
      limit: 'slope',
      side: 1,
      name: 'south side',
      over: expect.closeTo(3, 9),
    })
    expect(over.over).toBeCloseTo(((3 * 3) / 2) * 10, 2)
  })
  it('does not mind which way round the site is given', () => {
    const turned: Site = {
      ...site,
      corners: [...site.corners]
        .reverse()
        .map((c, i, all) => ({ ...c, setback: all[(i + 1) % all.length]?.setback ?? 0 })),
    }
    expect(envelopeOf(turned, numbers).area).toBeCloseTo(441.8, 3)
    expect(fit([1.8, 5.5, 18.8, 23.5], 9, turned).over).toBeLessThan(0.01)
  })
  it('a mass is brought to a distance from a side', () => {
    const [dx, dy] = towardSide(envelopeOf(site, numbers), 3, 5, 2.5)
    expect([dx, dy]).toEqual([-2.5, 0])
  })
})

it('the site is one thing of the project; its faults are refused with the edit', () => {
  const project: Project = projectWith([0])
  const set = (points: Vec2[]) => () => apply(project, { edit: 'project.change', set: { site: siteOf(points) } })
  expect(
    set([
      [0, 0],
      [28, 0],
      [31, 19],
      [2, 22],
    ])().site?.corners,
  ).toHaveLength(4)
  expect(
    set([
      [0, 0],
      [10, 10],
      [10, 0],
      [0, 10],
    ]),
  ).toThrow('crosses itself')
})
