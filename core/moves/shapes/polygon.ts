import * as v from 'valibot'
import { NumSchema, refuse, type Num, type Quantity } from '../../values'
import type { ShapeKind } from './kind'

export const EdgeIdSchema = v.pipe(
  v.string(),
  v.regex(/^[a-zA-Z0-9-]{1,40}$/, "A corner's id is made of letters, digits and dashes."),
)

/**
 * A corner's id names the edge from it to the next corner, and so the face above that edge. The bulge is the tangent of a quarter of
 * the angle that the edge's arc sweeps, above zero where it swells outwards: 0 is straight, 1 a semicircle.
 */
const CornerSchema = v.strictObject({ id: EdgeIdSchema, x: NumSchema, y: NumSchema, bulge: v.optional(NumSchema, 0) })
export type Corner = v.InferOutput<typeof CornerSchema>

export interface Polygon {
  kind: 'polygon'
  corners: Corner[]
}

/** By its corners, in either sense. */
export const polygon: ShapeKind<Polygon> = {
  kind: 'polygon',
  schema: v.strictObject({
    kind: v.literal('polygon'),
    corners: v.pipe(v.array(CornerSchema), v.maxLength(2000, 'An outline has at most 2000 corners.')),
  }),
  numbers: (s) =>
    s.corners.flatMap((c): [Num, Quantity][] => [
      [c.x, 'length'],
      [c.y, 'length'],
      [c.bulge, 'number'],
    ]),
  corners: (s, numbers) =>
    s.corners.map((c) => ({
      id: c.id,
      at: [numbers.length(c.x), numbers.length(c.y)],
      bulge: numbers.value(c.bulge, 'number'),
    })),
  check: (s, name, numbers) => {
    if (new Set(s.corners.map((c) => c.id)).size !== s.corners.length)
      refuse('id-taken', `Two corners of ${name} have the same id.`, 'Give each corner its own id.')
    if (s.corners.some((c) => Math.abs(numbers.value(c.bulge, 'number')) > 20))
      refuse(
        'outline',
        `An arc of the outline of ${name} is nearly a whole circle on a short side.`,
        'Type a bulge between -20 and 20; a whole circle is an outline of its own.',
      )
  },
}
