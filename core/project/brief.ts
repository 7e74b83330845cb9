import * as v from 'valibot'
import { FiniteSchema as Finite, IdSchema, NameSchema, NumSchema, type Quantity } from '../values'

/** A share of a whole, 0 to 1. */
export const ShareSchema = v.pipe(
  Finite,
  v.minValue(0, 'A share lies between 0 and 100 %.'),
  v.maxValue(1, 'A share lies between 0 and 100 %.'),
)

/** The figures of a scheme that a limit can be set to, beside the areas of uses. */
export const LIMITED = ['area', 'ratio', 'coverage', 'height', 'volume', 'footprint'] as const
export type Limited = (typeof LIMITED)[number]

/** What a line of the brief is about: the area of a use, a number of things of a size (m2 each), or a figure of the whole. */
export const BriefOfSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('use'), use: IdSchema, measure: v.picklist(['gross', 'net']) }),
  v.strictObject({
    kind: v.literal('count'),
    use: IdSchema,
    /** m2 of one of them */ size: NumSchema,
    measure: v.picklist(['gross', 'net']),
  }),
  v.strictObject({ kind: v.literal('figure'), figure: v.picklist(LIMITED) }),
])
export type BriefOf = v.InferOutput<typeof BriefOfSchema>

/** One line of the brief, which all schemes share: what is wanted, and how near is near enough. SI units. */
export const BriefLineSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: Finite,
  of: BriefOfSchema,
  /** about so much, at least, or at most */
  bound: v.picklist(['about', 'least', 'most']),
  target: NumSchema,
  /** the share of the target that it may be off by */
  tolerance: ShareSchema,
})
export type BriefLine = v.InferOutput<typeof BriefLineSchema>

/** What two lines may not both be about. */
export const briefKey = (of: BriefOf): string =>
  of.kind === 'figure' ? of.figure : `${of.kind} ${of.use} ${of.measure}`

/** What the target of a line is measured in. */
export const quantityOf = (of: BriefOf): Quantity =>
  of.kind === 'use'
    ? 'area'
    : of.kind === 'count'
      ? 'number'
      : of.figure === 'area' || of.figure === 'footprint'
        ? 'area'
        : of.figure === 'height'
          ? 'length'
          : 'number'
