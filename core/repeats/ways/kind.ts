import type { Fields } from '../../moves'
import type { Plan, Vec2 } from '../../solid'
import type { Id, Numbers } from '../../values'

/** A place in plan (m on the site) with the direction of its x axis, degrees. */
export interface Frame {
  x: number
  y: number
  turn: number
}

/**
 * Where one of a repeat stands, from where the original does: shifted in plan (m), turned about a point of the site
 * (m, degrees), or to one frame as the
 * original to another.
 */
export type Step = { by: [number, number] } | { about: [number, number]; turn: number } | { from: Frame; to: Frame }

/** The plan of a mass as it stands, m, by its id; null where there is none. */
export type PlanAt = (mass: Id) => Plan | null

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
  /** other masses that it may read */ others: readonly Id[]
}

/** A way to repeat in plan: its fields, and where they lead. A new one is a file beside this, and a line in the list. */
export interface WayKind<W extends { way: string }> {
  way: W['way']
  /** "along a line" */
  called: string
  fields: Fields<W>
  starts(at: Begins): Omit<W, 'way'>
  /** all places, the original's first */
  places(way: W, numbers: Numbers, planAt: PlanAt): Place[]
  /** how many there are all round, where the last stands beside the first; null where they have two ends */
  ring?(way: W, numbers: Numbers, planAt: PlanAt): number | null
  /** the way with the place of a key shifted by so much (m): what is dragged of it; none where all is moved instead */
  dragged?(way: W, key: string, by: Vec2, numbers: Numbers): Partial<W> | null
  /** the way moved on the site by so much, m; none where it has no place of its own */
  moved?(way: W, by: Vec2, numbers: Numbers): Partial<W>
  /** the masses that it reads */
  reads?(way: W): Id[]
  /** what a person should know of its numbers; null where there is nothing */
  says?(way: W, numbers: Numbers): string | null
}

/** A whole number of a field. */
export const whole = (numbers: Numbers, num: Parameters<Numbers['value']>[0]): number =>
  Math.max(1, Math.round(numbers.value(num, 'number')))
