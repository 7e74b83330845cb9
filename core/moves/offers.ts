import type { Numbers } from '../values'
import type { Beginning, Fielded } from './fields'
import { withPlaced } from './change'
import { polygonOf } from './outline'
import { MOVES, moveTitle, type Move } from './list'
import type { MoveKind } from './kind'
import type { Span } from './span'
import { planOf } from './recipe'

/** A move that a recipe can be given: what it is called, and the recipe with it. */
export interface Offer {
  title: string
  move: Move['move']
  group: MoveKind<Move>['group']
  /** the recipe as it is by then, with the move where it fits */ to(recipe: Move[]): Move[]
}

/** What else there is: other masses, and the form's flat faces. */
export interface More extends Pick<Beginning, 'others' | 'faces'> {
  /** the levels of the storeys that a new move is to act on; none: on all of it */
  storeys?: readonly string[]
}

/** The moves that fit a recipe, each with what it begins with. `mint` makes their ids, `more` says what they may read and be drawn on. */
export function offers(recipe: Move[], numbers: Numbers, mint: () => string, more: More): Offer[] {
  const at = beginningOf(recipe, numbers, more)
  return (MOVES as unknown as MoveKind<Move>[]).flatMap((kind): Offer[] => {
    const begins = kind.starts?.(at) as Fielded | null | undefined
    // What makes a body of the outline goes in place of what does so now, but not of itself.
    const isFirst = kind.gives !== 'plan' && (kind.takes === 'plan' || kind.takes === 'nothing')
    if (!begins || (isFirst && recipe.some((m) => m.move === kind.move))) return []
    const span: Span | undefined = more.storeys?.length ? { of: 'storeys', levels: [...more.storeys] } : undefined
    const own = { id: mint(), move: kind.move, on: true, ...begins, ...(kind.spans && span ? { span } : {}) }
    const move = own as unknown as Move
    return withPlaced(recipe, move)
      ? [{ title: moveTitle(move), move: kind.move, group: kind.group, to: (now) => withPlaced(now, move) ?? now }]
      : []
  })
}

/** What a move that is added to a recipe may begin with. */
export function beginningOf(
  recipe: Move[],
  numbers: Numbers,
  { others, faces }: More = { others: [], faces: [] },
): Beginning {
  const raise = recipe.find((m) => m.move === 'raise')
  const outline = recipe.find((m) => m.move === 'outline')
  return {
    plan: planOf(recipe, numbers),
    corners: outline ? polygonOf(outline.shape, numbers) : [],
    numbers,
    others,
    faces,
    height: raise && !raise.upTo ? numbers.length(raise.height) : 6,
  }
}
