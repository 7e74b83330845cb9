import type * as v from 'valibot'
import type { Outline, Solid, Sweep, Vec2 } from '../solid'
import type { AtLevel, Num, Quantity, StandingNumbers } from '../values'

/** A form on its way through its recipe, in the mass's own frame: the outline in plan, then the body. */
export interface Form {
  outline: Outline[] | null
  /** how the outline was carried up, and the move that names its sides; null once the body was cut or joined */
  swept: { sweep: Sweep; by: string } | null
  solid: Solid | null
  /** where the outline's near-origin frame lies in the mass's own frame, m; zero but for outlines at map coordinates */
  anchor: Vec2
  /** m above the mass's base, for the moves that follow a raise */
  eaves: number
  /** computed heights that a person asks for, m above the mass's base */
  ridge: number | null
  /** moves that could not be made, and were left out of the form */
  leftOut: LeftOutMove[]
}

/** A move that the form as it is now does not allow: what happened, and what to do. */
export interface LeftOutMove {
  id: string
  say: string
  remedy: string
}

/** What every move has. */
export interface MoveBase {
  id: string
  move: string
  on: boolean
}

/**
 * A kind of move: its data, what must hold of it, and its geometry. A new one is a file beside this and a line in the list.
 */
export interface MoveKind<M extends MoveBase> {
  move: M['move']
  /** its data; `recipe` is the schema of a recipe within it */
  schema(recipe: v.GenericSchema<unknown, MoveBase[]>): v.GenericSchema<unknown, M>
  /** all its numbers but those of a recipe within it, in a fixed order: their values are the key to the form */
  numbers(move: M): [Num, Quantity][]
  /** the recipe of another body that it holds, if it does */
  inner(move: M): Inner | null
  /** what it is tied to by level, if it is */
  ties?(move: M): AtLevel[]
  /** the move with its ties to levels replaced: what is done when a level is removed */
  retied?(move: M, tie: (tie: AtLevel) => AtLevel): M
  /** what its form depends on besides its own numbers, as text: heights of levels */
  dependsOn?(move: M, numbers: StandingNumbers): string
  /** how far the frame of the recipe within it lies above the mass's base, m */
  lift?(move: M, numbers: StandingNumbers): number
  /** refuses what cannot be built; `place` is its position among the active moves, `before` what comes before it, `name` the mass's */
  check(move: M, context: { place: number; before: readonly MoveBase[]; name: string; numbers: StandingNumbers }): void
  /** the form after the move; `body` is the form of the recipe within it */
  build(form: Form, move: M, context: { numbers: StandingNumbers; name: string; body: Form | null }): Form
}

export interface Inner {
  name: string
  recipe: MoveBase[]
}
