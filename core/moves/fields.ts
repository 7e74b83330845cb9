import * as v from 'valibot'
import type { Outline } from '../solid'
import {
  FiniteSchema,
  IdSchema,
  LevelHeightSchema,
  NumSchema,
  refuse,
  type AtLevel,
  type Num,
  type Numbers,
  type Quantity,
  type StandingNumbers,
} from '../values'
import { heightAtLevel } from './at-level'
import { OutlineShapeSchema, shapeKind, type OutlineShape } from './shapes/list'
import { EdgeIdSchema, type Corner } from './shapes/polygon'

/** What a field asks for, but for its key. */
type Asked<T> = {
  label: string
  hint?: string
  /** what it is in older files, which do not have it yet */
  absent?: unknown
  /** whether it is asked for, by what else the move says */
  when?(thing: T): boolean
}

/** A number; `from` and `to` say between what it must lie; `otherwise`: what null means, where that is allowed. */
export interface NumberField<T = never> extends Asked<T> {
  is: 'number'
  quantity: Quantity
  from?: number
  to?: number
  otherwise?: string
  /** it is a direction, kept in degrees from the x axis of a frame counter-clockwise: of the mass, the site, or what a step of a rule makes */
  direction?: 'mass' | 'site' | 'rule'
  /** what it measures, where that hangs on what else is said */
  as?(thing: T): Quantity
}
/** One of a few words. */
export interface ChoiceField<T = never> extends Asked<T> {
  is: 'choice'
  options: readonly { value: string; label: string }[]
}
/** A side of the outline by the name of its edge; null is all of them, where that is allowed. */
export interface SideField<T = never> extends Asked<T> {
  is: 'side'
  all?: string
}
/** m above the mass's base, or above a level that another key (`level`) names; null, where that is allowed, is what `otherwise` says. */
export interface HeightField<T = never> extends Asked<T> {
  is: 'height'
  level: string
  otherwise?: string
}
/** Another mass, by its id; `otherwise`: what null means, where that is allowed. */
export interface MassField<T = never> extends Asked<T> {
  is: 'mass'
  otherwise?: string
}
/** A face of the form, by its name; `otherwise`: what null means, where that is allowed. */
export interface FaceField<T = never> extends Asked<T> {
  is: 'face'
  otherwise?: string
}
/** An outline of its own, in any of the shapes. */
export interface ShapeField<T = never> extends Asked<T> {
  is: 'shape'
}
/** One word that names a number for the formulas of others. */
export interface WordField<T = never> extends Asked<T> {
  is: 'word'
}
/** Plain numbers in turn, typed as a list. */
export interface ValuesField<T = never> extends Asked<T> {
  is: 'values'
}
/** A use, a material, a picture or a step above, by its id; null is what `otherwise` says. */
export interface NamedField<T = never> extends Asked<T> {
  is: 'use' | 'material' | 'named-side' | 'profile' | 'picture'
  otherwise: string
}
/** Materials in turn, by their ids. */
export interface MaterialsField<T = never> extends Asked<T> {
  is: 'materials'
}
/** A list of like things, each with an id, and fields of its own. */
export interface ListField<T = never> extends Asked<T> {
  is: 'list'
  item: Fields<never>
  /** one of it, in a word */
  one: string
  least?: number
  most: number
  /** what one begins with, put behind the last */
  next(items: readonly Item[], at: Beginning): Fielded
}
export type Item = { id: string } & Record<string, unknown>

export type Field<T = never> =
  | NumberField<T>
  | ChoiceField<T>
  | SideField<T>
  | HeightField<T>
  | FaceField<T>
  | MassField<T>
  | ShapeField<T>
  | WordField<T>
  | ValuesField<T>
  | NamedField<T>
  | MaterialsField<T>
  | ListField<T>

/** The fields of a move, or of a thing in a list of it, by their keys and in the order in which they are asked for. */
export type Fields<T> = Readonly<Record<string, Field<T>>>

/** A thing that has the fields, by their keys. */
export type Fielded = Record<string, unknown>

export const length = <T>(label: string, more: Partial<NumberField<T>> = {}): NumberField<T> => ({
  is: 'number',
  quantity: 'length',
  label,
  ...more,
})
export const angle = <T>(label: string, more: Partial<NumberField<T>> = {}): NumberField<T> => ({
  is: 'number',
  quantity: 'angle',
  label,
  ...more,
})
/** A direction in plan, in a frame. */
export const direction = <T>(
  label: string,
  of: NonNullable<NumberField['direction']>,
  more: Partial<NumberField<T>> = {},
): NumberField<T> => angle(label, { direction: of, ...more })
export const times = <T>(label: string, more: Partial<NumberField<T>> = {}): NumberField<T> => ({
  is: 'number',
  quantity: 'number',
  label,
  ...more,
})

/** One word, as formulas name dials and given numbers. */
export const WordSchema = v.pipe(
  v.string(),
  v.regex(/^\p{L}[\p{L}\p{N}_]{0,39}$/u, 'It is named by one word: a letter, then letters, digits or _.'),
)
const FaceNameSchema = v.pipe(v.string(), v.minLength(1, 'Choose a face.'), v.maxLength(2000))

type Entry = v.GenericSchema<unknown, unknown>

/** The schema of each field, by its key; a height has a second one for its level. */
export function entriesOf(fields: Fields<never>): Record<string, Entry> {
  const out: Record<string, Entry> = {}
  for (const [key, f] of Object.entries(fields))
    switch (f.is) {
      case 'number':
        out[key] = f.otherwise === undefined ? NumSchema : v.nullable(NumSchema)
        break
      case 'choice':
        out[key] = v.picklist(f.options.map((o) => o.value))
        break
      case 'side':
        out[key] = f.all === undefined ? EdgeIdSchema : v.nullable(EdgeIdSchema)
        break
      case 'face':
        out[key] = f.otherwise === undefined ? FaceNameSchema : v.nullable(FaceNameSchema)
        break
      case 'mass':
        out[key] = f.otherwise === undefined ? IdSchema : v.nullable(IdSchema)
        break
      case 'shape':
        out[key] = OutlineShapeSchema
        break
      case 'word':
        out[key] = WordSchema
        break
      case 'values':
        out[key] = v.pipe(v.array(FiniteSchema), v.minLength(1, 'Type at least one number.'), v.maxLength(5000))
        break
      case 'profile':
      case 'picture':
      case 'use':
      case 'material':
      case 'named-side':
        out[key] = v.nullable(IdSchema)
        break
      case 'materials':
        out[key] = v.pipe(v.array(IdSchema), v.maxLength(12, 'At most 12 materials take turns.'))
        break
      case 'height':
        out[key] = f.otherwise === undefined ? NumSchema : v.nullable(NumSchema)
        out[f.level] = v.nullable(LevelHeightSchema)
        break
      case 'list':
        out[key] = v.pipe(
          v.array(v.strictObject({ id: IdSchema, ...entriesOf(f.item) })),
          v.minLength(f.least ?? 0, `${f.label}: at least ${f.least ?? 0}.`),
          v.maxLength(f.most, `${f.label}: at most ${f.most}.`),
        )
    }
  for (const [key, f] of Object.entries(fields)) out[key] = orAbsent(out[key] as Entry, f)
  return out
}

/** A field's schema, or, where older files do not have it, with what it is there. */
const orAbsent = (entry: Entry, { absent }: Field): Entry =>
  absent === undefined ? entry : (v.optional(entry, absent as never) as unknown as Entry)

/** All of a thing's fields, those in its lists too, with the thing that has each. */
function* each(fields: Fields<never>, thing: Fielded): Generator<[Field, string, Fielded]> {
  for (const [key, f] of Object.entries(fields)) {
    if (f.is === 'list') for (const item of thing[key] as Item[]) yield* each(f.item, item)
    else yield [f, key, thing]
  }
}

const shapeNumbersOf = (shape: OutlineShape) => shapeKind(shape).numbers(shape)

/** What a number field of a thing measures. */
export const quantityIn = (field: NumberField, thing: Fielded): Quantity => field.as?.(thing as never) ?? field.quantity

/** The numbers of a thing, in the order of its fields; that of a level last. */
export function numbersIn(fields: Fields<never>, thing: Fielded): [Num, Quantity][] {
  const [own, ties]: [[Num, Quantity][], [Num, Quantity][]] = [[], []]
  for (const [f, key, of] of each(fields, thing)) {
    if (f.is === 'shape') own.push(...shapeNumbersOf(of[key] as OutlineShape))
    if (f.is !== 'number' && f.is !== 'height') continue
    const num = of[key] as Num | null | undefined
    if (num !== null && num !== undefined) own.push([num, f.is === 'number' ? quantityIn(f, of) : 'length'])
    const tie = f.is === 'height' ? (of[f.level] as AtLevel | null) : null
    if (tie) ties.push([tie.above, 'length'])
  }
  return [...own, ...ties]
}

export function tiesIn(fields: Fields<never>, thing: Fielded): AtLevel[] {
  return [...each(fields, thing)].flatMap(([f, , of]) =>
    f.is === 'height' ? ((of[f.level] as AtLevel | null) ?? []) : [],
  )
}

/** The thing with its ties to levels replaced. */
export function retiedIn<T extends Fielded>(fields: Fields<never>, thing: T, tie: (at: AtLevel) => AtLevel): T {
  const set: Fielded = {}
  for (const [key, f] of Object.entries(fields)) {
    if (f.is === 'list') set[key] = (thing[key] as Item[]).map((item) => retiedIn(f.item, item, tie))
    if (f.is === 'height' && thing[f.level]) set[f.level] = tie(thing[f.level] as AtLevel)
  }
  return { ...thing, ...set }
}

/** The masses that a thing reads, by their ids. */
export const massesIn = (fields: Fields<never>, thing: Fielded): string[] =>
  [...each(fields, thing)].flatMap(([f, key, of]) => (f.is === 'mass' && of[key] ? [of[key] as string] : []))

/**
 * m above the mass's base of a height field; null where it is what `otherwise` says. Errors: 'unknown-id' when its level is not there.
 */
export function heightIn(field: HeightField, key: string, thing: Fielded, numbers: StandingNumbers): number | null {
  const level = thing[field.level] as AtLevel | null
  if (level) return heightAtLevel(level, numbers, 'A height is measured from')
  const own = thing[key] as Num | null
  return own === null ? null : numbers.length(own)
}

/** What a thing hangs on besides its own numbers, as text: the heights of its levels. */
export const heightsIn = (fields: Fields<never>, thing: Fielded, numbers: StandingNumbers): string =>
  [...each(fields, thing)]
    .flatMap(([f, key, of]) => (f.is === 'height' ? [of[f.level] ? heightIn(f, key, of, numbers) : ''] : []))
    .join()

const UNIT: Record<Quantity, string> = { length: ' m', angle: ' degrees', area: ' m\u00b2', number: '' }

/** Refuses numbers that lie where they must not; `what`: "the taper of "Bar"". Errors: 'size', those of formulas. */
export function checkFields(fields: Fields<never>, thing: Fielded, what: string, numbers: StandingNumbers): void {
  for (const [f, key, of] of each(fields, thing)) {
    if (f.when && !f.when(of as never)) continue
    if (f.is === 'height') heightIn(f, key, of, numbers)
    if (f.is !== 'number' || of[key] === null || of[key] === undefined) continue
    const quantity = quantityIn(f, of)
    const value = numbers.value(of[key] as Num, quantity)
    if (quantity === 'length') numbers.length(of[key] as Num)
    const { from = -Infinity, to = Infinity } = f
    if (value >= from && value <= to) continue
    const unit = UNIT[quantity]
    refuse(
      'size',
      `"${f.label}" of ${what} is ${value}${unit}.`,
      to === Infinity
        ? `Type at least ${from}${unit}.`
        : from === -Infinity
          ? `Type at most ${to}${unit}.`
          : `Type a number from ${from} to ${to}${unit}.`,
    )
  }
}

/** What a new move may begin with: the plan that there is, and the recipe's numbers. */
export interface Beginning {
  plan: Outline[]
  /** the corners of its outline as it was drawn */ corners: Corner[]
  numbers: Numbers
  /** the names of the flat faces that it may be drawn on */ faces: readonly string[]
  /** the masses that it may read */ others: readonly { id: string; name: string }[]
  /** m: how high the mass is raised, as far as that is known */
  height: number
}
