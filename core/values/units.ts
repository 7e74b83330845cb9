import { TOLERANCE } from './tolerance'
import type { Quantity, Unit } from './schemas'

/** What one unit measures: its factor to metres (or degrees) and its dimension. Feet and inches are the international ones. */
export const UNITS: Record<string, { factor: number; length: 0 | 1 | 2; angle: 0 | 1 }> = {
  __proto__: null as never,
  m: { factor: 1, length: 1, angle: 0 },
  mm: { factor: 0.001, length: 1, angle: 0 },
  cm: { factor: 0.01, length: 1, angle: 0 },
  ft: { factor: 0.3048, length: 1, angle: 0 },
  in: { factor: 0.0254, length: 1, angle: 0 },
  m2: { factor: 1, length: 2, angle: 0 },
  'm²': { factor: 1, length: 2, angle: 0 },
  ft2: { factor: 0.3048 * 0.3048, length: 2, angle: 0 },
  'ft²': { factor: 0.3048 * 0.3048, length: 2, angle: 0 },
  deg: { factor: 1, length: 0, angle: 1 },
  '°': { factor: 1, length: 0, angle: 1 },
}

/** A unit, or whatever says one together with how finely it is shown (a project does). */
export type Shown = Unit | { unit: Unit; precision: number }
const unitOf = (shown: Shown): Unit => (typeof shown === 'string' ? shown : shown.unit)

/** How finely lengths are shown at first: digits behind the point; in feet, parts of an inch. */
export const usualPrecision = (unit: Unit): number => ({ m: 3, mm: 0, ft: 16 })[unit]

/** What a project may choose from, with how it reads. */
export const PRECISIONS: Record<Unit, { value: number; label: string }[]> = {
  m: [
    { value: 0, label: '1 m' },
    { value: 1, label: '0.1 m' },
    { value: 2, label: '0.01 m' },
    { value: 3, label: '0.001 m' },
    { value: 4, label: '0.0001 m' },
  ],
  mm: [
    { value: 0, label: '1 mm' },
    { value: 1, label: '0.1 mm' },
    { value: 2, label: '0.01 mm' },
  ],
  ft: [1, 2, 4, 8, 16, 32, 64].map((value) => ({ value, label: value === 1 ? '1 inch' : `1/${value} inch` })),
}

/** The unit that a plain number gets in a field of this quantity. */
export function fieldUnit(quantity: Quantity, unit: Unit): string {
  switch (quantity) {
    case 'length':
      return unit
    case 'area':
      return unit === 'ft' ? 'ft2' : 'm2'
    case 'angle':
      return 'deg'
    case 'number':
      return ''
  }
}

const DIGITS: Record<string, number> = { m: 3, mm: 0, m2: 2, ft2: 2, deg: 2, '': 3 }

/** The sign of the project's unit of area. */
export const areaSign = (shown: Shown): 'm²' | 'ft²' => (unitOf(shown) === 'ft' ? 'ft²' : 'm²')

/** A volume (m3) in the project's unit, with its sign: 40.00 m³, 1,412.59 ft³. */
export const showVolume = (value: number, shown: Shown): string =>
  unitOf(shown) === 'ft' ? `${group(value / 0.3048 ** 3, 2)} ft³` : `${group(value, 2)} m³`

/** A value in metres, m2, degrees or as a number, in the project's unit and without it: 3.15 -> "3.150", "3,150" or 10' 4". */
export function showNumber(value: number, quantity: Quantity, shown: Shown, digits?: number): string {
  const unit = unitOf(shown)
  const name = fieldUnit(quantity, unit)
  const precision = typeof shown === 'string' || quantity !== 'length' ? undefined : shown.precision
  if (name === 'ft') return feetAndInches(value, precision ?? usualPrecision('ft'))
  return group(
    value / (UNITS[name]?.factor ?? 1),
    digits ?? precision ?? (quantity === 'number' && Number.isInteger(value) ? 0 : (DIGITS[name] ?? 3)),
  )
}

/** The same with the unit behind it. */
export function showQuantity(value: number, quantity: Quantity, shown: Shown, digits?: number): string {
  const name = fieldUnit(quantity, unitOf(shown))
  const sign =
    name === 'm2' || name === 'ft2'
      ? ` ${areaSign(shown)}`
      : name === 'deg'
        ? '°'
        : name && name !== 'ft'
          ? ` ${name}`
          : ''
  return showNumber(value, quantity, shown, digits) + sign
}

/** The shortest text that gives the value back when typed into a field of this quantity: no grouping, nothing rounded that matters. */
export function editNumber(value: number, quantity: Quantity, shown: Shown): string {
  const unit = unitOf(shown)
  if (quantity === 'length' && unit === 'ft') {
    const text = feetAndInches(value, 64)
    return Math.abs(inMetres(value, 64) - value) < TOLERANCE.rounding ? text : `${tidy(value / 0.3048)} ft`
  }
  return String(tidy(value / (UNITS[fieldUnit(quantity, unit)]?.factor ?? 1)))
}

/** A value to its last digit, with its unit: what a remedy does, and not about what. 1.825 m, 1825 mm, 5' 11 7/8". */
export function showExact(value: number, quantity: Quantity, shown: Shown): string {
  const text = editNumber(value, quantity, shown)
  const unit = fieldUnit(quantity, unitOf(shown))
  if (unit === 'ft') return text
  return unit === 'deg' ? `${text}°` : `${text} ${unit === 'm2' || unit === 'ft2' ? areaSign(shown) : unit}`.trim()
}

/** A length that is off, or left over (m), in millimetres, or in hundredths of an inch: 0.4 mm, 0.02". */
export const showFine = (metres: number, shown: Shown): string =>
  unitOf(shown) === 'ft' ? `${(metres / 0.0254).toFixed(2)}"` : `${(metres * 1000).toFixed(1)} mm`

/** Surface over volume (1/m): 0.412 1/m, or 1/ft. */
export const showPerLength = (perMetre: number, shown: Shown): string =>
  unitOf(shown) === 'ft' ? `${(perMetre * 0.3048).toFixed(3)} 1/ft` : `${perMetre.toFixed(3)} 1/m`

/**
 * A sentence of the core in the project's unit. Refusals that are made without a project say lengths in metres, with "m" or "mm" behind, and areas with "m²"; names,
 * which stand in quotes, are left alone.
 */
export function sayInUnits(sentence: string, shown: Shown): string {
  if (unitOf(shown) === 'm') return sentence
  const isFeet = unitOf(shown) === 'ft'
  const inUnit = (text: string) =>
    text.replace(
      /(?<![\w.])(-?\d+(?:\.\d+)?(?:e-?\d+)?) (m|mm|m²)(?![\w²³])/g,
      (was, value: string, unit: keyof typeof UNITS) =>
        isFeet || unit === 'm'
          ? showQuantity(Number(value) * (UNITS[unit]?.factor ?? 1), unit === 'm²' ? 'area' : 'length', shown)
          : was,
    )
  return sentence
    .split('"')
    .map((part, i) => (i % 2 === 0 ? inUnit(part) : part))
    .join('"')
}

/** Takes the noise of binary fractions off a computed value (a nanometre is nothing to a building). */
export const tidy = (value: number): number => (Math.abs(value) < 1e15 ? Math.round(value * 1e9) / 1e9 : value) + 0

/** Metres as feet, inches and a fraction of an inch in lowest terms, rounded to 1/parts: 3.2131 -> 10' 6 1/2". */
function feetAndInches(metres: number, parts: number): string {
  const whole = Math.round((Math.abs(metres) / 0.0254) * parts)
  const [feet, rest] = [Math.floor(whole / (12 * parts)), whole % (12 * parts)]
  const [inches, over] = [Math.floor(rest / parts), rest % parts]
  const common = divisor(over, parts)
  const fraction = over ? `${over / common}/${parts / common}` : ''
  const inch =
    inches || fraction || !feet
      ? `${[inches || !fraction ? String(inches) : '', fraction].filter(Boolean).join(' ')}"`
      : ''
  return (metres < 0 && whole > 0 ? '-' : '') + [feet ? `${feet}'` : '', inch].filter(Boolean).join(' ')
}

const inMetres = (metres: number, parts: number) => (Math.round((metres / 0.0254) * parts) / parts) * 0.0254
const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b))

function group(value: number, digits: number): string {
  const fixed = Math.abs(value).toFixed(digits)
  const [whole = '0', part] = fixed.split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, ',')
  const sign = value < 0 && Number(fixed) !== 0 ? '-' : ''
  return sign + (part ? `${grouped}.${part}` : grouped)
}
