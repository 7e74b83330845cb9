import * as v from 'valibot'
import {
  faceName,
  intersect,
  placePoint,
  placeSolid,
  stoppedUnder,
  subtract,
  unite,
  type Placement,
  type Solid,
} from '../solid'
import { IdSchema, NameSchema, NumSchema, PlaceSchema, refuse, tidy, type Num, type Place } from '../values'
import type { BodyForm, Form, MoveBase, MoveKind } from './kind'

export interface JoinMove<M extends MoveBase = MoveBase> extends MoveBase {
  move: 'join'
  name: string
  place: Place
  lift: Num
  /** what is made of the two bodies; joined where nothing is said */ how?: How | undefined
  recipe: M[]
}

/**
 * What is made of two bodies: both as one, the first without the second, what they have in common, or the first as far as it stands under
 * the second.
 */
export const HowSchema = v.picklist(['join', 'less', 'common', 'under'])
export type How = v.InferOutput<typeof HowSchema>

/** Unites another body, with a recipe of its own and placed in this mass's frame, with the body so far. Faces keep their names. */
export const join: MoveKind<JoinMove> = {
  move: 'join',
  called: 'a join',
  fields: {},
  takes: 'body',
  gives: 'body',
  placed: true,
  schema: (recipe) =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('join'),
      name: NameSchema,
      place: PlaceSchema,
      lift: NumSchema,
      how: v.optional(HowSchema),
      recipe,
    }),
  numbers: (m) => [
    [m.place.x, 'length'],
    [m.place.y, 'length'],
    [m.place.turn, 'angle'],
    [m.lift, 'length'],
  ],
  inner: ({ name, recipe }) => ({ name, recipe }),
  lift: (m, numbers) => numbers.length(m.lift),
  check: (m, { numbers }) => {
    for (const num of [m.place.x, m.place.y, m.lift]) numbers.length(num)
    numbers.angle(m.place.turn)
  },
  build: (form, m, { numbers, name, body }) => {
    if (!form.solid || !body)
      return refuse('geometry', `"${name}" has no body to join to.`, 'Put a raise before the join.')
    const place = {
      x: numbers.length(m.place.x),
      y: numbers.length(m.place.y),
      z: numbers.length(m.lift),
      turn: numbers.angle(m.place.turn),
    }
    return metWith(form, body, place, m.how ?? 'join', m.id)
  },
}

/** The form and another body (placed in the mass's own frame), made one, or what is left of it; `id`: the move's, for new faces. */
export function metWith(form: Form, body: BodyForm, place: Placement, how: How, id: string): Form {
  const solid = form.solid ?? refuse('geometry', 'There is no body yet.', 'Put a raise before it.')
  const under = (a: Solid, b: Solid) => stoppedUnder(a, b, (edge) => faceName(id, edge))
  const make = { join: unite, less: subtract, common: intersect, under }[how]
  return { ...form, carried: null, solid: make(solid, placedIn(form, body, place)) }
}

/** Another body, placed in the mass's own frame, where the form is built. */
export function placedIn(form: Form, body: BodyForm, place: Placement): Solid {
  const [x, y] = placePoint(body.anchor, place)
  return placeSolid(body.solid, { ...place, x: tidy(x - form.anchor[0]), y: tidy(y - form.anchor[1]) })
}
