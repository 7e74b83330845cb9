import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  asQuantity,
  editNumber,
  evaluate,
  parseFormula,
  showNumber,
  showQuantity,
  showVolume,
  type Unit,
} from './index'

const typed = (text: string, unit: Unit): number =>
  asQuantity(
    evaluate(parseFormula(text), unit, () => {
      throw new Error('no names here')
    }),
    'length',
    unit,
  )

describe('feet and inches are read in any mix', () => {
  it.each([
    ['10\' 6 1/2"', 'm', 3.2131],
    ['10’ 6 1/2”', 'm', 3.2131],
    ['10\'6"', 'm', 3.2004],
    ['9\'-4"', 'm', 2.8448],
    ['7', 'ft', 2.1336],
    ['7 ft', 'm', 2.1336],
    ["5'", 'm', 1.524],
    ['6 1/2"', 'm', 0.1651],
    ['3/4"', 'mm', 0.01905],
    ['6-1/2"', 'm', 0.1651],
    ["10' 6", 'ft', 3.2004],
    ['12 in', 'm', 0.3048],
    ['3200 mm', 'ft', 3.2],
    ['10\' 6 1/2" + 2', 'ft', 3.8227],
    ['10\' - 6"', 'm', 2.8956],
    ['2 * 3\' 6"', 'm', 2.1336],
    ["7' / 2", 'm', 1.0668],
    ['-(3\' + 2")', 'm', -0.9652],
  ] as const)('%s in a project in %s is %d m', (text, unit, metres) => expect(typed(text, unit)).toBeCloseTo(metres, 9))
  it('and refused where they make no sense', () => {
    expect(() => typed('6 1/0"', 'm')).toThrow(/divides by zero/)
    expect(() => typed('3\' 2" m', 'm')).toThrow(/cannot stand after|has a unit already/)
    expect(() => typed('"', 'm')).toThrow(/not understood/)
  })
})

describe('a length in a feet project is shown', () => {
  it.each([
    [3.2131, 16, '10\' 6 1/2"'],
    [2.1336, 16, "7'"],
    [0.1651, 8, '6 1/2"'],
    [0, 16, '0"'],
    [-0.9652, 16, '-3\' 2"'],
    [3.2131, 1, '10\' 7"'],
    [0.3048 * 3 - 1e-6, 16, "3'"],
    [0.0127, 64, '1/2"'],
  ] as const)('%d m to 1/%d inch as %s', (metres, precision, text) =>
    expect(showQuantity(metres, 'length', { unit: 'ft', precision })).toBe(text),
  )
  it('by whole digits in the other units, as finely as the project says', () => {
    expect(showQuantity(3.14159, 'length', { unit: 'm', precision: 1 })).toBe('3.1 m')
    expect(showQuantity(3.14159, 'length', { unit: 'mm', precision: 2 })).toBe('3,141.59 mm')
    expect(showNumber(1000, 'area', { unit: 'ft', precision: 16 })).toBe('10,763.91')
    expect(showQuantity(1000, 'area', 'ft')).toBe('10,763.91 ft²')
    expect(showVolume(1, 'ft')).toBe('35.31 ft³')
  })
  it('and what is put into a field to be edited gives the very value back', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -4_000_000, max: 4_000_000 }),
        fc.constantFrom<Unit>('m', 'mm', 'ft'),
        (tenths, unit) => {
          const metres = tenths / 10_000
          expect(typed(editNumber(metres, 'length', unit), unit)).toBeCloseTo(metres, 8)
        },
      ),
    )
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 640_000 }), (parts) => {
        // Every sixty-fourth of an inch is written as feet, inches and a fraction, and read again.
        const metres = (parts / 64) * 0.0254
        expect(typed(editNumber(metres, 'length', 'ft'), 'ft')).toBeCloseTo(metres, 9)
        expect(typed(showQuantity(metres, 'length', { unit: 'ft', precision: 64 }), 'm')).toBeCloseTo(metres, 9)
      }),
    )
  })
})
