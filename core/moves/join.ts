import * as v from 'valibot'
import { placePoint, placeSolid, unite } from '../solid'
import { IdSchema, NameSchema, NumSchema, PlaceSchema, refuse, tidy, type Num, type Place } from '../values'
import type { MoveBase, MoveKind } from './kind'

export interface JoinMove<M extends MoveBase = MoveBase> extends MoveBase {
  move: 'join'
  name: string
  place: Place
  lift: Num
  recipe: M[]
}

/** Unites another body, with a recipe of its own and placed in this mass's frame, with the body so far. Faces keep their names. */
export const join: MoveKind<JoinMove> = {
  move: 'join',
  called: 'a join',
  fields: {},
  takes: 'body',
  gives: 'body',
  schema: (recipe) =>
    v.strictObject({
      id: IdSchema,
      on: v.boolean(),
      move: v.literal('join'),
      name: NameSchema,
      place: PlaceSchema,
      lift: NumSchema,
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
    const [x, y] = placePoint(body.anchor, place)
    const at = { ...place, x: tidy(x - form.anchor[0]), y: tidy(y - form.anchor[1]) }
    return { ...form, carried: null, solid: unite(form.solid, placeSolid(body.solid, at)) }
  },
}
