/** A value, and the run in which it was used last. */
export interface Aged<T> {
  value: T
  used: number
}

/** Values by key that are dropped when two runs pass without a use. */
export class Aging<T> {
  private readonly entries = new Map<string, Aged<T>>()
  get(key: string, run: number, make: () => T): Aged<T> {
    let entry = this.entries.get(key)
    if (!entry) this.entries.set(key, (entry = { value: make(), used: run }))
    entry.used = run
    return entry
  }
  age(run: number): void {
    for (const [key, entry] of this.entries) if (entry.used < run - 2) this.entries.delete(key)
  }
}

/** studies for which an entry is kept that nobody asks for */
const STUDIES = 8

/** A map that forgets what no study has asked for lately. */
export class RecentMap<V> {
  private readonly entries = new Map<string, { value: V; study: number }>()
  private study = 0

  /** A study begins. */
  begin(): void {
    this.study++
    for (const [key, { study }] of this.entries) if (study + STUDIES < this.study) this.entries.delete(key)
  }

  get size(): number {
    return this.entries.size
  }

  get(key: string): V | undefined {
    const entry = this.entries.get(key)
    if (!entry) return undefined
    entry.study = this.study
    return entry.value
  }

  set(key: string, value: V): void {
    this.entries.set(key, { value, study: this.study })
  }
}
