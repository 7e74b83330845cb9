import { boxOf, noteTilts, type Outline, type Sweep, type Vec2 } from '../solid'
import * as v from 'valibot'
import {
  Refusal,
  fingerprint,
  refuse,
  tidy,
  type AtLevel,
  type Num,
  type Numbers,
  type OtherMass,
  type Quantity,
  type StandingNumbers,
} from '../values'
import type { BodyForm, Building, Form, MoveKind } from './kind'
import { kindOf, MOVES, type Move } from './list'
import { checkOrder } from './order'
import { shifted } from './outline'
import { carriedBody } from './raise'
import { rangesOf, within as rangesWithin } from './span'

/** A recipe: an outline and a raise, or a body from a file; then further moves. Each can be switched off and edited for ever. */
export const RecipeSchema: v.GenericSchema<unknown, Move[]> = v.pipe(
  v.array(v.lazy(() => MoveSchema)),
  v.maxLength(200, 'A recipe has at most 200 moves.'),
)
/** One move of a recipe. */
export const MoveSchema = v.variant(
  'move',
  MOVES.map((k) => k.schema(v.lazy(() => RecipeSchema))) as never,
) as unknown as v.GenericSchema<unknown, Move>

/**
 * Builds a recipe in the mass's own frame, as a body. A move that cannot be made on a body that is there already is left out and noted,
 * so that the rest stands. It runs again from the changed move on: what a move gave is kept with it, and taken as it is while the form
 * before it, its own values and what it depends on are the same. Errors: 'geometry', 'size', 'outline' with the mass's name, where there
 * is no body at all.
 */
export function buildRecipe(recipe: Move[], numbers: StandingNumbers, name: string): BodyForm {
  return asBody(formBehind(recipe, numbers, name), numbers)
}

/**
 * An outline as a recipe carries it up, without what is cut from it or shaped otherwise: that is left out, and told by
 * `more`. It needs no kernel. Null where
 * there is none.
 */
export function carriedUp(
  recipe: readonly Move[],
  numbers: StandingNumbers,
  name: string,
): { sweep: Sweep; anchor: Vec2; more: boolean } | null {
  const active = recipe.filter((m) => m.on)
  let form = NOTHING
  let more = false
  for (const move of active) {
    const { takes, gives } = kindOf(move)
    const isOutline =
      gives === 'plan' ||
      (gives === 'carried' && !move.span && (takes === 'plan' || form.carried?.sweep.twist === null))
    if (isOutline) form = after(form, move, numbers, name)
    else more = true
  }
  const { carried, anchor, leftOut } = form
  return carried ? { sweep: carried.sweep, anchor, more: more || leftOut.length > 0 } : null
}

/**
 * The form behind some moves, as far as they have brought it: a plan or an outline that is carried needs no kernel. Errors: as
 * `buildRecipe`.
 */
export const formBehind = (moves: readonly Move[], numbers: StandingNumbers, name: string): Form =>
  moves.reduce((form, move) => (move.on ? after(form, move, numbers, name) : form), NOTHING)

/**
 * The plan that a recipe raises, in the mass's own frame, m: its outline after all that is done to it there; none where it has no
 * outline.
 */
export function planOf(recipe: readonly Move[], numbers: Numbers, name = ''): Outline[] {
  const active = recipe.filter((m) => m.on)
  const end = active.findIndex((m) => kindOf(m).gives !== 'plan')
  // A plan hangs on no level.
  const standing = { ...numbers, base: 0, heights: NO_LEVELS }
  const { outline, anchor } = formBehind(end < 0 ? active : active.slice(0, end), standing, name)
  return outline ? outline.map((line) => shifted(line, anchor)) : []
}

const NO_LEVELS: ReadonlyMap<string, number> = new Map()

const NOTHING: Form = {
  outline: null,
  carried: null,
  solid: null,
  anchor: [0, 0],
  eaves: 0,
  ridge: null,
  leftOut: [],
  notes: [],
}

/** What each move gave last, and from what. */
const given = new WeakMap<Move, { before: Form; body: BodyForm | null; values: string; form: Form }>()

function after(before: Form, move: Move, numbers: StandingNumbers, name: string): Form {
  const kind = kindOf(move)
  const inner = innerOf(move)
  const own = kind.numbers(move).map(([num, q]) => numbers.value(num, q))
  const values = `${name} ${own.join(' ')} ${kind.dependsOn?.(move, numbers) ?? ''}${readText(move, numbers)}`
  try {
    const body = inner && buildRecipe(inner.recipe, within(move, numbers), inner.name)
    const [reads] = kind.reads?.(move) ?? []
    const other = reads === undefined ? null : otherOf(reads, numbers)
    const known = given.get(move)
    if (known?.before === before && known.body === body && known.values === values) return known.form
    const built = made(before, move, kind, {
      numbers,
      name,
      body,
      other,
      copies: reads === undefined ? [] : copiesOf(move, reads, numbers).map(asBodyOf),
      ranges: null,
      asBody: (f) => asBody(f, numbers),
    })
    const form =
      body && body.leftOut.length + body.notes.length > 0
        ? { ...built, leftOut: [...built.leftOut, ...body.leftOut], notes: [...built.notes, ...body.notes] }
        : built
    if (form.solid) noteTilts(form.solid)
    given.set(move, { before, body, values, form })
    return form
  } catch (e) {
    if (!(e instanceof Refusal) || (!before.solid && !before.carried)) throw e
    return { ...before, leftOut: [...before.leftOut, { id: move.id, say: e.say, remedy: e.remedy }] }
  }
}

/** Another mass as a body, where it stands in the frame of the one that reads it. Errors: 'unknown-id' where it is gone. */
function otherOf(id: string, numbers: StandingNumbers): Building['other'] {
  const other =
    numbers.other?.(id) ??
    refuse('unknown-id', 'The mass that it reads is gone.', 'Choose another one, or take it off.')
  return asBodyOf(other)
}

const asBodyOf = (other: OtherMass) => ({
  ...other,
  body: buildRecipe(other.recipe as Move[], other.numbers, other.name),
})

/** The form after a move: on all of it, or told the heights that it acts on. */
function made(before: Form, move: Move, kind: MoveKind<Move>, building: Building): Form {
  const { numbers, name } = building
  const span = kind.spans && move.span
  if (!span) return kind.build(kind.takes === 'body' ? asBody(before, numbers) : before, move, building)
  const body = asBody(before, numbers)
  const { z0, z1 } = boxOf(body.solid.positions)
  return kind.build(body, move, { ...building, ranges: rangesWithin(rangesOf(span, numbers), [z0, z1], name) })
}

/** The form as a body: one that is carried is made one, once. */
function asBody(form: Form, numbers: StandingNumbers): BodyForm {
  const { solid, carried } = form
  if (solid) return form as BodyForm
  if (!carried) return refuse('geometry', 'The form has no body.', 'Put a raise behind its outline.')
  const levels = carried.sweep.twist ? levelsKey(numbers) : ''
  const known = bodies.get(form)
  if (known?.levels === levels) return known.body
  const body = { ...form, solid: carriedBody(carried, numbers) }
  noteTilts(body.solid)
  bodies.set(form, { levels, body })
  return body
}
const bodies = new WeakMap<Form, { levels: string; body: BodyForm }>()
const levelsKey = ({ heights, base }: StandingNumbers) => `${base} ${[...heights.values()].join()}`

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
  checkOrder(active, name)
  active.forEach((move, place) => {
    const before = active.slice(0, place)
    kindOf(move).check(move, { before, form: () => formBehind(before, numbers, name), name, numbers })
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
      const depends = `${kindOf(m).dependsOn?.(m, numbers) ?? ''}${m.on ? readText(m, numbers) : ''}`
      const inner = innerOf(m)
      return `${depends ? ` ${m.id}:${depends}` : ''}${inner ? dependsKey(inner.recipe, within(m, numbers)) : ''}`
    })
    .join('')

/**
 * The levels (by id) on whose heights alone the form of a recipe hangs, all its numbers being plain; null where it hangs on more: on
 * formulas, other masses, a body within it, or all storeys.
 */
export function hangsOn(recipe: Move[], numbers: StandingNumbers): string[] | null {
  const isPlain = recipe.every(
    (m) => !innerOf(m) && !kindOf(m).reads && (m.move === 'raise' || !kindOf(m).dependsOn?.(m, numbers)),
  )
  if (!isPlain || recipeNumbers(recipe).some(([num]) => typeof num !== 'number')) return null
  return recipeTies(recipe).map((tie) => tie.level)
}

/** The levels that a recipe is tied to, those of joined bodies too. */
export function recipeTies(recipe: Move[]): AtLevel[] {
  let ties = tiesOf.get(recipe)
  if (!ties) {
    ties = recipe.flatMap((m) => [...(kindOf(m).ties?.(m) ?? []), ...recipeTies(innerOf(m)?.recipe ?? [])])
    tiesOf.set(recipe, ties)
  }
  return ties
}
const tiesOf = new WeakMap<Move[], AtLevel[]>()

/** The recipe with its ties to levels replaced. */
export const withTies = (recipe: Move[], tie: (tie: AtLevel) => AtLevel): Move[] =>
  recipe.map((m) => {
    const own = kindOf(m).retied?.(m, tie) ?? m
    return own.move === 'join' ? { ...own, recipe: withTies(own.recipe, tie) } : own
  })

/** The masses that a recipe's moves read, by their ids; those of joined bodies too. */
export const readsOf = (recipe: Move[]): string[] =>
  recipe.flatMap((m) => [...(m.on ? (kindOf(m).reads?.(m) ?? []) : []), ...readsOf(innerOf(m)?.recipe ?? [])])

/** What repeats make of a mass that a move reads, where it reads them. */
const copiesOf = (move: Move, id: string, numbers: StandingNumbers): OtherMass[] =>
  kindOf(move).copies?.(move) ? (numbers.copies?.(id) ?? []) : []

/** The masses whose repeats a recipe reads, by their ids. */
export const copiesReadOf = (recipe: Move[]): string[] =>
  recipe.flatMap((m) => [
    ...(m.on && kindOf(m).copies?.(m) ? (kindOf(m).reads?.(m) ?? []) : []),
    ...copiesReadOf(innerOf(m)?.recipe ?? []),
  ])

/** What other masses a move reads, as text: all that their forms and places hang on. Errors: 'geometry' where it goes in a circle. */
function readText(move: Move, numbers: StandingNumbers): string {
  return (kindOf(move).reads?.(move) ?? [])
    .flatMap((id) => [numbers.other?.(id) ?? null, ...copiesOf(move, id, numbers)])
    .map((other) => {
      if (!other) return 'gone'
      const recipe = other.recipe as Move[]
      let text = texts.get(recipe)
      if (text === undefined) texts.set(recipe, (text = fingerprint(JSON.stringify(recipe))))
      return `${text}|${recipeKey(recipe, other.numbers)}@${Object.values(other.at).join()}`
    })
    .join()
}
const texts = new WeakMap<Move[], string>()

/** All ids of moves, those of joined bodies too. */
export const moveIds = (recipe: Move[]): string[] => recipe.flatMap((m) => [m.id, ...moveIds(innerOf(m)?.recipe ?? [])])

/** The body within a move: every recipe here is of moves of the list, as the schema holds. */
const innerOf = (move: Move): { name: string; recipe: Move[] } | null =>
  kindOf(move).inner(move) as { name: string; recipe: Move[] } | null
