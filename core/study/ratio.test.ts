import { beforeAll, describe, expect, it } from 'vitest'
import type { Project, RatioRule } from '../project'
import { openKernel } from '../solid'
import { apply, changeLevel, projectWith, studied, withMass } from '../testing/make'

beforeAll(() => openKernel())

/** A basement, and three storeys of 380 m2 on a site of 750 m2. */
const house = (): Project => {
  const p = withMass(projectWith([-3, 0, 3, 6]), { box: [0, 0, 20, 19], height: 12, level: 'L0' })
  return { ...p, siteArea: 750 }
}
const by = (p: Project, ratioRule: RatioRule) => apply(p, { edit: 'project.change', set: { ratioRule } })
const ratio = (p: Project) => studied(p).totals.ratio

describe('the floor area ratio', () => {
  it('counts by the rule that the project chooses, and tells the others', () => {
    expect(ratio(house())).toBeCloseTo((3 * 380) / 750, 9)
    // The ground floor lies a little lower: by the datum it does not count, with half of it above ground it does.
    const lower = changeLevel(house(), 'L1', { tie: { kind: 'fixed', height: -0.45 } })
    expect(studied(lower).totals.ratios.map((r) => [r.kind, Number(r.ratio?.toFixed(4))])).toEqual([
      ['datum', 1.0133],
      ['half', 1.52],
    ])
    expect(ratio(by(lower, { kind: 'half' }))).toBeCloseTo(1.52, 9)
    expect(ratio(by(lower, { kind: 'level', name: 'level 2' }))).toBeCloseTo((2 * 380) / 750, 9)
  })
  it('by half of a storey goes by the ground that the project says', () => {
    const half = by(house(), { kind: 'half' })
    const on = (height: number): Project => ({ ...half, terrain: { kind: 'level', height } })
    expect(ratio(on(-1.5))).toBeCloseTo((4 * 380) / 750, 9)
    expect(ratio(on(-1.49))).toBeCloseTo((3 * 380) / 750, 9)
    expect(ratio(on(1.51))).toBeCloseTo((2 * 380) / 750, 9)
  })
  it('from a level that the scheme does not have is not known, and a finding', () => {
    const study = studied(by(house(), { kind: 'level', name: 'Quay' }))
    expect(study.totals.ratio).toBeNull()
    expect(study.findings.map((f) => f.kind)).toContain('floor area ratio unknown')
  })
})
