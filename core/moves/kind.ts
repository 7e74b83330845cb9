import type * as v from 'valibot'
import type { Cage, Outline, Solid, Sweep, Vec2 } from '../solid'
import type { AtLevel, Num, OtherMass, Quantity, StandingNumbers } from '../values'
import type { Beginning, Fields } from './fields'
import type { Ranges, Span } from './span'

/** How far a form is on its way: nothing is there yet, an outline in plan, an outline that is carried up, a body with named faces. */
export type Stage = 'nothing' | 'plan' | 'carried' | 'body'

/** A form on its way through its recipe, in the mass's own frame. It never changes: each move gives a new one. */
export interface Form {
  /** null too once its sides are no longer those that the form has */
  outline: Outline[] | null
  /** how the outline is carried up, and the move that names its sides and ends; null once the form is a body of its own */
  carried: { sweep: Sweep; by: string } | null
  /** what a move has cut, joined or read; of a form that is carried the driver makes it when it is needed */
  solid: Solid | null
  /** where the outline's near-origin frame lies in the mass's own frame, m; zero but for outlines at map coordinates */
  anchor: Vec2
  /** m above the mass's base, for the moves that follow a raise */
  eaves: number
  /** computed heights that a person asks for, m above the mass's base */
  ridge: number | null
  /** moves that could not be made, and were left out of the form */
  leftOut: LeftOutMove[]
  /** what a move has to say of what it made */
  notes: Note[]
  /** a body that is turned all round, and nothing else: within which radii (m from its own zero) it lies, seen from above */
  turned?: { solid: Solid; from: number; to: number } | undefined
  /** of a soft form: the flat body that it is drawn from */
  cage?: SoftCage | undefined
}

/**
 * The body that a soft form is drawn from (m in the form's own frame), the move that softens it, and from where on it
 * is an image of the rest.
 */
export interface SoftCage extends Cage {
  by: string
  beyond: { axis: 0 | 1; at: number } | null
}

/** What a move says of what it made, where a person should know; with what mends it in one action. */
export interface Note extends LeftOutMove {
  set: { label: string; fields: Record<string, unknown> } | null
  /** that a face was folded, which a soft form takes as one again */ about?: 'folds'
}

/** A form as a body. */
export type BodyForm = Form & { solid: Solid }

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
  /** what of the form it acts on, for those that may act on less than the whole */
  span?: Span | undefined
}

/**
 * A kind of move: its data, what must hold of it, and its geometry. A new one is a file beside this and a line in the list.
 */
export interface MoveKind<M extends MoveBase> {
  move: M['move']
  /** what it is called within a sentence: "a taper" */
  called: string
  /** what it is called on its own, where that is not the former without its article */
  title?: string
  /** among which others it is offered; none for those that are made in other ways only */
  group?: 'plan' | 'shape' | 'roof' | 'with others'
  /** what the details ask for, in one form for all moves; none for those that have a form of their own */
  fields: Fields<M>
  /** what a form must be for it to be made; one that is carried is taken as the body that it is, too */
  takes: Stage
  gives: Stage
  /** whether it is made of a body too, and then gives one: where it has a span, or stands there twice, also of what is carried */
  also?: 'body'
  /** whether it may act on a span only: it is told the heights then, within those of the form */
  spans?: true
  /** what it begins with; null where it does not fit what is there */
  starts?(at: Beginning): Omit<M, keyof MoveBase> | null
  /** whether it is placed by coordinates or directions, which an outline that is mirrored does not take along */
  placed?: true
  /** whether it is about the sides of the outline, and must not stand behind another body that was joined */
  ofSides?: true
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
  /** the other masses that it reads, by their ids */
  reads?(move: M): string[]
  /** whether it reads what repeats make of that mass, too */
  copies?(move: M): boolean
  /** how far the frame of the recipe within it lies above the mass's base, m */
  lift?(move: M, numbers: StandingNumbers): number
  /**
   * refuses what cannot be built, as far as that can be told without a kernel; where it stands is checked already. `before` is what comes
   * before it, `form` the form there, not made a body; `name` the mass's
   */
  check(
    move: M,
    context: { before: readonly MoveBase[]; form: () => Form; name: string; numbers: StandingNumbers },
  ): void
  /** the form after the move. It is what `takes` says: the driver sees to that */
  build(form: Form, move: M, context: Building): Form
}

/** What a move may ask for while it is made. */
export interface Building {
  numbers: StandingNumbers
  /** the mass's */ name: string
  /** the recipe within the move, as a body */ body: BodyForm | null
  /** the mass that the move reads, as a body */ other: (OtherMass & { body: BodyForm }) | null
  /** what repeats make of that mass, where the move reads them */ copies: (OtherMass & { body: BodyForm })[]
  /** the heights that it acts on, where it has a span; null: the whole form */ ranges: Ranges | null
  /** what is carried, as the body that it is */ asBody(form: Form): BodyForm
}

export interface Inner {
  name: string
  recipe: MoveBase[]
}
