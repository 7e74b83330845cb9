import * as v from 'valibot'
import { AssetSchema } from '../picture'
import { FiniteSchema as Finite, IdSchema, NameSchema, NumSchema } from '../values'

/** What is there before a form is: who the project is for, where it lies, its site, its ground and what stands around. Metres, degrees; x east, y project north. */

const OrderSchema = v.pipe(v.number(), v.finite())
const TextSchema = v.pipe(v.string(), v.maxLength(400, 'A text of the project data has at most 400 characters.'))

/** Project data, entered once; it appears wherever a drawing or a file needs it. */
export const FactsSchema = v.strictObject({
  number: TextSchema,
  client: TextSchema,
  address: TextSchema,
  stage: TextSchema,
  author: TextSchema,
  custom: v.pipe(
    v.array(v.strictObject({ id: IdSchema, name: NameSchema, text: TextSchema })),
    v.maxLength(50, 'At most 50 fields of your own.'),
  ),
})
export type Facts = v.InferOutput<typeof FactsSchema>
export const NO_FACTS: Facts = { number: '', client: '', address: '', stage: '', author: '', custom: [] }

/** Where the project's zero lies on the earth. */
export const LocationSchema = v.strictObject({
  latitude: v.nullable(
    v.pipe(
      Finite,
      v.minValue(-90, 'A latitude lies between -90 and 90 degrees.'),
      v.maxValue(90, 'A latitude lies between -90 and 90 degrees.'),
    ),
  ),
  longitude: v.nullable(
    v.pipe(
      Finite,
      v.minValue(-180, 'A longitude lies between -180 and 180 degrees.'),
      v.maxValue(180, 'A longitude lies between -180 and 180 degrees.'),
    ),
  ),
  timeZone: v.pipe(v.string(), v.maxLength(60)),
  /** clockwise from project north to true north */
  trueNorth: Finite,
  /** map coordinates of the project's zero: what is taken off surveyed coordinates; null: they are taken as they are */
  zero: v.nullable(v.tuple([Finite, Finite, Finite])),
  /** the system that the map coordinates are in, 'EPSG:25832'; null: not said */
  system: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(60))), null),
})
export type Location = v.InferOutput<typeof LocationSchema>
export const NO_LOCATION: Location = {
  latitude: null,
  longitude: null,
  timeZone: '',
  trueNorth: 0,
  zero: null,
  system: null,
}

/** A corner of the site and the side from it to the next: its setback, and a limit that rises from it. */
export const SiteCornerSchema = v.strictObject({
  id: IdSchema,
  x: NumSchema,
  y: NumSchema,
  setback: NumSchema,
  /** from a height (m above the datum) at the boundary, inwards at an angle (degrees) */
  slope: v.nullable(v.strictObject({ from: NumSchema, angle: NumSchema })),
})
export type SiteCorner = v.InferOutput<typeof SiteCornerSchema>
export const SiteSchema = v.strictObject({
  corners: v.pipe(v.array(SiteCornerSchema), v.maxLength(2000, 'A site has at most 2000 corners.')),
  /** the permitted height, m above the datum; null: none is set */
  limit: v.nullable(NumSchema),
})
export type Site = v.InferOutput<typeof SiteSchema>

export const TerrainSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('level'), height: NumSchema }),
  /** surveyed points and lines, kept as an asset; see survey.ts */
  v.strictObject({
    kind: v.literal('survey'),
    asset: AssetSchema,
    name: NameSchema,
    points: v.pipe(v.number(), v.integer()),
    lines: v.pipe(v.number(), v.integer()),
  }),
])
export type Terrain = v.InferOutput<typeof TerrainSchema>

/** What stands next to the site: drawn, never counted. */
export const NeighbourSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  outline: v.pipe(
    v.array(v.tuple([Finite, Finite])),
    v.minLength(3, 'A neighbour needs at least three corners.'),
    v.maxLength(2000),
  ),
  /** m above the datum; null: on the ground at its middle */
  base: v.nullable(NumSchema),
  height: NumSchema,
})
export type Neighbour = v.InferOutput<typeof NeighbourSchema>

/** A part of the building in plan, on the common origin. Its outline takes the masses in it; a mass can be told which wing it belongs to. */
export const WingSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  outline: v.nullable(
    v.pipe(
      v.array(v.tuple([Finite, Finite])),
      v.minLength(3, 'A wing needs at least three corners.'),
      v.maxLength(2000),
    ),
  ),
})
export type Wing = v.InferOutput<typeof WingSchema>

/** Project data as lines to be read: what is not said is left out. */
export const factLines = ({ facts: f }: { facts: Facts }): string[] =>
  [
    ['number', f.number],
    ['client', f.client],
    ['address', f.address],
    ['stage', f.stage],
    ['author', f.author],
    ...f.custom.map((c) => [c.name, c.text]),
  ].flatMap(([name, text]) => (text?.trim() ? [`${name}: ${text}`] : []))
