import { refuse } from '../values'
import type { MoveKind, Stage } from './kind'
import { kindOf, type Move } from './list'

const IS: Record<Stage, string> = {
  nothing: 'there is no form yet',
  plan: 'the form is an outline in plan',
  carried: 'the form is an outline that is carried up',
  body: 'the form is a body, cut or joined',
}
const WANTS: Record<Stage, string> = {
  nothing: 'It can only come first',
  plan: 'It wants an outline in plan',
  carried: 'It wants an outline that is carried up',
  body: 'It wants a body',
}

/** A form that is carried up is a body too, wherever one is wanted. */
const fits = ({ takes, also }: Pick<MoveKind<Move>, 'takes' | 'also'>, stage: Stage) =>
  takes === stage || (takes === 'body' && stage === 'carried') || also === stage

/** What a move gives where it stands: a body of what it would carry on with, where it is one, or is told to act on part of it. */
function given(move: Move, { gives, also, spans }: MoveKind<Move>, stage: Stage, before: readonly Move[]): Stage {
  const isOfBody = stage === 'body' || (spans && move.span) || before.some((m) => m.move === move.move)
  return also && isOfBody ? also : gives
}

/** The stage of a form behind some moves, or the first of them that cannot stand where it does. */
function stageBehind(moves: readonly Move[]): { stage: Stage; wrong: number | null } {
  let stage: Stage = 'nothing'
  for (const [i, move] of moves.entries()) {
    const kind = kindOf(move)
    if (!fits(kind, stage) || (kind.ofSides && moves.slice(0, i).some((m) => m.move === 'join')))
      return { stage, wrong: i }
    stage = given(move, kind, stage, moves.slice(0, i))
  }
  return { stage, wrong: null }
}

/**
 * Where a move can stand in a recipe, as the number of moves before it, the last such place; null where it fits nowhere. What is switched
 * off counts for nothing. The move itself is not counted where it is in the recipe already.
 */
export function placeFor(recipe: readonly Move[], move: Move): number | null {
  const others = recipe.filter((m) => m.id !== move.id)
  // What is about flat faces and corners goes into the cage of a soft form, not behind it.
  const soft = isOfFaces(move) ? others.findIndex((m) => m.move === 'soft') : -1
  for (let at = soft < 0 ? others.length : soft; at >= 0; at--) {
    const tried = [...others.slice(0, at), move, ...others.slice(at)].filter((m) => m.on || m === move)
    if (stageBehind(tried).wrong === null) return at
  }
  return null
}

const isOfFaces = (move: Move): boolean =>
  move.move === 'shift-corner' ||
  (move.move !== 'soft' && Object.values(kindOf(move).fields).some((f) => f.is === 'face'))

/** Whether every move of a recipe stands where it fits; what is switched off counts for nothing. */
export const isInOrder = (recipe: readonly Move[]): boolean => stageBehind(recipe.filter((m) => m.on)).wrong === null

/** Refuses moves (all switched on) of which one stands where the form is not what it wants: says so, and where it would fit. */
export function checkOrder(active: Move[], name: string): void {
  const { stage, wrong } = stageBehind(active)
  if (wrong === null) {
    if (stage === 'nothing' || stage === 'plan')
      refuse(
        'geometry',
        `The recipe of "${name}" makes no body: ${IS[stage]} at its end.`,
        stage === 'plan' ? 'Put a raise behind the outline.' : 'Begin with an outline.',
      )
    return
  }
  const move = active[wrong] as Move
  const kind = kindOf(move)
  const { called, takes, ofSides } = kind
  const before = active[wrong - 1]
  const behind = before ? `stands behind ${kindOf(before).called}` : 'comes first'
  refuse(
    'geometry',
    `In the recipe of "${name}" ${called} ${behind}, where ${IS[stage]}.`,
    ofSides && fits(kind, stage)
      ? `It is about the sides of the outline, not of what was joined: ${whereTo(active, move)}.`
      : stage === 'nothing'
        ? 'Begin with an outline, or with a body from a file.'
        : `${WANTS[takes]}: ${whereTo(active, move)}.`,
  )
}

function whereTo(active: Move[], move: Move): string {
  const at = placeFor(active, move)
  if (at === null) return 'leave it out, or join another mass'
  const before = active.filter((m) => m.id !== move.id)[at - 1]
  return before ? `put it behind ${kindOf(before).called.replace(/^an? /, 'the ')}` : 'put it first'
}
