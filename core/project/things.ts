import * as v from 'valibot'
import { OutlineShapeSchema, RecipeSchema } from '../moves'
import { FiniteSchema as Finite, IdSchema, NameSchema, NumSchema, PlaceSchema, QuantitySchema } from '../values'
import { ShareSchema } from './brief'

/**
 * The project as plain data. Lengths are metres, areas m2, angles degrees; x east, y north, z up.
 * Every field is always present (null where there is nothing), so that a change and its inverse are the same shape.
 */

export const OrderSchema = v.pipe(v.number(), v.finite())

const ColourSchema = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'A colour is written #rrggbb.'))

/** What a use is drawn with over its colour, so that uses are told apart without it. */
export const USE_PATTERNS = ['plain', 'rising', 'lying', 'upright', 'crossed', 'falling', 'dotted', 'woven'] as const
export type UsePattern = (typeof USE_PATTERNS)[number]

export const UseSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  colour: ColourSchema,
  /** null: by its place among the uses */
  pattern: v.optional(v.nullable(v.picklist(USE_PATTERNS)), null),
  /** whether its floors count in the floor area ratio */
  counts: v.boolean(),
  /** net over internal floor, 0 to 1; null: not said */
  efficiency: v.optional(v.nullable(ShareSchema), null),
  /** the share of internal floor that cores take where none are drawn */
  cores: v.optional(ShareSchema, 0),
})
export type Use = v.InferOutput<typeof UseSchema>

export const DialSchema = v.strictObject({
  id: IdSchema,
  order: OrderSchema,
  name: v.pipe(
    v.string(),
    v.regex(/^\p{L}[\p{L}\p{N}_]{0,39}$/u, 'A dial is named by one word: a letter, then letters, digits or _.'),
  ),
  quantity: QuantitySchema,
  value: NumSchema,
  least: v.nullable(Finite),
  most: v.nullable(Finite),
  step: v.nullable(Finite),
})
export type Dial = v.InferOutput<typeof DialSchema>

/** A closed outline that is kept by name: moves, grooves and the like use it, and follow it. x, y: its insertion point, m in its own frame. */
export const ProfileSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  shape: OutlineShapeSchema,
  x: NumSchema,
  y: NumSchema,
})
export type Profile = v.InferOutput<typeof ProfileSchema>

/** The values of several dials together, by a name; those of dials that are gone are passed over. */
export const DialSetSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  values: v.record(IdSchema, Finite),
})
export type DialSet = v.InferOutput<typeof DialSetSchema>

export const LevelTieSchema = v.variant('kind', [
  /** so much above (or, negative, below) the level it stands on */
  v.strictObject({ kind: v.literal('stacked'), on: IdSchema, above: NumSchema }),
  /** its own height from the datum */
  v.strictObject({ kind: v.literal('fixed'), height: NumSchema }),
])
export type LevelTie = v.InferOutput<typeof LevelTieSchema>

export const LevelSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  kind: v.picklist(['storey', 'mark']),
  tie: LevelTieSchema,
  /** from the top of the structural slab up to the finished floor, which is the level */
  floorBuildUp: NumSchema,
  /** the structural slab under it; 0 while it is not known */
  slab: v.optional(NumSchema, 0),
})
export type Level = v.InferOutput<typeof LevelSchema>

export const TakesSchema = v.strictObject({
  /** all storeys that cut the mass but those listed, or only those listed */
  kind: v.picklist(['all-but', 'only']),
  levels: v.array(IdSchema),
})

/** Another use from one storey up to another, both with it. */
const StoreyUseSchema = v.strictObject({ id: IdSchema, use: IdSchema, from: IdSchema, to: IdSchema })
export type StoreyUse = v.InferOutput<typeof StoreyUseSchema>

export const MassSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  use: IdSchema,
  base: v.strictObject({ level: IdSchema, above: NumSchema }),
  place: PlaceSchema,
  takes: TakesSchema,
  recipe: RecipeSchema,
  /** what stands around and is drawn, but gives no floors, no fabric and no figures */
  context: v.optional(v.boolean(), false),
  /** it projects (a canopy, a balcony): no floor and no volume of the totals, listed apart; it covers the site, or not */
  projecting: v.optional(v.nullable(v.picklist(['apart', 'covers']))),
  /** what it gives instead of floor: a void takes floor off on each level that it passes; a core is gross floor, and none of the net */
  gives: v.optional(v.nullable(v.picklist(['void', 'core']))),
  /** storeys that have another use; the last that holds counts */
  storeyUses: v.optional(v.array(StoreyUseSchema)),
  /** the wing that it was told to belong to; null: the one that holds most of its plan */
  wing: v.optional(v.nullable(IdSchema), null),
  /** the group that it is picked, moved and copied with, by its name */
  group: v.optional(v.nullable(NameSchema)),
  /** what it is drawn in; null: paper */
  material: v.optional(v.nullable(IdSchema), null),
  /** by face, what differs from the mass */
  faces: v.optional(v.record(v.string(), IdSchema), {}),
})
export type Mass = v.InferOutput<typeof MassSchema>

/** The kinds of fabric; a terrace is a flat top that is walked on, a parapet its upstand. */
export const PartKindSchema = v.picklist(['wall', 'slab', 'roof', 'terrace', 'parapet'])
export type PartKind = v.InferOutput<typeof PartKindSchema>

/** What things are drawn in; opacity 1 is solid, less is seen through. */
export const MaterialSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  colour: ColourSchema,
  opacity: v.pipe(
    Finite,
    v.minValue(0.05, 'An opacity lies between 0.05 and 1.'),
    v.maxValue(1, 'An opacity lies between 0.05 and 1.'),
  ),
})
export type Material = v.InferOutput<typeof MaterialSchema>

export const BuildUpSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  for: PartKindSchema,
  /** outside to inside, or top to bottom */
  layers: v.pipe(
    v.array(v.strictObject({ id: IdSchema, name: NameSchema, material: NameSchema, thickness: NumSchema })),
    v.minLength(1, 'A build-up needs at least one layer.'),
  ),
})
export type BuildUp = v.InferOutput<typeof BuildUpSchema>

const LoopSchema = v.array(v.array(Finite))

/** What a part saw of its host when it was last in line with it; see fabric/print.ts. */
export const PrintSchema = v.variant('kind', [
  v.strictObject({
    kind: v.literal('face'),
    zFrom: IdSchema,
    normal: v.tuple([Finite, Finite, Finite]),
    distance: Finite,
    /** x, y, z of each corner; z above zFrom, or above zTo where a fourth entry is 1 */
    loops: v.array(LoopSchema),
    edges: v.array(v.array(v.string())),
    /** the level that the face reaches up to, where it is tied to one */
    zTo: v.optional(v.nullable(IdSchema), null),
    /** the circle of a curved face: x, y, radius, angle it begins at, its sweep (radians), number of facets */
    round: v.optional(v.nullable(v.tuple([Finite, Finite, Finite, Finite, Finite, Finite])), null),
    /** a twisted or doubly curved face between two heights: the points of its edge below and above */
    rows: v.optional(v.nullable(v.tuple([LoopSchema, LoopSchema])), null),
    /** the form without its levels, by content: while it is the same, only levels can have moved */
    form: v.optional(v.string(), ''),
  }),
  /** `sides`: by what kinds of face the floor is bounded, by content */
  v.strictObject({
    kind: v.literal('plate'),
    form: v.string(),
    loops: v.array(LoopSchema),
    sides: v.optional(v.string(), ''),
  }),
])
export type Print = v.InferOutput<typeof PrintSchema>

export const PartSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  kind: PartKindSchema,
  buildUp: IdSchema,
  /** how it takes its face: as it is; by an upright wall in each storey; by flat facets in each storey */
  follow: v.optional(v.picklist(['face', 'upright', 'facets']), 'face'),
  /** where the thickness lies: inside the mass face or outside of it */
  side: v.picklist(['inside', 'outside']),
  /** the mass face it stands on; piece tells which piece of it, by the faces at its two ends. A slab's face is 'plate'. */
  host: v.strictObject({ mass: IdSchema, face: v.string(), piece: v.string() }),
  /** the level it stands on, and the level it reaches up to (null: the top of its face) */
  base: v.nullable(v.strictObject({ level: IdSchema, above: NumSchema })),
  top: v.nullable(v.strictObject({ level: IdSchema, above: NumSchema })),
  /** roofs: level, at a right angle to the eaves edge */
  overhang: NumSchema,
  /** by the face beyond an edge, what differs from the overhang */
  overhangs: v.optional(v.record(v.string(), NumSchema), {}),
  /** parapets: how high above the top they stand on */
  rise: v.optional(NumSchema, 0),
  /** let go on purpose: it stays as it is, and asks for nothing */
  letGo: v.optional(v.boolean(), false),
  /** the heights (m above the datum) of the levels that it hung on when it was let go: it keeps them until it is tied again */
  stays: v.optional(v.nullable(v.record(IdSchema, Finite)), null),
  /** kept as it is: the state of its host, by content, that it was looked at and left; null: none */
  kept: v.optional(v.nullable(v.string()), null),
  print: PrintSchema,
})
export type Part = v.InferOutput<typeof PartSchema>

const Point = v.tuple([Finite, Finite, Finite])
/** A kept view says itself all that it shows, and how; no other thing changes it. */
export const ViewSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  pane: v.picklist(['3d', 'plan', 'elevation', 'section']),
  /** world coordinates, m; degrees; pixels to a metre at a pane of 1000 pixels */
  camera: v.strictObject({ target: Point, azimuth: Finite, elevation: Finite, scale: Finite }),
  /** the level that the blade stands at; null: nothing is cut */
  blade: v.nullable(IdSchema),
  shows: v.strictObject({
    masses: v.picklist(['solid', 'see-through', 'hidden']),
    fabric: v.boolean(),
    context: v.boolean(),
    labels: v.boolean(),
    materials: v.boolean(),
    /** levels as lines and planes: none, marks only, or all */
    levels: v.optional(v.picklist(['none', 'marks', 'all']), 'marks'),
    pictures: v.optional(v.boolean(), true),
    terrain: v.optional(v.boolean(), true),
    envelope: v.optional(v.boolean(), true),
  }),
  /** where an elevation looks from, or a section cuts: degrees from east, and m from zero towards the viewer */
  upright: v.optional(v.nullable(v.strictObject({ azimuth: Finite, toward: Finite })), null),
  /** things left out of it, by id */
  hidden: v.array(IdSchema),
})
export type KeptView = v.InferOutput<typeof ViewSchema>

/** A finding that was looked at and is left, with the reason. */
export const MuteSchema = v.strictObject({
  id: IdSchema,
  finding: v.pipe(v.string(), v.minLength(1), v.maxLength(400)),
  reason: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say why it is left.'), v.maxLength(400)),
})
export type Mute = v.InferOutput<typeof MuteSchema>
