import type { Num } from './schemas'
import { tidy } from './units'

/** How a project says directions: as bearings, from north clockwise, or as angles from east, counter-clockwise. */
export const DIRECTIONS = ['bearing', 'from east'] as const
export type Directions = (typeof DIRECTIONS)[number]

/** How a direction is said, beside its field; `of`: whose north or east, where that is not the site's. */
export const howSaid = (directions: Directions, of = ''): string => {
  const whose = of ? `${of}'s ` : ''
  return directions === 'bearing' ? `from ${whose}north, clockwise` : `from ${whose}east, counter-clockwise`
}

/**
 * A direction as it is kept (degrees from the x axis of a frame, counter-clockwise) as the project says it; `turn`: degrees from east to
 * the frame's x axis. A formula becomes a formula of the same value.
 */
export const saidDirection = (kept: Num, directions: Directions, turn = 0): Num =>
  directions === 'bearing' ? lessThan(90 - turn, kept) : moreThan(turn, kept)

/** The reverse of `saidDirection`: what is kept of a direction that is typed. */
export const keptDirection = (said: Num, directions: Directions, turn = 0): Num =>
  directions === 'bearing' ? lessThan(90 - turn, said) : moreThan(-turn, said)

/** A kept direction without a formula as the project says it, degrees. */
export const bearingIn = (kept: number, directions: Directions, turn = 0): number =>
  saidDirection(kept, directions, turn) as number

/** A number of degrees less a direction. */
function lessThan(whole: number, num: Num): Num {
  if (typeof num === 'number') return around(whole - num)
  const inner = within(num.formula, `${degrees(whole)} - (`)
  return { formula: inner ?? `${degrees(whole)} - (${num.formula})` }
}

/** A direction and a number of degrees. */
function moreThan(more: number, num: Num): Num {
  if (typeof num === 'number') return around(num + more)
  if (tidy(more) === 0) return num
  const inner = within(num.formula, `${degrees(-more)} + (`)
  return { formula: inner ?? `${degrees(more)} + (${num.formula})` }
}

const degrees = (value: number) => `${tidy(value)} deg`

/** What stands in the brackets that a formula begins with and that end it; null where it is another one. */
function within(formula: string, begins: string): string | null {
  if (!formula.startsWith(begins) || !formula.endsWith(')')) return null
  const inner = formula.slice(begins.length, -1)
  let depth = 0
  for (const c of inner) {
    if (c === '(') depth++
    if (c === ')' && --depth < 0) return null
  }
  return depth === 0 ? inner : null
}

/** Degrees from 0 up to a whole turn. */
const around = (value: number): number => tidy(((value % 360) + 360) % 360) % 360
