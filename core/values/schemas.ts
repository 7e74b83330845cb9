import * as v from 'valibot'
import { isPlainText } from './text'

export const IdSchema = v.pipe(
  v.string(),
  v.regex(/^[0-9a-zA-Z][0-9a-zA-Z-]{0,63}$/, 'An id is made of letters, digits and dashes.'),
  // Things are looked up by id in plain objects, which answer to these names by nature; the schema library drops them.
  v.check((id) => id !== 'prototype' && !(id in Object.prototype), 'That word cannot be an id.'),
)
export const NameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A name needs at least one character.'),
  v.maxLength(120, 'A name has at most 120 characters.'),
  v.check(isPlainText, 'A name is made of characters that can be shown.'),
)
export const FiniteSchema = v.pipe(v.number(), v.finite('A number must be finite.'))

/** A number in SI units, or a formula that gives one: explicit units, references to dials as {id}. */
export const NumSchema = v.union([
  FiniteSchema,
  v.strictObject({ formula: v.pipe(v.string(), v.minLength(1), v.maxLength(400)) }),
])
export type Num = v.InferOutput<typeof NumSchema>

export const UnitSchema = v.picklist(['m', 'mm', 'ft'])
export type Unit = v.InferOutput<typeof UnitSchema>

export const QuantitySchema = v.picklist(['length', 'angle', 'area', 'number'])
export type Quantity = v.InferOutput<typeof QuantitySchema>

/** Where a thing stands in plan: x and y in metres, turned about z by `turn` degrees. */
export const PlaceSchema = v.strictObject({ x: NumSchema, y: NumSchema, turn: NumSchema })
export type Place = v.InferOutput<typeof PlaceSchema>

/** So much above a level: where a foot or a head is, and what follows when the level moves. */
export const LevelHeightSchema = v.strictObject({ level: IdSchema, above: NumSchema })
export type AtLevel = v.InferOutput<typeof LevelHeightSchema>

/** Gives numbers their values: plain ones as they are, formulas by the dials in reach. */
export interface Numbers {
  /** the value in SI units; errors: 'formula', 'formula-circle' (with its path), 'unknown-id' */
  value(num: Num, quantity?: Quantity): number
  length(num: Num): number
  angle(num: Num): number
  /** a profile that is kept by name, by its id; null where it is gone */
  profile?: ((id: string) => KeptProfile | null) | undefined
  /** the height of a level by its tie, m above the datum; errors: 'unknown-id', 'level-circle' (with its path) */
  height(level: string): number
}

/** A closed outline that is kept by name, in the words of moves' shapes, and the point of it (m) by which it is put in place. */
export interface KeptProfile {
  name: string
  shape: unknown
  x: Num
  y: Num
}

/** The numbers of a mass that stands: its base and the heights of all levels, m above the datum, for what is tied to levels. */
export interface StandingNumbers extends Numbers {
  base: number
  heights: ReadonlyMap<string, number>
  /** another mass, for a move that reads one; null where it is gone. Errors: 'geometry' where they read each other in a circle */
  other?: ((id: string) => OtherMass | null) | undefined
  /** what repeats make of another mass, beside that itself */
  copies?: ((id: string) => OtherMass[]) | undefined
}

/** Another mass as a move reads it: its recipe and numbers, and where it stands in the reading mass's own frame (m, degrees). */
export interface OtherMass {
  name: string
  recipe: unknown[]
  numbers: StandingNumbers
  at: { x: number; y: number; z: number; turn: number }
}

/** A quantity as it is said in a sentence. */
export const QUANTITY_NAMES: Record<Quantity, string> = {
  length: 'a length',
  angle: 'an angle',
  area: 'an area',
  number: 'a plain number',
}
