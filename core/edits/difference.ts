import { canonical, fingerprint, isDict } from '../project'

/**
 * What lies between two states of a project, leaf by leaf. Lists whose things have ids, and lists of names, are compared by them and
 * not by position, so that what one person does to a list leaves alone what another does to it. Any other list is one value.
 */
export interface LeafChange {
  /** the way to the leaf: fields, and the ids of things in records and lists */
  at: string[]
  /** what is to be there: nothing, a plain value, or a value by its fingerprint */
  was: Found
  /** what is put there; null: nothing is there any more */
  to: { is: unknown } | null
}
export interface OrderChange {
  at: string[]
  /** the ids of a list in their order, before and after */
  order: { was: string[]; to: string[] }
}
export type Change = LeafChange | OrderChange
export type Found = null | { is: string | number | boolean | null } | { sign: string }

type Dict = Record<string, unknown>
/** What is found at a place, as a change says it. */
export const foundOf = (value: unknown): Found =>
  value === undefined
    ? null
    : value === null || typeof value !== 'object'
      ? { is: value as string | number | boolean | null }
      : { sign: fingerprint(canonical(value)) }

/** Returns true when two places hold the same. */
export const sameFound = (a: Found, b: Found): boolean => canonical(a) === canonical(b)

/** The ids of a list's things, or the names in it; null for a list of something else, or with one of them twice. */
export function keysOf(list: unknown[]): string[] | null {
  const keys = list.map((e) => (typeof e === 'string' ? e : isDict(e) && typeof e.id === 'string' ? e.id : null))
  return keys.every((k) => k !== null) && new Set(keys).size === keys.length ? keys : null
}

/** The changes that lead from one state to the other, of what lies at a place; what is the same object in both is not looked into. */
export function differences(before: unknown, after: unknown, at: string[] = []): Change[] {
  const out: Change[] = []
  compare(at, before, after, out)
  return out
}

function compare(at: string[], a: unknown, b: unknown, out: Change[]): void {
  if (a === b) return
  if (isDict(a) && isDict(b) && a.kind === b.kind && a.move === b.move) {
    const [from, to] = [a, b]
    for (const key of Object.keys(from)) compareAt(at, key, from[key], own(to, key), out)
    for (const key of Object.keys(to)) if (!Object.hasOwn(from, key)) compareAt(at, key, undefined, to[key], out)
    return
  }
  if (Array.isArray(a) && Array.isArray(b)) {
    const [was, to] = [keysOf(a), keysOf(b)]
    if (was && to) {
      compareLists(at, byKey(was, a), byKey(to, b), out)
      if (was.join('\n') !== to.join('\n')) out.push({ at, order: { was, to } })
      return
    }
  }
  if (canonical(a ?? null) !== canonical(b ?? null)) out.push({ at, was: foundOf(a), to: { is: b } })
}

function compareAt(at: string[], key: string, a: unknown, b: unknown, out: Change[]): void {
  if (a === undefined && b === undefined) return
  if (b === undefined) out.push({ at: [...at, key], was: foundOf(a), to: null })
  else if (a === undefined) out.push({ at: [...at, key], was: null, to: { is: b } })
  else compare([...at, key], a, b, out)
}

function compareLists(at: string[], a: Map<string, unknown>, b: Map<string, unknown>, out: Change[]): void {
  for (const [key, thing] of a) compareAt(at, key, thing, b.get(key), out)
  for (const [key, thing] of b) if (!a.has(key)) compareAt(at, key, undefined, thing, out)
}

const own = (dict: Dict, key: string): unknown => (Object.hasOwn(dict, key) ? dict[key] : undefined)
const byKey = (keys: string[], list: unknown[]) => new Map(keys.map((key, i) => [key, list[i]]))
