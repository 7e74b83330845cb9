import type { Fields } from '../../moves'
import type { Numbers } from '../../values'

/** Where one of a repeat stands, from where the original does: shifted in plan (m), or turned about a point of the site (m, degrees). */
export type Step = { by: [number, number] } | { about: [number, number]; turn: number }

/** One of a repeat: its key says which one it is, and stays when others come or go; `nth` counts from 0, the original. */
export interface Place {
  key: string
  nth: number
  step: Step
}

/** What a way to repeat may begin with: the middle of what is repeated, and its extent in plan, m. */
export interface Begins {
  middle: [number, number]
  wide: number
  deep: number
}

/** A way to repeat in plan: its fields, and where they lead. A new one is a file beside this, and a line in the list. */
export interface WayKind<W extends { way: string }> {
  way: W['way']
  /** "along a line" */
  called: string
  fields: Fields<W>
  starts(at: Begins): Omit<W, 'way'>
  /** all places, the original's first */
  places(way: W, numbers: Numbers): Place[]
  /** how many there are all round, where the last stands beside the first; null where they have two ends */
  ring?(way: W, numbers: Numbers): number | null
}

/** A whole number of a field. */
export const whole = (numbers: Numbers, num: Parameters<Numbers['value']>[0]): number =>
  Math.max(1, Math.round(numbers.value(num, 'number')))
