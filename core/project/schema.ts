import * as v from 'valibot'
import { FactsSchema, LocationSchema, NO_FACTS, NO_LOCATION, SiteSchema, TerrainSchema } from '../ground'
import { DIRECTIONS, FiniteSchema as Finite, IdSchema, NameSchema, NumSchema, UnitSchema } from '../values'
import { PROJECT_COLLECTIONS, recordsOf, SCHEME_COLLECTIONS } from './collections'
import { OrderSchema, PartKindSchema } from './things'

export const SchemeSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  order: OrderSchema,
  /** put aside: it is kept, and not listed with the others */
  aside: v.optional(v.boolean(), false),
  ...recordsOf(SCHEME_COLLECTIONS),
})
export type Scheme = v.InferOutput<typeof SchemeSchema>

/**
 * Which storeys count in the floor area ratio: those at or above the datum; those with half of their height or more above ground; those
 * from a level of that name on.
 */
const RatioRuleSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('datum') }),
  v.strictObject({ kind: v.literal('half') }),
  v.strictObject({ kind: v.literal('level'), name: NameSchema }),
])

export const ProjectSchema = v.strictObject({
  id: IdSchema,
  name: NameSchema,
  unit: UnitSchema,
  /** how finely lengths are shown: digits behind the point, or, in feet, parts of an inch (8: eighths) */
  precision: v.optional(v.pipe(Finite, v.integer(), v.minValue(0), v.maxValue(64)), 3),
  /** how directions are said */
  directions: v.optional(v.picklist(DIRECTIONS), 'bearing'),
  /** degrees from upright: a face within the first is an upright wall, within the second wall-like */
  upright: v.optional(v.pipe(Finite, v.minValue(0.01), v.maxValue(10)), 0.5),
  wallLike: v.optional(v.pipe(Finite, v.minValue(0.01), v.maxValue(89)), 30),
  facts: v.optional(FactsSchema, NO_FACTS),
  location: v.optional(LocationSchema, NO_LOCATION),
  site: v.optional(v.nullable(SiteSchema), null),
  terrain: v.optional(v.nullable(TerrainSchema), null),
  ...recordsOf(PROJECT_COLLECTIONS),
  /** what gives way when a slab or a floor gets thicker: the clear height or the storey; null: not said yet */
  givesWay: v.optional(v.nullable(v.picklist(['clear', 'storey'])), null),
  /** m2, for the floor area ratio, while the site has no outline; null where not known yet */
  siteArea: v.nullable(NumSchema),
  /** which storeys count in the floor area ratio */
  ratioRule: v.optional(RatioRuleSchema, { kind: 'datum' }),
  /** least clear height of a floor that counts, m */
  headroom: NumSchema,
  /** m2; smaller pieces of floor do not count */
  smallestArea: NumSchema,
  /** m, what outer walls are taken to be thick until they stand; null: internal floor is not told until then */
  wallAllowance: v.optional(v.nullable(NumSchema), null),
  /** m from a facade, beyond which floor is found to be too deep; null: no limit */
  deepest: v.optional(v.nullable(NumSchema), null),
  /** the step of drags, m, and of turns, degrees */
  stride: v.strictObject({ length: Finite, angle: Finite }),
  /** what all parts of a kind are drawn in */
  kinds: v.optional(v.record(PartKindSchema, IdSchema), {}),
  schemes: v.record(IdSchema, SchemeSchema),
})
export type Project = v.InferOutput<typeof ProjectSchema>
export type RatioRule = v.InferOutput<typeof RatioRuleSchema>
