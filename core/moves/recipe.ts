import * as v from 'valibot'
import { refuse, type Num, type Numbers, type Quantity } from '../values'
import type { Form, MoveKind } from './kind'
import { MOVES, type Move } from './list'

/** A recipe: an outline, a raise, then further moves. Each can be switched off and edited for ever. */
export const RecipeSchema: v.GenericSchema<unknown, Move[]> = v.pipe(v.array(v.lazy(() => MoveSchema)), v.maxLength(200, 'A recipe has at most 200 moves.'))
const MoveSchema = v.variant('move', MOVES.map((k) => k.schema(v.lazy(() => RecipeSchema))) as never) as unknown as v.GenericSchema<unknown, Move>

/** Builds a recipe in the mass's own frame. Errors: 'geometry', 'size', 'outline' with the mass's name. */
export function buildRecipe(recipe: Move[], numbers: Numbers, name: string): Form {
  return recipe.filter((m) => m.on).reduce<Form>((form, move) => {
    const inner = kindOf(move).inner(move)
    return kindOf(move).build(form, move, { numbers, name, body: inner && buildRecipe(inner.recipe, numbers, inner.name) })
  }, { outline: null, solid: null, anchor: [0, 0], eaves: 0, ridge: null })
}

/** Refuses a recipe that cannot be built. Checked once per recipe and set of values. */
export function checkRecipe(recipe: Move[], name: string, numbers: Numbers): void {
  const values = recipeKey(recipe, numbers)
  if (checked.get(recipe) === values) return
  const active = recipe.filter((m) => m.on)
  if (active[0]?.move !== 'outline') refuse('geometry', `The recipe of "${name}" does not begin with an outline.`, 'Put an outline first.')
  if (active[1]?.move !== 'raise') refuse('geometry', `The recipe of "${name}" does not raise its outline.`, 'Put a raise behind the outline.')
  active.forEach((move, place) => {
    kindOf(move).check(move, { place, name, numbers })
    const inner = kindOf(move).inner(move)
    if (inner) checkRecipe(inner.recipe, inner.name, numbers)
  })
  checked.set(recipe, values)
}
const checked = new WeakMap<Move[], string>()

/** All numbers of a recipe with what they measure, in a fixed order. */
export const recipeNumbers = (recipe: Move[]): [Num, Quantity][] =>
  recipe.flatMap((m) => [...kindOf(m).numbers(m), ...recipeNumbers(kindOf(m).inner(m)?.recipe ?? [])])

/** The values of all numbers of a recipe. */
export const recipeKey = (recipe: Move[], numbers: Numbers): string => recipeNumbers(recipe).map(([num, q]) => numbers.value(num, q)).join(' ')

/** All ids of moves, those of joined bodies too. */
export const moveIds = (recipe: Move[]): string[] => recipe.flatMap((m) => [m.id, ...moveIds(kindOf(m).inner(m)?.recipe ?? [])])

function kindOf(move: Move): MoveKind<Move> {
  const kind = MOVES.find((k) => k.move === move.move) ?? refuse('geometry', `"${move.move}" is no move that this Geotome knows.`, 'Update Geotome.')
  return kind as unknown as MoveKind<Move>
}
