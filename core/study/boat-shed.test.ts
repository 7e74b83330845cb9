import { beforeAll, describe, expect, it } from 'vitest'
import { propose } from '../fabric'
import { openKernel } from '../solid'
import { boatShed, joinedShed } from '../testing/boat-shed'
import { apply, changeLevel, converted, massNamed, schemeOf, studied } from '../testing/make'
import { ledgerOf } from './ledger'

beforeAll(() => openKernel())

describe('the boat shed', () => {
  it('has the ridges and the volume that the trade works out on paper', () => {
    const { forms } = studied(boatShed())
    const block = forms.find((f) => f.name === 'Block')
    expect(block?.ridge).toBeCloseTo(9.061, 3)
    expect(block?.top).toBeCloseTo(5.7 + Math.tan((35 * Math.PI) / 180) * 4.8, 9)
    expect(block?.body.volume).toBeCloseTo(1161.986, 3)
    expect(forms.find((f) => f.name === 'Porch')?.ridge).toBeCloseTo(4.671, 3)
  })
  it('counts floor only where a person can stand', () => {
    const project = joinedShed()
    const { levels } = ledgerOf(studied(project))
    expect(levels[0]).toMatchObject({ area: 182.4, low: 0 })
    expect(levels[1]?.area).toBeCloseTo(157.44, 3)
    expect(levels[1]?.low).toBeCloseTo(24.96, 3)
    const lower = ledgerOf(studied({ ...project, headroom: 1.5 })).levels[1]
    expect(lower?.area).toBeCloseTo(161.83, 2)
    expect(lower?.low).toBeCloseTo(20.57, 2)
  })

  const variants = [{}, { turned: true }, { porchFirst: true }, { turned: true, porchFirst: true }]
  it.each(variants)('gives eight walls below and four above, however it was drawn: %o', (options) => {
    for (const headroom of [2, 1.5]) {
      const project = converted({ ...joinedShed(options), headroom })
      const study = studied(project)
      const walls = (level: string) => study.parts.filter((p) => p.role === 'wall' && p.part.base?.level === level)
      expect(walls('L0')).toHaveLength(8)
      expect(walls('L1')).toHaveLength(4)
      if (headroom === 2) {
        expect(study.floors[0]?.net).toBeCloseTo(165.466, 3)
        expect(study.floors[1]?.net).toBeCloseTo(143.194, 3)
      }
      expect(study.parts.every((p) => p.bond.status === 'bonded' && p.body)).toBe(true)
    }
  })
  it('runs the gable walls up to the top of their faces', () => {
    const study = studied(converted(joinedShed()))
    const upper = study.parts.filter((p) => p.role === 'wall' && p.part.base?.level === 'L1')
    const gable = 9.6 * 2.85 + (9.6 * (Math.tan((35 * Math.PI) / 180) * 4.8)) / 2
    expect(upper.filter((w) => Math.abs(w.area - gable) < 1e-6)).toHaveLength(2)
    expect(upper.every((w) => w.part.top === null)).toBe(true)
    const porchGable = study.parts.find(
      (p) =>
        p.role === 'wall' && Math.abs(p.area - (5.2 * 2.85 + (5.2 * Math.tan((35 * Math.PI) / 180) * 2.6) / 2)) < 1e-6,
    )
    expect(porchGable?.part.base?.level).toBe('L0')
  })
  it('says what it leaves out and why', () => {
    const study = studied(joinedShed())
    expect(propose(study.context).leftOut.map((l) => l.why)).toContain(
      'borders roof space only: the wall below runs up',
    )
  })
  it('has a roof of two planes, with the overhang measured level', () => {
    for (const [overhang, area] of [
      [0, 192.199],
      [0.52, 226.529],
    ] as const) {
      const project = boatShed()
      const study = studied(
        converted(
          apply(project, { edit: 'mass.remove', scheme: schemeOf(project).id, id: massNamed(project, 'Porch').id }),
          overhang,
        ),
      )
      const planes = study.parts.filter((p) => p.role === 'pitched roof')
      expect(planes).toHaveLength(2)
      expect(planes.reduce((sum, p) => sum + p.area, 0)).toBeCloseTo(area, 3)
      expect(planes[0]?.volume).toBeCloseTo((planes[0]?.area ?? 0) * 0.32, 6)
    }
  })
  it('is followed by its walls when the storey goes from 2.85 to 3.00', () => {
    const before = converted(joinedShed())
    const after = studied(changeLevel(before, 'L1', { tie: { kind: 'stacked', on: 'L0', above: 3 } }))
    expect(after.parts.map((p) => p.bond.status).filter((s) => s !== 'bonded')).toEqual([])
    const wall = after.parts.find((p) => p.role === 'wall' && p.part.base?.level === 'L0' && p.body?.kind === 'prism')
    expect(wall?.body).toMatchObject({ z0: 0, z1: 2.7 })
  })
})
