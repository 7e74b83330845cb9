import type { Move } from './list'
import { moveIds } from './recipe'

/** A recipe whose moves have other ids, wherever they are named: in the names of faces too. */
export function renamedMoves(recipe: Move[], rename: (id: string) => string): Move[] {
  const ids = new Set(moveIds(recipe))
  const other = (text: string) => (ids.has(text) ? rename(text) : text)
  const inName = (text: string) =>
    text.replace(/(^|[~+])([^/~+]+)(?=\/)/g, (_, before: string, id: string) => `${before}${other(id)}`)
  return JSON.parse(JSON.stringify(recipe), (_, value: unknown) =>
    typeof value === 'string' ? other(inName(value)) : value,
  ) as Move[]
}
