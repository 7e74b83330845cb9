/**
 * Forgets the shapes of floors that are not named any more, and the pieces that none of the others has. The worker and the page keep one
 * account of them: both forget alike.
 */
export function dropUnnamed(
  named: ReadonlySet<string>,
  shapes: Map<string, readonly number[]>,
  pieces: { keys(): Iterable<number>; delete(key: number): boolean },
): void {
  let isOneGone = false
  for (const key of shapes.keys()) if (!named.has(key)) isOneGone = shapes.delete(key)
  if (!isOneGone) return
  const wanted = new Set<number>()
  for (const list of shapes.values()) for (const key of list) wanted.add(key)
  for (const key of pieces.keys()) if (!wanted.has(key)) pieces.delete(key)
}
