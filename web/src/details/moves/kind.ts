import type { ComponentType } from 'react'
import { placeFor, type Move } from '@geotome/core/moves'
import type { Numbers } from '@geotome/core/project'

export type Change = (recipe: Move[]) => Move[]

export interface RecipeProps {
  recipe: Move[]
  /** makes a change, and says whether it was made */
  change: (label: string, next: Change) => boolean
  /** tries one while typing; null takes it back */
  attempt: (next: Change | null) => void
}

export type MoveNamed<M extends Move['move']> = Extract<Move, { move: M }>

export interface MoveProps<M extends Move['move']> extends RecipeProps {
  move: MoveNamed<M>
  /** takes a joined body off, where that is possible */
  apart: ((join: MoveNamed<'join'>) => void) | null
  /** the fields of a recipe within it */
  Recipe: ComponentType<RecipeProps>
}

/** A move in the details: its fields, and how it is added to a recipe. A new one is a file, and a line in `list.ts`. */
export interface MoveOnPage<M extends Move['move']> {
  Fields: ComponentType<MoveProps<M>>
  /** offered below the recipe; null where it does not fit it */
  add?: { label: string; to: (recipe: Move[], numbers: Numbers) => Change | null }
}

export const mint = () => crypto.randomUUID()
export const has = (recipe: Move[], move: Move['move']) => recipe.some((m) => m.move === move)

/** The recipe with a move where it fits; null where it fits nowhere. */
export function placed(recipe: Move[], move: Move): Change | null {
  return placeFor(recipe, move) === null
    ? null
    : (now) => {
        const at = placeFor(now, move) ?? now.length
        return [...now.slice(0, at), move, ...now.slice(at)]
      }
}

/** Raised, and without a pitch: what can be tapered and twisted. */
export const isSwept = (recipe: Move[]) => has(recipe, 'raise') && !has(recipe, 'pitch')
