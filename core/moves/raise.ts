import * as v from 'valibot'
import { prism } from '../solid'
import { IdSchema, NumSchema, refuse, type Num } from '../values'
import type { MoveBase, MoveKind } from './kind'
import { atLeastAMillimetre } from './sizes'

export interface RaiseMove extends MoveBase { move: 'raise'; height: Num }

/** Raises the outline to an upright body. Its faces: <id>/<edge> for each side, <id>/top, <id>/base. */
export const raise: MoveKind<RaiseMove> = {
  move: 'raise',
  schema: () => v.strictObject({ id: IdSchema, on: v.boolean(), move: v.literal('raise'), height: NumSchema }),
  numbers: (m) => [[m.height, 'length']],
  inner: () => null,
  check: (m, { place, name, numbers }) => {
    if (place !== 1) refuse('geometry', `"${name}" is raised twice.`, 'Change the height of the first raise.')
    atLeastAMillimetre(numbers.length(m.height), `The height of "${name}"`)
  },
  build: (form, m, { numbers, name }) => {
    const { points, edges } = form.outline ?? refuse('geometry', `"${name}" has no outline to raise.`, 'Put an outline first.')
    const height = numbers.length(m.height)
    return { ...form, eaves: height, solid: prism(points, edges.map((e) => `${m.id}/${e}`), 0, height, `${m.id}/base`, `${m.id}/top`) }
  },
}
