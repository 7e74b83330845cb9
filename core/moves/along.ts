import { boxOf, carryBody, cutAt, STILL, TOLERANCE, type Carry, type Vec2 } from '../solid'
import { tidy, type StandingNumbers } from '../values'
import { centreOf } from './centre'
import type { BodyForm } from './kind'
import type { Ranges } from './span'

/** The heights of the storeys above the mass's base, as text: rows of what is bent lie there, where its cut is exact. */
export const storeysOf = (_move: unknown, numbers: StandingNumbers): string =>
  [...numbers.heights.values()].map((h) => (h - numbers.base).toFixed(6)).join()

/** m above the mass's base: the top of a body */
export const heightOf = ({ solid }: BodyForm): number => boxOf(solid.positions).z1

/** m: how much of a body's height lies in the ranges; all of it where none are said */
export function highOf({ solid }: BodyForm, ranges: Ranges | null): number {
  const { z0, z1 } = boxOf(solid.positions)
  return (ranges ?? [[z0, z1]]).reduce((sum, [from, to]) => sum + to - from, 0)
}

/** So many metres in a direction (degrees). */
export function asideBy(out: number, towards: number): Vec2 {
  const a = (towards * Math.PI) / 180
  return [out * Math.cos(a), out * Math.sin(a)]
}

/**
 * The body with its level cuts carried evenly over heights (null: from its foot to its top), about the middle of its foot. What lies
 * above goes along. Its sides are no longer those of the outline.
 */
export function carriedAlong(
  form: BodyForm,
  by: Partial<Omit<Carry, 'x' | 'y' | 'ranges'>>,
  ranges: Ranges | null,
  numbers: StandingNumbers,
): BodyForm {
  const { solid } = form
  const box = boxOf(solid.positions)
  const foot = cutAt(solid, box.z0)
  const [x, y]: Vec2 = foot.length ? centreOf(foot) : [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2]
  const carry: Carry = { ...STILL, ...by, x, y, ranges: ranges ?? [[box.z0, box.z1]] }
  const storeys = [...numbers.heights.values()].map((h) => tidy(h - numbers.base))
  const carried = carryBody(solid, carry, storeys)
  const isStill = carry.turn === 0 && carry.scale === 1 && Math.hypot(...carry.shift) < TOLERANCE.zero
  return isStill ? form : { ...form, outline: null, carried: null, solid: carried }
}
