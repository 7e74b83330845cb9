import { beforeAll, describe, expect, it } from 'vitest'
import { addByLine, readLevelLine } from '../levels'
import type { Project } from '../project'
import { openKernel } from '../solid'
import { apply, changeMass, converted, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { ledgerOf } from './ledger'

beforeAll(() => openKernel())

const mint = minter('level')
const typed = (project: Project, ...lines: string[]): Project =>
  lines.reduce((p, line) => {
    const scheme = schemeOf(p)
    return apply(p, addByLine(p, scheme, mint, readLevelLine(line, p, scheme), null).edit)
  }, project)
const areas = (p: Project) => studied(p).floors.map((f) => [f.level.name, Number(f.area.toFixed(2))])
const kinds = (p: Project) => studied(p).findings.map((f) => f.kind)

describe('storeys at one height', () => {
  const block = withMass(projectWith([0, 2.45]), { box: [0, 0, 10, 10], height: 9 })
  const all = typed(block, '@6.1 One', '@6.1 Two', '@2.45 + 3.65 Third')
  const three = () => all

  it('are one floor, counted once, named by all of them, with a finding', () => {
    const study = studied(three())
    expect(study.totals.area).toBeCloseTo(300, 6)
    expect(ledgerOf(study).levels.map((l) => [l.name, l.area, l.oneWith])).toEqual([
      ['Level 0', 100, null],
      ['Level 1', 100, null],
      ['One and Third and Two', 100, null],
      ['Third', 0, 'One'],
      ['Two', 0, 'One'],
    ])
    const found = study.findings.filter((f) => f.kind === 'levels at one height')
    expect(found.map((f) => f.say)).toEqual(Array(2).fill('One and Third and Two lie at one height'))
    expect(kinds(three())).not.toContain('level cuts nothing')
    const mended = found.reduce((p, f) => apply(p, f.fix?.edit(mint) as never), three())
    expect(studied(mended).totals.area).toBeCloseTo(300, 6)
    expect(kinds(mended)).not.toContain('levels at one height')
  })
  it('count for masses that take any of them, and for none that take none', () => {
    const two = Object.values(schemeOf(three()).levels).find((l) => l.name === 'Two')?.id ?? ''
    const others = Object.values(schemeOf(three()).levels).flatMap((l) => (l.name === 'Two' ? [] : [l.id]))
    expect(areas(changeMass(three(), 'Mass 1', { takes: { kind: 'only', levels: [two] } }))[2]).toEqual(['One', 100])
    const none = changeMass(three(), 'Mass 1', { takes: { kind: 'only', levels: others.slice(0, 2) } })
    expect(studied(none).totals.area).toBeCloseTo(200, 6)
  })
  it('give one slab and one row of walls', () => {
    const names = studied(converted(three())).parts.map((p) => p.part.name)
    const of = (what: string) => names.filter((n) => n.includes(what))
    expect(of('Two')).toEqual([])
    expect(of('Third')).toEqual([])
    expect(of('One').length).toBe(5)
  })
  it('are one floor at map coordinates, and a tenth of a millimetre apart', () => {
    const far = typed(
      withMass(projectWith([0, 2.45]), { box: [350000, 5600000, 10, 10], height: 9 }),
      '@6.1 One',
      '@6.1001 Two',
    )
    expect(studied(far).totals.area).toBeCloseTo(300, 4)
  })
})

describe('headroom ends at the next floor that counts', () => {
  it('a floor 0.175 m under another one is low', () => {
    const house = withMass(projectWith([0, 0.175]), { box: [0, 0, 19, 8.5], height: 3 })
    const study = studied(house)
    expect(areas(house)).toEqual([
      ['Level 0', 0],
      ['Level 1', 161.5],
    ])
    expect(study.totals.low).toBeCloseTo(161.5, 6)
    const low = study.findings.find((f) => f.kind === 'storey too low')
    expect(low?.say).toBe('Level 0 is only 0.175 m high in the clear')
    expect(low?.fix?.label).toBe('Raise Level 1 by 1.825 m')
    expect(kinds(apply(house, low?.fix?.edit(mint) as never))).not.toContain('storey too low')
  })
  it('a floor that does not count itself is no end to it', () => {
    // Only the third one counts: the second is low under it, and the first has 2.40 m up to it.
    const stack = withMass(projectWith([0, 1.2, 2.4]), { box: [0, 0, 10, 10], height: 6 })
    expect(areas(stack).map(([, a]) => a)).toEqual([100, 0, 100])
  })
  it('it ends only where that floor lies over it: beside a gallery there is room', () => {
    let hall = withMass(projectWith([0, 1.5]), { name: 'Hall', box: [0, 0, 20, 10], height: 6 })
    hall = changeMass(hall, 'Hall', { takes: { kind: 'all-but', levels: ['L1'] } })
    hall = withMass(hall, { name: 'Gallery', box: [14, 0, 6, 10], height: 6 })
    expect(areas(hall)).toEqual([
      ['Level 0', 140],
      ['Level 1', 60],
    ])
    // Split levels side by side do not stand over one another.
    let split = withMass(projectWith([0, 1.5]), { name: 'Low', box: [0, 0, 10, 10], height: 4.5 })
    split = changeMass(split, 'Low', { takes: { kind: 'only', levels: ['L0'] } })
    split = withMass(split, { name: 'High', box: [10, 0, 10, 10], height: 3, level: 'L1' })
    expect(areas(split).map(([, a]) => a)).toEqual([100, 100])
  })
  it('exactly the headroom is enough, and the last digit of a sum does not matter', () => {
    const sums = withMass(projectWith([0, 0.1 + 1.9, 0.7 + 1.3 + 2]), { box: [0, 0, 10, 10], height: 6 })
    expect(areas(sums).map(([, a]) => a)).toEqual([100, 100, 100])
  })
})
