import type * as v from 'valibot'
import type { Solid, Vec2 } from '../solid'
import type { Num, Numbers, Quantity } from '../values'

/** A form on its way through its recipe, in the mass's own frame: the outline in plan, then the body. */
export interface Form {
  outline: { points: Vec2[]; edges: string[] } | null
  solid: Solid | null
  /** where the outline's near-origin frame lies in the mass's own frame, m; zero but for outlines at map coordinates */
  anchor: Vec2
  /** m above the mass's base, for the moves that follow a raise */
  eaves: number
  /** computed heights that a person asks for, m above the mass's base */
  ridge: number | null
}

export interface MoveBase { id: string; move: string; on: boolean }

/**
 * A kind of move: its data, what must hold of it, and its geometry. A new one is a file beside this and a line in the list.
 */
export interface MoveKind<M extends MoveBase> {
  move: M['move']
  schema: v.GenericSchema<unknown, M>
  /** all its numbers, in a fixed order: their values are the key to the form */
  numbers(move: M): [Num, Quantity][]
  /** ids of moves within it */
  inner(move: M): string[]
  /** refuses what cannot be built; `place` is its position among the active moves, `name` the mass's */
  check(move: M, context: { place: number; name: string; numbers: Numbers }): void
  build(form: Form, move: M, context: { numbers: Numbers; name: string }): Form
}

