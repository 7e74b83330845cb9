/** Ids are UUIDs minted by whoever makes the thing; the core only compares them. */
export type Id = string

/** Entries of a collection keyed by id, in their display order (order, then id, so that ties are stable). */
export function inOrder<T extends { order: number; id: Id }>(collection: Record<Id, T>): T[] {
  return Object.values(collection).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
}

/** The order key of a thing put behind all others. */
export function nextOrder(collection: Record<Id, { order: number }>): number {
  return Object.values(collection).reduce((top, thing) => Math.max(top, thing.order + 1), 0)
}

/** The thing of that id: undefined also for words that every object answers to by nature, as 'constructor'. */
export const thingOf = <T>(things: Readonly<Record<string, T>> | undefined, id: string): T | undefined =>
  things && Object.hasOwn(things, id) ? things[id] : undefined

/** Returns true for an object of named values: neither null nor a list. */
export const isDict = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
