import { beforeAll, describe, expect, it } from 'vitest'
import { formatNamed } from '../exchange'
import { readCorners, readLegs, walk } from '../ground'
import { readBrief } from '../groundwork'
import { addByLine, levelExamples, levelHeights, readLevelLine, readRuns } from '../levels'
import {
  blankProject,
  EXAMPLES,
  inOrder,
  readTyped,
  sayInUnits,
  showExact,
  UnitSchema,
  type Project,
  type Unit,
} from '../project'
import { loopArea, openKernel } from '../solid'
import { siteOf } from '../testing/grounds'
import { apply, changeLevel, converted, minter, projectWith, schemeOf, studied, thick, withMass } from '../testing/make'

beforeAll(() => openKernel())

const UNITS = UnitSchema.options
const inUnit = (project: Project, unit: Unit): Project => ({
  ...project,
  unit,
  precision: { m: 3, mm: 0, ft: 32 }[unit],
})

describe('every finding', () => {
  /** Over the limit, the setback and a mark, too low, a thin slice, fabric over the limit. */
  function wrong(): Project {
    let p = withMass(projectWith([0, 1.9, 5, 8.9]), { name: 'House', box: [1, 1, 10, 8], height: 9.3 })
    p = withMass(p, { name: 'Thin', box: [20, 1, 10, 0.05], height: 3 })
    p = withMass(p, { name: 'Low', box: [20, 10, 8, 8], height: 9 })
    p = thick(converted(p), { roof: 0.32 })
    return { ...p, site: siteOf(40, 30, { limit: 9.1, setbacks: [3, 3, 3, 3] }) }
  }
  it('speaks in feet in a project in feet, in millimetres in one in millimetres', () => {
    const kinds = new Set(studied(wrong()).findings.map((f) => f.kind))
    for (const kind of [
      'over the envelope',
      'storey too low',
      'thin body or tiny edge',
      'roof peak just above a level',
      'fabric over the envelope',
    ])
      // prettier-ignore
      expect(kinds).toContain(kind)
    for (const unit of ['mm', 'ft'] as const)
      for (const { say, remedy, fix } of studied(inUnit(wrong(), unit)).findings)
        expect([say, remedy, fix?.label ?? ''].join(' ')).not.toMatch(/\d m(?![m\w²³])/)
    for (const { say, remedy } of studied(inUnit(wrong(), 'ft')).findings)
      expect(`${say} ${remedy}`).not.toMatch(/ m[²³m]/)
  })
  it('has a remedy that says to the last digit what it does', () => {
    expect(showExact((1 / 32) * 0.0254, 'length', 'ft')).toBe('1/32"')
    expect(showExact(1.825, 'length', 'm')).toBe('1.825 m')
    expect(showExact(1.825, 'length', 'mm')).toBe('1825 mm')
  })
})

it('a refusal that is made in metres is said in the unit of the project, but for names', () => {
  const sentence = 'Thickened by 0.5 m, a side of "Wall 2 m" is gone. Up to 12 m² and 30 mm stay.'
  expect(sayInUnits(sentence, 'm')).toBe(sentence)
  expect(sayInUnits(sentence, 'mm')).toBe(
    'Thickened by 500 mm, a side of "Wall 2 m" is gone. Up to 12 m² and 30 mm stay.',
  )
  expect(sayInUnits(sentence, 'ft')).toContain(`Thickened by 1' 7 11/16"`)
  expect(sayInUnits(sentence, 'ft')).not.toMatch(/\d (mm|m²)/)
})

describe('what is typed', () => {
  it('takes feet and inches by their words', () => {
    const p = blankProject(minter(), 'P', 'ft', null)
    for (const [text, inches] of [
      ['12ft 6in', 150],
      ['12 ft 6 1/2 in', 150.5],
      [`12' 6"`, 150],
      ['2 ft 3 in + 1ft', 39],
    ] as const)
      // prettier-ignore
      expect(readTyped(text, 'length', p, null).value).toBeCloseTo(inches * 0.0254, 9)
  })
  it('as the example of the level line makes storeys that one can stand in, in every unit', () => {
    for (const unit of UNITS) {
      const p = inUnit(projectWith([0]), unit)
      const says = levelExamples(unit)
      for (const line of [says.one, says.many]) {
        const scheme = schemeOf(p)
        const { by } = readLevelLine(line, p, scheme)
        expect(Number(by)).toBeGreaterThan(2.5)
        expect(Number(by)).toBeLessThan(4)
      }
      expect(Number(readLevelLine(says.under, p, schemeOf(p)).by)).toBeLessThan(-3)
      expect(readLevelLine(`@${says.datum} Ridge`, p, schemeOf(p))).toMatchObject({ fromDatum: true, name: 'Ridge' })
    }
  })
  it('as the examples of fields shows a site, a walk, storeys and a brief of a sensible size, in every unit', () => {
    for (const unit of UNITS) {
      const p = { ...inUnit(projectWith([0]), unit), siteArea: 2000 }
      const of = EXAMPLES[unit]
      const length = (text: string) => readTyped(text, 'length', p, null).value
      expect(loopArea(readCorners(of.corners, length))).toBeCloseTo(596, -2)
      expect(walk([0, 0], readLegs(of.legs, length)).closing?.length).toBeGreaterThan(7)
      expect(length(of.stride)).toBeCloseTo(unit === 'ft' ? 0.1524 : 0.1, 9)
      const heights = readRuns(of.heights, (text) => readTyped(text, 'length', p, null).num).map((r) => Number(r.each))
      expect(heights[0]).toBeCloseTo(0.6, 1)
      expect(heights[1]).toBeCloseTo(5.1, 1)
      expect(readTyped(of.area, 'area', p, null).value / 6200).toBeCloseTo(1, 1)
      const lines = inOrder(apply(p, readBrief(p, of.brief, minter('line'))).brief)
      expect(lines.map((l) => Math.round(Number(l.target) / 10))).toEqual([620, 8, 0])
      expect(lines[1]?.of).toMatchObject({ kind: 'count', size: expect.closeTo(65, 0) as number })
    }
  })
  it('with the name of a level is a height from the datum, as in the field of a level', () => {
    const p = projectWith([0, 2.45])
    const scheme = schemeOf(p)
    const line = readLevelLine('Level 1 + 3.65 Third', p, scheme)
    const { edit } = addByLine(p, scheme, minter('l'), line, null)
    const after = { ...p, schemes: { ...p.schemes } }
    expect(edit).toMatchObject({ edit: 'level.add', thing: { name: 'Third', tie: { kind: 'fixed' } } })
    expect(levelHeights(after, scheme)).toHaveLength(2)
    expect(readTyped('Level 1 + 3.65', 'length', p, scheme).value).toBeCloseTo(6.1, 9)
  })
})

it('the ledger is written in the unit in which it is read, and says which', () => {
  const p = withMass(projectWith([0]), { box: [0, 0, 10, 10], height: 3 })
  const csv = (unit: Unit) => formatNamed('csv').write(studied(inUnit(p, unit)), '') as string
  expect(csv('m')).toContain('area m2')
  expect(csv('m')).toContain('100.00')
  expect(csv('ft')).toContain('area ft2')
  expect(csv('ft')).toContain('1076.39')
  expect(csv('ft')).not.toContain('100.00')
  expect(csv('m').charCodeAt(0)).toBe(0xfeff)
})

it('a text with a semicolon is quoted, so that no list parted at it becomes a formula', () => {
  const p = withMass(projectWith([0]), { box: [0, 0, 10, 10], height: 3 })
  const named = changeLevel(p, 'L0', { name: 'Quay;=1+1' })
  expect(formatNamed('csv').write(studied(named), '')).toContain('"Quay;=1+1"')
})

it('a project in feet begins with what is usual in feet', () => {
  const p = blankProject(minter(), 'P', 'ft', null)
  expect([p.headroom, p.stride.length].map((m) => showExact(Number(m), 'length', 'ft'))).toEqual([`6' 8"`, '6"'])
})
