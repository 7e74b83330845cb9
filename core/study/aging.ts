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
