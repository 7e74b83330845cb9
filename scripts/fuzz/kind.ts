import type { Dice } from './dice'

/** What was taken that should not have been. */
export class Nonsense extends Error {}

/**
 * A kind of input. `one` makes an input from the dice and gives it to the product: it ends when the input was taken and what
 * came of it makes sense, throws a Refusal when it was refused, and anything else where the product is at fault.
 * `mayBeEnded`: the product reads such input in a thread of its own, which it ends after a limit.
 */
export interface Kind {
  name: string
  share: number
  mayBeEnded: boolean
  one(dice: Dice): Promise<void> | void
}
