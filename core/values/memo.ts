/**
 * Keeps what was computed for a thing while what it was computed from stays the same, compared one by one and by identity.
 * The thing is held weakly: when it goes, what was kept of it goes too.
 */
export class Memo {
  private readonly things = new WeakMap<object, Map<string, { from: readonly unknown[]; value: unknown }>>()

  /** Whether the value named `what` of `thing` is there and still from these. */
  has(thing: object, what: string, from: readonly unknown[]): boolean {
    const known = this.things.get(thing)?.get(what)
    return known !== undefined && sameList(known.from, from)
  }

  /** The value named `what` of `thing`; made anew only when an entry of `from` differs from last time. */
  keep<T>(thing: object, what: string, from: readonly unknown[], make: () => T): T {
    let kept = this.things.get(thing)
    if (!kept) this.things.set(thing, (kept = new Map()))
    const known = kept.get(what)
    if (known && sameList(known.from, from)) return known.value as T
    const value = make()
    kept.set(what, { from, value })
    return value
  }
}

/** Returns true when two lists hold the very same entries, compared by identity. */
export const sameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => Object.is(x, b[i])))
