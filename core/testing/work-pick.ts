import type { Edit } from '../edits'
import { changeRecipe } from '../form'
import type { Move, Project } from '../project'
import { schemeOf } from './make'

/** One random step of a person's work; null where it does not apply. */

/** An edit of the recipe of one of the masses. */
export const reshaped = (p: Project, pick: (n: number) => number, next: (recipe: Move[]) => Move[]): Edit | null => {
  const mass = schemeOf(p).masses[anyOf(schemeOf(p).masses, pick)]
  return mass ? changeRecipe(schemeOf(p), mass, next) : null
}

export const anyOf = (things: Record<string, unknown>, pick: (n: number) => number) => {
  const keys = Object.keys(things)
  return keys[pick(Math.max(1, keys.length))] ?? 'none'
}

/** A step of work, from dice. */
export type Step = (p: Project, pick: (n: number) => number, mint: () => string) => Edit | null
