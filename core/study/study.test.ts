import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import type { Project } from '../project'
import { changeMass, massNamed, minter, projectWith, schemeOf, apply, studied, withMass } from '../testing/make'
import { ledgerOf } from './ledger'

beforeAll(() => openKernel())

const SIX = [0, 3.15, 6.3, 9.45, 12.6, 15.75, 18.9]

describe('a bar of 31.4 x 12.6 raised 18.9', () => {
  const expectBar = (project: ReturnType<typeof projectWith>) => {
    const { levels, totals } = ledgerOf(studied(project))
    expect(levels.map((l) => Number(l.area.toFixed(2)))).toEqual([395.64, 395.64, 395.64, 395.64, 395.64, 395.64, 0])
    expect(totals.area).toBeCloseTo(2373.84, 2)
    expect(totals.volume).toBeCloseTo(7477.596, 3)
    expect(levels[0]?.perimeter).toBeCloseTo(88, 6)
  }
  it('has 395.64 m2 on each of six floors, and none where it ends', () =>
    expectBar(withMass(projectWith(SIX), { box: [0, 0, 31.4, 12.6], height: 18.9 })))
  it('is the same at map coordinates', () =>
    expectBar(withMass(projectWith(SIX), { box: [350000, 5600000, 31.4, 12.6], height: 18.9 })))
  it('is the same drawn clockwise', () =>
    expectBar(
      withMass(projectWith(SIX), {
        points: [
          [0, 0],
          [0, 12.6],
          [31.4, 12.6],
          [31.4, 0],
        ],
        height: 18.9,
      }),
    ))
  it('is the same with its outline itself at map coordinates', () => {
    const drawn = withMass(projectWith(SIX), {
      points: [
        [0, 0],
        [31.4, 0],
        [31.4, 12.6],
        [0, 12.6],
      ],
      height: 18.9,
    })
    const mass = massNamed(drawn, 'Mass 1')
    const recipe = mass.recipe.map((m) =>
      m.move === 'outline' && m.shape.kind === 'polygon'
        ? {
            ...m,
            shape: {
              ...m.shape,
              corners: m.shape.corners.map((c) => ({ ...c, x: Number(c.x) + 350000, y: Number(c.y) + 5600000 })),
            },
          }
        : m,
    )
    expectBar(changeMass(drawn, 'Mass 1', { recipe }))
  })
  it('has no plate at a level it does not take', () => {
    const project = changeMass(withMass(projectWith(SIX), { box: [0, 0, 31.4, 12.6], height: 18.9 }), 'Mass 1', {
      takes: { kind: 'all-but', levels: ['L2'] },
    })
    expect(ledgerOf(studied(project)).levels[2]?.area).toBe(0)
    expect(ledgerOf(studied(project)).totals.area).toBeCloseTo(1978.2, 2)
  })
})

describe('masses that meet', () => {
  const two = () =>
    withMass(withMass(projectWith([0, 3]), { box: [0, 0, 20, 10], height: 6 }), {
      box: [15, 0, 20, 10],
      height: 6,
      use: 'market',
    })
  it('count a common floor once and say so', () => {
    const study = studied(two())
    const { levels, totals } = ledgerOf(study)
    expect(levels[0]?.area).toBeCloseTo(350, 6)
    expect(levels[0]?.uses).toEqual({ homes: 200, market: 150 })
    expect(totals.volume).toBeCloseTo(2100, 4)
    expect(totals.footprint).toBeCloseTo(350, 6)
    const overlap = study.findings.filter((f) => f.kind === 'overlap')
    expect(overlap).toHaveLength(1)
    expect(overlap[0]?.area).toBeCloseTo(50, 6)
    expect(overlap[0]?.levels.map((l) => [l.level, l.area.toFixed(2)])).toEqual([
      ['L0', '50.00'],
      ['L1', '50.00'],
    ])
  })
  it('are joined by the remedy the finding offers', () => {
    const project = two()
    const fix = studied(project).findings.find((f) => f.kind === 'overlap')?.fix
    const joined = apply(project, fix?.edit(minter('join')) ?? { edit: 'batch', edits: [] })
    expect(Object.keys(schemeOf(joined).masses)).toHaveLength(1)
    const study = studied(joined)
    expect(ledgerOf(study).levels[0]?.area).toBeCloseTo(350, 6)
    expect(study.findings.filter((f) => f.kind === 'overlap')).toHaveLength(0)
  })
  it('only counts uses that count, at or above the datum, in the floor area ratio', () => {
    let project: Project = { ...projectWith([-3, 0, 3]), siteArea: 1000 }
    project = withMass(project, { box: [0, 0, 20, 10], height: 9, level: 'L0' })
    project = withMass(project, { box: [30, 0, 20, 10], height: 3, level: 'L1', use: 'parking' })
    expect(ledgerOf(studied(project)).totals.ratio).toBeCloseTo(0.4, 6)
  })
})

describe('a study again', () => {
  it('keeps what did not change, object by object', async () => {
    const { StudyCache, studyScheme } = await import('./index')
    const cache = new StudyCache()
    let project = projectWith(SIX)
    for (let i = 0; i < 5; i++) project = withMass(project, { box: [i * 40, 0, 31.4, 12.6], height: 18.9 })
    const before = studyScheme(project, schemeOf(project).id, cache)
    project = apply(project, {
      edit: 'level.change',
      scheme: schemeOf(project).id,
      id: 'L6',
      set: { tie: { kind: 'stacked', on: 'L5', above: 2.5 } },
    })
    const after = studyScheme(project, schemeOf(project).id, cache)
    expect(after.floors[3]?.islands).toBe(before.floors[3]?.islands)
    expect(after.floors[6]?.area).toBeCloseTo(5 * 0, 6)
    expect(after.forms[2]).toBe(before.forms[2])
  })
})
