import type { Quantity, Unit } from './schemas'

/** What one unit measures: its factor to metres (or degrees) and its dimension. */
export const UNITS: Record<string, { factor: number; length: 0 | 1 | 2; angle: 0 | 1 }> = {
  __proto__: null as never,
  m: { factor: 1, length: 1, angle: 0 }, mm: { factor: 0.001, length: 1, angle: 0 }, cm: { factor: 0.01, length: 1, angle: 0 },
  m2: { factor: 1, length: 2, angle: 0 }, 'm²': { factor: 1, length: 2, angle: 0 },
  deg: { factor: 1, length: 0, angle: 1 }, '°': { factor: 1, length: 0, angle: 1 },
}

/** The unit that a plain number gets in a field of this quantity. */
export function fieldUnit(quantity: Quantity, unit: Unit): string {
  switch (quantity) {
    case 'length': return unit
    case 'area': return 'm2'
    case 'angle': return 'deg'
    case 'number': return ''
  }
}

const DIGITS: Record<string, number> = { m: 3, mm: 0, m2: 2, deg: 2, '': 3 }

/** A value in metres, m2, degrees or as a number, in the project's unit and without it: 3.15 -> "3.150" or "3,150". */
export function showNumber(value: number, quantity: Quantity, unit: Unit, digits?: number): string {
  const name = fieldUnit(quantity, unit)
  const shown = value / (UNITS[name]?.factor ?? 1)
  return group(shown, digits ?? DIGITS[name] ?? 3)
}

/** The same with the unit behind it. */
export function showQuantity(value: number, quantity: Quantity, unit: Unit, digits?: number): string {
  const name = fieldUnit(quantity, unit)
  const sign = name === 'm2' ? ' m²' : name === 'deg' ? '°' : name ? ` ${name}` : ''
  return showNumber(value, quantity, unit, digits) + sign
}

/** The shortest text that gives the value back when typed into a field of this quantity: no grouping, nothing rounded that matters. */
export function editNumber(value: number, quantity: Quantity, unit: Unit): string {
  const shown = value / (UNITS[fieldUnit(quantity, unit)]?.factor ?? 1)
  return String(tidy(shown))
}

/** Takes the noise of binary fractions off a computed value (a nanometre is nothing to a building). */
export const tidy = (value: number): number => Math.round(value * 1e9) / 1e9 + 0

function group(value: number, digits: number): string {
  const fixed = Math.abs(value).toFixed(digits)
  const [whole = '0', part] = fixed.split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',')
  const sign = value < 0 && Number(fixed) !== 0 ? '-' : ''
  return sign + (part ? `${grouped}.${part}` : grouped)
}
