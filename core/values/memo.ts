/** names that a thing may have before those not asked for lately are looked for */
const MANY = 64
/** rounds (studies) for which a value is kept that nobody asks for */
const ROUNDS = 8

interface Kept {
  from: readonly unknown[]
  value: unknown
  /** the round in which it was asked for last */
  round: number
}

/**
 * Keeps what was computed for a thing while what it was computed from stays the same, compared one by one and by identity.
 * The thing is held weakly: when it goes, what was kept of it goes too. A thing that stays while its values get ever new names (heights of a level
 * that is dragged, places that a rule makes) loses those that no round has asked for lately.
 */
export class Memo {
  private readonly things = new WeakMap<object, { values: Map<string, Kept>; swept: number }>()
  private round = 0

  /** A new round begins: a study. */
  begin(): void {
    this.round++
  }

  /** Whether the value named `what` of `thing` is there and still from these. */
  has(thing: object, what: string, from: readonly unknown[]): boolean {
    const known = this.things.get(thing)?.values.get(what)
    return known !== undefined && sameList(known.from, from)
  }

  /** How many values are kept of a thing. */
  count(thing: object): number {
    return this.things.get(thing)?.values.size ?? 0
  }

  /** The value named `what` of `thing`; made anew only when an entry of `from` differs from last time. */
  keep<T>(thing: object, what: string, from: readonly unknown[], make: () => T): T {
    let kept = this.things.get(thing)
    if (!kept) this.things.set(thing, (kept = { values: new Map(), swept: this.round }))
    const known = kept.values.get(what)
    if (known && sameList(known.from, from)) {
      known.round = this.round
      return known.value as T
    }
    const value = make()
    kept.values.set(what, { from, value, round: this.round })
    if (kept.values.size > MANY && kept.swept + ROUNDS < this.round) {
      kept.swept = this.round
      for (const [name, { round }] of kept.values) if (round + ROUNDS < this.round) kept.values.delete(name)
    }
    return value
  }
}

/** Returns true when two lists hold the very same entries, compared by identity. */
export const sameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => Object.is(x, b[i])))
