import type { Fields } from '../../moves'
import type { Plan, Vec2 } from '../../solid'
import type { Id, Num, Numbers, Quantity } from '../../values'
import type { Cell } from '../cell'

/** What every step has. */
export interface StepBase {
  id: Id
  step: string
  on: boolean
  /** the step above whose chosen ones it acts on; null: all */ of: Id | null
  /** on those that it has not chosen, instead */ others: boolean
}

/** What a rule grows from besides its steps. */
export interface RuleWorld {
  /** m above the datum: where the rule's base lies */
  base: number
  /** the storeys of the scheme from the lowest up, m above the datum */
  storeys: readonly { id: Id; name: string; height: number }[]
  /** the site: what its setbacks, all of them deeper by so much (m), leave of it in the rule's frame, and the permitted height (m above the datum) */
  site: { within(deeper: number): Plan[]; limit: number | null } | null
  /** a drawn mass as it stands, by its outline; null where it is gone or has none */
  mass(id: Id): HostMass | null
  /** how dark a picture is from 0 to 1 at a point in the rule's frame, m; null beside it. Errors: 'stale' where it cannot be asked */
  darkness(picture: Id): (p: Vec2) => number | null
}

/** A mass that a step reads: its heights (m above the datum), and its outline at one of them, in the rule's frame, m. */
export interface HostMass {
  name: string
  base: number
  top: number
  /** its outline turns with the height */ twisted: boolean
  /** whether it is cut, joined or shaped otherwise besides */ more: boolean
  plan(z: number): Plan
}

/** What a step is told when it acts on one cell. */
export interface Acting {
  /** the numbers of this cell: formulas may name what steps above gave it */
  numbers: Numbers
  /** the cell's place among those that the step acts on, from 0, and how many these are */
  nth: number
  many: number
  world: RuleWorld
  /** refuses it where there would be more cells than the rule may make */
  room(cells: number): void
  /** says what a person should know */
  note(say: string, remedy: string): void
}

/**
 * A kind of step: its data, how it reads as a sentence, and what it makes of the cells. A new one is a file beside this, and a line in the
 * list.
 */
export interface StepKind<S extends StepBase> {
  step: S['step']
  /** "divide" */ called: string
  /** what it is for, in a few words: for the list of steps to choose from */
  about: string
  fields: Fields<S>
  /** the sentence: fields stand in braces by their keys; those that are not asked for now are left out with the words in their brackets */
  says: string | ((step: S) => string)
  starts(): Omit<S, keyof StepBase>
  /** its numbers, where they are more than its fields' */
  numbers?(step: S): [Num, Quantity][]
  /** the number by name that formulas below may use */
  gives?(step: S): { name: string; quantity: Quantity }
  /** whether it begins something: it adds cells, and acts on none */
  begins?(step: S, doing: Omit<Acting, 'nth' | 'many'>): Cell[]
  /** what becomes of one cell */
  each?(cell: Cell, step: S, doing: Acting): Cell[]
  /** what becomes of all that it acts on, where they hang on one another */
  all?(cells: Cell[], step: S, doing: (cell: Cell, nth: number) => Acting): Cell[]
  /** whether the cells that it does not act on are left out */
  dropsOthers?(step: S): boolean
}
