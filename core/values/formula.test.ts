import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blankProject, readTyped, showFormula, numbersOf, Refusal, type Dial, type Project } from '../project'
import { editNumber, evaluate, parseFormula, printFormula, showNumber, showQuantity } from './index'

const project = (unit: 'm' | 'mm', dials: Partial<Dial>[] = []): Project => {
  let n = 0
  const blank = blankProject(() => `id-${++n}`, 'Test', unit, null)
  return {
    ...blank,
    dials: Object.fromEntries(
      dials.map((d, i) => [
        d.id ?? `d${i}`,
        {
          id: d.id ?? `d${i}`,
          order: i,
          name: d.name ?? `d${i}`,
          quantity: 'length',
          value: 0,
          least: null,
          most: null,
          step: null,
          ...d,
        } as Dial,
      ]),
    ),
  }
}
const typed = (
  text: string,
  unit: 'm' | 'mm' = 'm',
  quantity: 'length' | 'angle' | 'area' | 'number' = 'length',
  dials: Partial<Dial>[] = [],
) => readTyped(text, quantity, project(unit, dials), null).value

describe('a typed length', () => {
  it.each([
    ['3.2', 'm', 3.2],
    ['3200 mm', 'm', 3.2],
    ['2800 + 300', 'mm', 3.1],
    ['2.80 + 300 mm', 'm', 3.1],
    ['3.2 m', 'mm', 3.2],
    ['-(165+790)', 'mm', -0.955],
    ['.45 + 3.65', 'm', 4.1],
    ['(2 + 3) * 4', 'm', 20],
    ['12 m / 3', 'm', 4],
    ['2 * 1.5 m', 'mm', 3],
    ['18 m2 / 4 m', 'm', 4.5],
    ['max(2.1, 2.4)', 'm', 2.4],
    ['sqrt(9 m2)', 'm', 3],
    ['10 m * sin(30)', 'm', 5],
    ['30 cm', 'm', 0.3],
    ['1e3 mm', 'm', 1],
    ['(2 + 1) m', 'mm', 3],
    ['−2.5', 'm', -2.5],
    ['2 × 3', 'm', 6],
    ['=0.45+3.65', 'm', 4.1],
    ['= 2800 + 300', 'mm', 3.1],
    ['min(2700, 2.5 m)', 'mm', 2.5],
    ['max(2700, 2.5 m)', 'mm', 2.7],
    ['min(2.4 m, 2700) + 100', 'mm', 2.5],
  ] as const)('"%s" in a project in %s is %d m', (text, unit, metres) =>
    expect(typed(text, unit)).toBeCloseTo(metres, 9),
  )
  it("takes the names of the project's own numbers, and keeps them as references", () => {
    const bay = { id: 'bay-id', name: 'bay', value: 7.2 }
    const p = project('mm', [bay])
    const { num, value } = readTyped('bay * 4 + 300', 'length', p, null)
    expect(value).toBeCloseTo(29.1, 9)
    expect(num).toEqual({ formula: '{bay-id} * 4 + 300 mm' })
    expect(showFormula((num as { formula: string }).formula, p, null)).toBe('bay * 4 + 300 mm')
    expect(readTyped('=max(bay, 5000)', 'length', p, null).num).toEqual({ formula: 'max({bay-id}, 5000 mm)' })
    const renamed = project('m', [{ ...bay, name: 'span', value: 8 }])
    expect(numbersOf(renamed, null).length(num)).toBeCloseTo(32.3, 9)
  })
})

describe('what cannot be read is refused with the reason and the remedy', () => {
  it.each([
    ['', 'Nothing is typed'],
    ['3 +', 'at the end'],
    ['3 4', 'cannot stand after'],
    ['bay', 'not a dial'],
    ['3 m + 2 deg', 'adds a length to an angle'],
    ['2 m * 2 m', 'gives an area'],
    ['1 / 0', 'divides by zero'],
    ['3 $', 'not understood'],
    ['(3', '")" is missing'],
    ['m', 'needs a number'],
    ['sqrt(-1)', 'no finite number'],
    ['3 m mm', 'has a unit already'],
    [`${'('.repeat(60)}1${')'.repeat(60)}`, 'nests too deeply'],
    [`1${'+1'.repeat(300)}`, 'longer than 400'],
    ['alert(1)', 'cannot stand after'],
    ['constructor', 'not a dial'],
  ])('"%s"', (text, reason) => {
    expect(() => typed(text)).toThrow(Refusal)
    expect(() => typed(text)).toThrow(reason)
  })
  it('a circle of dials, with its path', () => {
    const p = project('m', [
      { id: 'a', name: 'a', value: { formula: '{b} + 1 m' } },
      { id: 'b', name: 'b', value: { formula: '{a} * 2' } },
    ])
    expect(() => numbersOf(p, null).length({ formula: '{a}' })).toThrow('a -> b -> a')
  })
})

describe('formulas', () => {
  const arbitrary = fc.letrec<{ node: string }>((tie) => ({
    node: fc.oneof(
      { maxDepth: 4 },
      fc.double({ min: 0.001, max: 999, noNaN: true }).map((n) => String(Number(n.toFixed(4)))),
      fc.tuple(tie('node'), fc.constantFrom('+', '-', '*'), tie('node')).map(([a, op, b]) => `(${a} ${op} ${b})`),
      tie('node').map((a) => `-${a}`),
    ),
  })).node
  it('mean the same after being printed and read again', () => {
    fc.assert(
      fc.property(arbitrary, (text) => {
        if (text.length > 400) return
        const value = (t: string) =>
          evaluate(parseFormula(t), 'm', () => {
            throw new Error('no names')
          }).value
        const tree = parseFormula(text)
        expect(value(printFormula(tree, () => ''))).toBeCloseTo(value(text), 6)
      }),
    )
  })
  it('mean the same after the project changes its unit', () => {
    const bay = { id: 'bay-id', name: 'bay', value: 6 }
    const { num } = readTyped('bay - 250 * 2', 'length', project('mm', [bay]), null)
    expect(numbersOf(project('m', [bay]), null).length(num)).toBeCloseTo(5.5, 9)
  })
})

describe('a shown number', () => {
  it("has the project's unit, grouped, with the digits that matter", () => {
    expect(showQuantity(3.15, 'length', 'm')).toBe('3.150 m')
    expect(showQuantity(31.4, 'length', 'mm')).toBe('31,400 mm')
    expect(showNumber(2373.84, 'area', 'm')).toBe('2,373.84')
    expect(showQuantity(-12, 'angle', 'm')).toBe('-12.00°')
    expect(showNumber(-0.0001, 'length', 'mm')).toBe('0')
  })
  it('comes back when what a field offers for editing is typed again', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e5, max: 1e5, noNaN: true }).map((n) => Math.round(n * 1e6) / 1e6),
        fc.constantFrom('m' as const, 'mm' as const),
        (value, unit) => {
          expect(typed(editNumber(value, 'length', unit), unit)).toBeCloseTo(value, 9)
        },
      ),
    )
  })
})
