import { kindOfMove, type Move } from '../moves'
import { faceName } from '../solid'
import type { Id } from '../values'
import { outlineMove, type Cell } from './cell'

const kept = new Map<string, Move[]>()

/** The recipe of a cell, with the moves that it has of its own behind; equal ones are the very same object. */
export function cellRecipe(cell: Cell, own: { moves?: Move[] | undefined } | undefined): Move[] {
  const recipe = [outlineMove(cell), ...cell.moves, ...(own?.moves ?? [])]
  const key = JSON.stringify(recipe)
  const known = kept.get(key)
  if (known) return known
  if (kept.size > 20_000) kept.clear()
  kept.set(key, recipe)
  return recipe
}

/** The move that makes a body of the cell's outline; null while none does. */
export const raiserOf = (cell: Cell): Move | null =>
  cell.moves.find((m) => m.on && kindOfMove(m).gives !== 'plan') ?? null

/** What the faces over the dressed sides of a cell are drawn in, by their names; what is dressed as a face is one already. */
export function dressedFaces(cell: Cell): Record<string, Id> {
  const raiser = raiserOf(cell)
  return raiser
    ? Object.fromEntries(
        Object.entries(cell.dressed).map(([side, material]) => [
          side.includes('/') ? side : faceName(raiser.id, side),
          material,
        ]),
      )
    : {}
}
