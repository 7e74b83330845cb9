import * as v from 'valibot'
import { Refusal, refuse, tidy, type AtLevel, type Num, type Quantity, type StandingNumbers } from '../values'
import type { Form, MoveKind } from './kind'
import { MOVES, type Move } from './list'

/** A recipe: an outline and a raise, or a body from a file; then further moves. Each can be switched off and edited for ever. */
export const RecipeSchema: v.GenericSchema<unknown, Move[]> = v.pipe(
  v.array(v.lazy(() => MoveSchema)),
  v.maxLength(200, 'A recipe has at most 200 moves.'),
)
const MoveSchema = v.variant(
  'move',
  MOVES.map((k) => k.schema(v.lazy(() => RecipeSchema))) as never,
) as unknown as v.GenericSchema<unknown, Move>

/**
 * Builds a recipe in the mass's own frame. A move that cannot be made on a body that is there already is left out and noted, so that the rest
 * stands. Errors: 'geometry', 'size', 'outline' with the mass's name, where there is no body at all.
 */
export function buildRecipe(recipe: Move[], numbers: StandingNumbers, name: string): Form {
  return recipe
    .filter((m) => m.on)
    .reduce<Form>(
      (form, move) => {
        try {
          const inner = innerOf(move)
          const body = inner && buildRecipe(inner.recipe, within(move, numbers), inner.name)
          const built = kindOf(move).build(form, move, { numbers, name, body })
          return body?.leftOut.length ? { ...built, leftOut: [...built.leftOut, ...body.leftOut] } : built
        } catch (e) {
          if (!(e instanceof Refusal) || !form.solid) throw e
          return { ...form, leftOut: [...form.leftOut, { id: move.id, say: e.say, remedy: e.remedy }] }
        }
      },
      { outline: null, swept: null, solid: null, anchor: [0, 0], eaves: 0, ridge: null, leftOut: [] },
    )
}

/** The numbers of the recipe within a move: its base lies where the move lifts it to. */
const within = (move: Move, numbers: StandingNumbers): StandingNumbers => {
  const lift = kindOf(move).lift?.(move, numbers) ?? 0
  return lift === 0 ? numbers : { ...numbers, base: tidy(numbers.base + lift) }
}

/** Refuses a recipe that cannot be built. Checked once per recipe and set of values. */
export function checkRecipe(recipe: Move[], name: string, numbers: StandingNumbers, depth = 0): void {
  if (depth > DEEPEST)
    refuse(
      'geometry',
      `The recipe of "${name}" has bodies joined within joined bodies more than ${DEEPEST} deep.`,
      'Join them to one mass, one after the other.',
    )
  const values = recipeKey(recipe, numbers)
  if (checked.get(recipe) === values) return
  const active = recipe.filter((m) => m.on)
  if (active[0]?.move !== 'outline' && active[0]?.move !== 'body')
    refuse('geometry', `The recipe of "${name}" does not begin with an outline.`, 'Put an outline first.')
  if (active[0]?.move === 'outline' && active[1]?.move !== 'raise')
    refuse('geometry', `The recipe of "${name}" does not raise its outline.`, 'Put a raise behind the outline.')
  active.forEach((move, place) => {
    kindOf(move).check(move, { place, before: active.slice(0, place), name, numbers })
    const inner = innerOf(move)
    if (inner) checkRecipe(inner.recipe, inner.name, within(move, numbers), depth + 1)
  })
  checked.set(recipe, values)
}
const checked = new WeakMap<Move[], string>()
/** how deep joined bodies may stand within joined ones */
const DEEPEST = 24

/** All numbers of a recipe with what they measure, in a fixed order. */
export const recipeNumbers = (recipe: Move[]): [Num, Quantity][] =>
  recipe.flatMap((m) => [...kindOf(m).numbers(m), ...recipeNumbers(innerOf(m)?.recipe ?? [])])

/** What a recipe's form is computed from besides its text: the values of all its numbers, and the heights of levels that it is tied to. */
export const recipeKey = (recipe: Move[], numbers: StandingNumbers): string =>
  `${valuesKey(recipe, numbers)}${dependsKey(recipe, numbers)}`

/** The values of all its numbers alone: equal for two forms that differ only because levels have moved. */
export const valuesKey = (recipe: Move[], numbers: Pick<StandingNumbers, 'value'>): string =>
  recipeNumbers(recipe)
    .map(([num, q]) => numbers.value(num, q))
    .join(' ')

const dependsKey = (recipe: Move[], numbers: StandingNumbers): string =>
  recipe
    .map((m) => {
      const depends = kindOf(m).dependsOn?.(m, numbers)
      const inner = innerOf(m)
      return `${depends ? ` ${m.id}:${depends}` : ''}${inner ? dependsKey(inner.recipe, within(m, numbers)) : ''}`
    })
    .join('')

/** The levels that a recipe is tied to, those of joined bodies too. */
export const recipeTies = (recipe: Move[]): AtLevel[] =>
  recipe.flatMap((m) => [...(kindOf(m).ties?.(m) ?? []), ...recipeTies(innerOf(m)?.recipe ?? [])])

/** The recipe with its ties to levels replaced. */
export const withTies = (recipe: Move[], tie: (tie: AtLevel) => AtLevel): Move[] =>
  recipe.map((m) => {
    const own = kindOf(m).retied?.(m, tie) ?? m
    return own.move === 'join' ? { ...own, recipe: withTies(own.recipe, tie) } : own
  })

/** All ids of moves, those of joined bodies too. */
export const moveIds = (recipe: Move[]): string[] => recipe.flatMap((m) => [m.id, ...moveIds(innerOf(m)?.recipe ?? [])])

function kindOf(move: Move): MoveKind<Move> {
  const kind =
    MOVES.find((k) => k.move === move.move) ??
    refuse('geometry', `"${move.move}" is no move that this Geotome knows.`, 'Update Geotome.')
  return kind as unknown as MoveKind<Move>
}

/** The body within a move: every recipe here is of moves of the list, as the schema holds. */
const innerOf = (move: Move): { name: string; recipe: Move[] } | null =>
  kindOf(move).inner(move) as { name: string; recipe: Move[] } | null
