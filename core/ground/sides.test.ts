import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { raiseToEnvelope } from '../groundwork'
import { numbersOf, ruleRun, type Project, type Site } from '../project'
import { openKernel, sideNames, type Vec2 } from '../solid'
import { siteOf, siteWith } from '../testing/grounds'
import { apply, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { turned } from '../testing/plans'
import { only, ruled } from '../testing/ruled'
import { planArea } from '../solid'
import { envelopeOf, type Fit } from '.'

beforeAll(() => openKernel())

const L: Vec2[] = [
  [0, 0],
  [40, 0],
  [40, 14],
  [18, 14],
  [18, 36],
  [0, 36],
]
const numbers = numbersOf(projectWith([0]), null)
const left = (corners: Vec2[], setbacks: number[]) => envelopeOf(siteWith(corners, { setbacks }), numbers).area
const on = (site: Site, box: [number, number, number, number], height: number): Fit => {
  const project: Project = { ...withMass(projectWith([0]), { box, height }), site }
  return [...studied(project).ground.fits.values()][0] as Fit
}
const over = (fit: Fit) => Object.fromEntries(fit.limits.filter((l) => l.over > 1e-4).map((l) => [l.name, l.over]))

describe('the sides of a site', () => {
  it('are named by where they look, and counted from the left where several look alike', () => {
    const names = ['south side', 'east side 1', 'north side 1', 'east side 2', 'north side 2', 'west side']
    expect(sideNames(L)).toEqual(names)
    // Drawn the other way round each side keeps its name: it begins at its other corner.
    const clockwise = [...L].reverse()
    expect(sideNames(clockwise)).toEqual(clockwise.map((_, i) => names[(2 * 6 - 2 - i) % 6]))
    expect(sideNames(turned(L, 45))).toContain('south-east side')
    expect(sideNames(L.map(([x, y]): Vec2 => [x + 350000, y + 5600000]))).toEqual(names)
  })
})

describe('what setbacks leave', () => {
  it('has a step where two setbacks meet on one straight side, or on one that is nearly straight', () => {
    const bent = (h: number) => left([[0, 0], [10, h], [20, 0], [20, 20], [0, 20]], [2, 6, 0, 0, 0]) // prettier-ignore
    expect(bent(0)).toBeCloseTo(320, 6)
    const half = 10 * Math.tan((0.25 * Math.PI) / 180)
    expect(bent(half)).toBeCloseTo(319.6, 1)
    expect(bent(-half)).toBeCloseTo(320.4, 1)
  })
  it('changes little where a corner is bent a little', () => {
    const bend = fc.double({ min: -1, max: 1, noNaN: true })
    fc.assert(
      fc.property(bend, fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 6 }), (h, a, b) => {
        const area = (y: number) => left([[0, 0], [10, y], [20, 0], [20, 20], [0, 20]], [a, b, 0, 0, 0]) // prettier-ignore
        expect(Math.abs(area(h) - area(0))).toBeLessThan(Math.abs(h) * 16 + 0.01)
      }),
      { numRuns: 100 },
    )
  })
  it('is the same for a rule that begins with the site', () => {
    const corners: Vec2[] = [[0, 0], [10, 0], [20, -10], [30, -10], [30, 20], [0, 20]] // prettier-ignore
    const setbacks = [4, 0, 0, 0, 0, 0]
    expect(left(corners, setbacks)).toBeCloseTo(710, 6)
    const site = siteWith(corners, { setbacks, limit: 12 })
    const grown = ruled('site', 1, 3, [7, -3], (p) => ({ ...p, site }))
    const first = ruleRun(grown, schemeOf(grown), only(grown)).trace[0]?.cells ?? []
    expect(first.reduce((sum, cell) => sum + planArea(cell.plan), 0)).toBeCloseTo(710, 6)
  })
})

describe('over a setback', () => {
  it('is measured square to the side, also beyond its corners', () => {
    const fit = on(siteOf(20, 20, { setbacks: [3, 3, 3, 3] }), [15, -1, 10, 10], 3)
    expect(fit.clear).toEqual([-1, -5, 11, 15])
    expect(over(fit)).toEqual({ 'south side': 4, 'east side': 8 })
  })
})

describe('a sloping limit', () => {
  const site = siteWith(L, { slopes: [null, null, { from: 3, angle: 45 }, null, null, null] })
  it('holds behind its own side only, on a site with corners that look in', () => {
    expect(on(site, [2, 24, 8, 8], 9).over).toBe(0)
    // Behind the side it is 3 m high there, and 11 m at 8 m from it: 4 m at most, 8 x 4 x 4 / 2 in all.
    const fit = on(site, [20, 4, 8, 8], 9)
    expect(fit.over).toBeCloseTo(64, 6)
    expect(over(fit)).toEqual({ 'north side 1': 4 })
  })
  it('ends at the line that halves the corner', () => {
    // A box about the corner, from 4 m behind the side on: what lies beyond the halving line is free.
    const fit = on(site, [10, 6, 16, 4], 9)
    expect(over(fit)['north side 1']).toBeCloseTo(2, 6)
    // Depth d behind the side from 4 to 6 passes by 6 - d, from x = 18 - d to 26.
    expect(fit.over).toBeCloseTo(2 * 8 + integral((d) => (6 - d) * d, 4, 6), 4)
  })
  it('two from opposite sides let a mass rise to where they meet', () => {
    const slope = { from: 4, angle: 45 }
    for (const turn of [0, 17]) {
      const corners = turned([[0, 0], [40, 0], [40, 30], [0, 30]], turn) // prettier-ignore
      const start = withMass(projectWith([0]), {
        name: 'A',
        points: turned([[10, 5], [20, 5], [20, 25], [10, 25]], turn), // prettier-ignore
        height: 3,
      })
      const project: Project = { ...start, site: siteWith(corners, { slopes: [slope, null, slope, null] }) }
      const mint = minter('cut')
      const raised = apply(project, raiseToEnvelope(project, schemeOf(project), mint, massNamed(project, 'A').id))
      const study = studied(raised)
      expect(study.forms[0]?.top).toBeCloseTo(19, 6)
      expect(study.totals.volume).toBeCloseTo(2800, 3)
      expect([...study.ground.fits.values()][0]?.over).toBeLessThan(0.01)
    }
  })
})

function integral(f: (x: number) => number, from: number, to: number): number {
  const n = 10000
  const step = (to - from) / n
  return Array.from({ length: n }, (_, i) => f(from + (i + 0.5) * step) * step).reduce((a, b) => a + b, 0)
}
