import type { ComponentType } from 'react'
import type { Move } from '@geotome/core/moves'

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

/** What the page adds to the form that a move has by its kind: a form of its own instead, or more below it. */
export interface MoveOnPage<M extends Move['move']> {
  Fields?: ComponentType<MoveProps<M>>
  More?: ComponentType<MoveProps<M>>
}

export const mint = () => crypto.randomUUID()
export const has = (recipe: Move[], move: Move['move']) => recipe.some((m) => m.move === move)
