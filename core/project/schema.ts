import * as v from 'valibot'
import { RecipeSchema } from '../moves'
import { FiniteSchema as Finite, IdSchema, NameSchema, NumSchema, PlaceSchema, QuantitySchema, UnitSchema } from '../values'

/**
 * The project as plain data. Lengths are metres, areas m2, angles degrees; x east, y north, z up.
 * Every field is always present (null where there is nothing), so that a change and its inverse are the same shape.
 */

const OrderSchema = v.pipe(v.number(), v.finite())

export const UseSchema = v.strictObject({
  id: IdSchema, name: NameSchema, order: OrderSchema,
  colour: v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'A colour is written #rrggbb.')),
  /** whether its floors count in the floor area ratio */
  counts: v.boolean(),
})
export type Use = v.InferOutput<typeof UseSchema>

export const DialSchema = v.strictObject({
  id: IdSchema, order: OrderSchema,
  name: v.pipe(v.string(), v.regex(/^\p{L}[\p{L}\p{N}_]{0,39}$/u, 'A dial is named by one word: a letter, then letters, digits or _.')),
  quantity: QuantitySchema, value: NumSchema,
  least: v.nullable(Finite), most: v.nullable(Finite), step: v.nullable(Finite),
})
export type Dial = v.InferOutput<typeof DialSchema>

export const LevelTieSchema = v.variant('kind', [
  /** so much above (or, negative, below) the level it stands on */
  v.strictObject({ kind: v.literal('stacked'), on: IdSchema, above: NumSchema }),
  /** its own height from the datum */
  v.strictObject({ kind: v.literal('fixed'), height: NumSchema }),
])
export type LevelTie = v.InferOutput<typeof LevelTieSchema>

export const LevelSchema = v.strictObject({
  id: IdSchema, name: NameSchema,
  kind: v.picklist(['storey', 'mark']),
  tie: LevelTieSchema,
  /** from the top of the structural slab up to the finished floor, which is the level */
  floorBuildUp: NumSchema,
})
export type Level = v.InferOutput<typeof LevelSchema>

export const TakesSchema = v.strictObject({
  /** all storeys that cut the mass but those listed, or only those listed */
  kind: v.picklist(['all-but', 'only']), levels: v.array(IdSchema),
})

export const MassSchema = v.strictObject({
  id: IdSchema, name: NameSchema, order: OrderSchema, use: IdSchema,
  base: v.strictObject({ level: IdSchema, above: NumSchema }),
  place: PlaceSchema, takes: TakesSchema, recipe: RecipeSchema,
})
export type Mass = v.InferOutput<typeof MassSchema>

export const BuildUpSchema = v.strictObject({
  id: IdSchema, name: NameSchema, order: OrderSchema, for: v.picklist(['wall', 'slab', 'roof']),
  /** outside to inside, or top to bottom */
  layers: v.pipe(v.array(v.strictObject({ name: NameSchema, material: NameSchema, thickness: NumSchema })), v.minLength(1, 'A build-up needs at least one layer.')),
})
export type BuildUp = v.InferOutput<typeof BuildUpSchema>

const LoopSchema = v.array(v.array(Finite))

/** What a part saw of its host when it was last in line with it; see fabric/print.ts. */
export const PrintSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('face'), zFrom: IdSchema, normal: v.tuple([Finite, Finite, Finite]), distance: Finite, loops: v.array(LoopSchema), edges: v.array(v.array(v.string())) }),
  v.strictObject({ kind: v.literal('plate'), form: v.string(), loops: v.array(LoopSchema) }),
])
export type Print = v.InferOutput<typeof PrintSchema>

export const PartSchema = v.strictObject({
  id: IdSchema, name: NameSchema, order: OrderSchema,
  kind: v.picklist(['wall', 'slab', 'roof']),
  buildUp: IdSchema,
  /** where the thickness lies: inside the mass face or outside of it */
  side: v.picklist(['inside', 'outside']),
  /** the mass face it stands on; piece tells which piece of it, by the faces at its two ends. A slab's face is 'plate'. */
  host: v.strictObject({ mass: IdSchema, face: v.string(), piece: v.string() }),
  /** the level it stands on, and the level it reaches up to (null: the top of its face) */
  base: v.nullable(v.strictObject({ level: IdSchema, above: NumSchema })),
  top: v.nullable(v.strictObject({ level: IdSchema, above: NumSchema })),
  /** roofs: level, at a right angle to the eaves edge */
  overhang: NumSchema,
  print: PrintSchema,
})
export type Part = v.InferOutput<typeof PartSchema>

export const SchemeSchema = v.strictObject({
  id: IdSchema, name: NameSchema, order: OrderSchema,
  dials: v.record(IdSchema, DialSchema), levels: v.record(IdSchema, LevelSchema),
  masses: v.record(IdSchema, MassSchema), parts: v.record(IdSchema, PartSchema),
})
export type Scheme = v.InferOutput<typeof SchemeSchema>

export const ProjectSchema = v.strictObject({
  id: IdSchema, name: NameSchema, unit: UnitSchema,
  /** m2, for the floor area ratio; null where not known yet */
  siteArea: v.nullable(NumSchema),
  /** least clear height of a floor that counts, m */
  headroom: NumSchema,
  /** m2; smaller pieces of floor do not count */
  smallestArea: NumSchema,
  /** the step of drags, m, and of turns, degrees */
  stride: v.strictObject({ length: Finite, angle: Finite }),
  uses: v.record(IdSchema, UseSchema), dials: v.record(IdSchema, DialSchema), buildUps: v.record(IdSchema, BuildUpSchema),
  schemes: v.record(IdSchema, SchemeSchema),
})
export type Project = v.InferOutput<typeof ProjectSchema>
