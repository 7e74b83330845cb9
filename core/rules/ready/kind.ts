import type { Id } from '../../values'
import type { Step } from '../steps/list'

/** What a ready rule begins with: dials by name, steps, and what to call it. */
export interface ReadyRule {
  ready: string
  /** "tower cluster" */
  called: string
  about: string
  dials: readonly {
    name: string
    quantity: 'length' | 'angle' | 'number'
    value: number
    least: number
    most: number
    step: number
  }[]
  /** `dial` gives the formula of a dial by its name, `id` a new id each time */
  steps(dial: (name: string) => { formula: string }, id: () => Id): Step[]
}

/** A step with what all have. */
export const doing = <S extends Step['step']>(
  id: Id,
  step: S,
  fields: Omit<Extract<Step, { step: S }>, 'id' | 'step' | 'on' | 'of' | 'others'>,
  of: Id | null = null,
): Step => ({ id, step, on: true, of, others: false, ...fields }) as unknown as Step
