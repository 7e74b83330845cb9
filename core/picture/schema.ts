import * as v from 'valibot'
import { ShadesSchema } from './shades'
import { FiniteSchema as Finite, IdSchema, NameSchema, NumSchema } from '../values'

/**
 * Pictures and what is drawn on them. Pixels count from the picture's upper left corner, x to the right, y down;
 * everything else is metres and degrees.
 */

const OrderSchema = v.pipe(v.number(), v.finite())
const PixelSchema = v.tuple([Finite, Finite])
export const AssetSchema = v.pipe(
  v.string(),
  v.regex(/^[0-9a-f]{64}$/, 'An asset is named by the SHA-256 of its content, 64 digits of 0-9 and a-f.'),
)
export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/webp'] as const

/** Two points of known distance; `level` says that they lie level, or plumb, and so how the picture is tilted. */
export const PairSchema = v.strictObject({
  id: IdSchema,
  a: PixelSchema,
  b: PixelSchema,
  length: NumSchema,
  lies: v.picklist(['anyhow', 'level', 'plumb']),
})
export type Pair = v.InferOutput<typeof PairSchema>

/** What a point of the picture is tied to in the model. */
export const AnchorSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('point'), x: NumSchema, y: NumSchema, z: NumSchema }),
  /** the middle of a mass's plan, at its foot */
  v.strictObject({ kind: v.literal('centre'), mass: IdSchema }),
  /** a corner of a mass's plan, counted from zero, at its foot */
  v.strictObject({ kind: v.literal('corner'), mass: IdSchema, corner: v.pipe(v.number(), v.integer(), v.minValue(0)) }),
  /** the axis through the centre of a circle measured in another picture */
  v.strictObject({ kind: v.literal('axis'), measure: IdSchema }),
])
export type Anchor = v.InferOutput<typeof AnchorSchema>

/**
 * Where a picture is laid: in plan at a level, or upright, facing a viewer who stands at an azimuth (degrees from
 * east, counter-clockwise).
 */
export const StandSchema = v.strictObject({
  id: IdSchema,
  lies: v.variant('kind', [
    v.strictObject({ kind: v.literal('plan'), level: v.nullable(IdSchema), above: NumSchema }),
    v.strictObject({ kind: v.literal('upright'), azimuth: NumSchema, toward: NumSchema }),
  ]),
  shown: v.boolean(),
  front: v.boolean(),
})
export type Stand = v.InferOutput<typeof StandSchema>

export const PictureSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  asset: AssetSchema,
  type: v.picklist(PICTURE_TYPES),
  width: v.pipe(v.number(), v.integer(), v.minValue(1)),
  height: v.pipe(v.number(), v.integer(), v.minValue(1)),
  /** left, top, right, bottom; null: all of it is shown */
  crop: v.nullable(v.tuple([Finite, Finite, Finite, Finite])),
  /** turned by hand, counter-clockwise, beside the tilt that its pairs take off */
  turn: NumSchema,
  opacity: v.pipe(
    Finite,
    v.minValue(0.05, 'An opacity lies between 0.05 and 1.'),
    v.maxValue(1, 'An opacity lies between 0.05 and 1.'),
  ),
  locked: v.boolean(),
  pairs: v.pipe(v.array(PairSchema), v.maxLength(100, 'A picture takes at most 100 pairs.')),
  pin: v.strictObject({ px: PixelSchema, to: AnchorSchema }),
  stands: v.array(StandSchema),
  /** how dark it is, for rules; not there before one has asked */
  shades: v.optional(ShadesSchema),
})
export type Picture = v.InferOutput<typeof PictureSchema>

/** What a measure measures, in which quantity, and how many points it takes. */
export const MEASURES = {
  distance: { quantity: 'length', points: [2, 2] },
  rise: { quantity: 'length', points: [2, 2] },
  angle: { quantity: 'angle', points: [3, 3] },
  radius: { quantity: 'length', points: [3, 3] },
  area: { quantity: 'area', points: [3, 500] },
} as const
export const MeasureKindSchema = v.picklist(['distance', 'rise', 'angle', 'radius', 'area'])
export type MeasureKind = v.InferOutput<typeof MeasureKindSchema>

/** A kept measure: on a picture by pixels, or on the model by world points (picture: null). */
export const KeptMeasureSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  kind: MeasureKindSchema,
  picture: v.nullable(IdSchema),
  points: v.pipe(v.array(v.pipe(v.array(Finite), v.minLength(2), v.maxLength(3))), v.minLength(2), v.maxLength(500)),
  /** another measure of the same thing, which should agree */
  same: v.nullable(IdSchema),
})
export type KeptMeasure = v.InferOutput<typeof KeptMeasureSchema>

/**
 * Lines traced on a picture, in its pixels: an outline with its holes, or an open line. Bulges as those of outlines,
 * for the side behind each point.
 */
export const TraceSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  picture: IdSchema,
  closed: v.boolean(),
  loops: v.pipe(
    v.array(
      v.strictObject({
        points: v.pipe(v.array(PixelSchema), v.minLength(2), v.maxLength(2000)),
        bulges: v.array(Finite),
      }),
    ),
    v.minLength(1),
  ),
})
export type Trace = v.InferOutput<typeof TraceSchema>
