import * as v from 'valibot'
import { FiniteSchema as Finite, IdSchema, NumSchema } from '../values'

const Point = v.tuple([Finite, Finite])

/** Part of a plate, m in the frame of its mass: within an outline, or all that lies left of a line from one point to another. */
export const WithinSchema = v.variant('kind', [
  v.strictObject({
    kind: v.literal('outline'),
    points: v.pipe(v.array(Point), v.minLength(3, 'An outline has at least three corners.')),
  }),
  v.strictObject({ kind: v.literal('left-of'), a: Point, b: Point }),
])
export type Within = v.InferOutput<typeof WithinSchema>

/** A change of the plates of one mass on some levels; its form stays as it is. */
export const PlateEditSchema = v.strictObject({
  id: IdSchema,
  order: Finite,
  mass: IdSchema,
  levels: v.pipe(v.array(IdSchema), v.minLength(1, 'Say on which levels.')),
  does: v.variant('kind', [
    /** the floor ends so far (m) within the mass */
    v.strictObject({ kind: v.literal('inset'), by: NumSchema }),
    /** that part of it is no floor */
    v.strictObject({ kind: v.literal('leave-out'), within: WithinSchema }),
    /** that part of it has another use */
    v.strictObject({ kind: v.literal('use'), within: WithinSchema, use: IdSchema }),
  ]),
})
export type PlateEdit = v.InferOutput<typeof PlateEditSchema>
