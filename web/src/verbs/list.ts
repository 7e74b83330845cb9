import { EVERYWHERE_VERBS } from './everywhere'
import { FABRIC_VERBS } from './fabric'
import { FORM_VERBS } from './form'
import { GROUND_VERBS } from './ground'
import { SEEING_VERBS } from './seeing'
import { SLICE_VERBS } from './slice'
import type { DeskName, Now, Verb } from './kind'

/** Everything that a person can do by a word: read by the bars of the desks, by Find, by the keys and by the list of shortcuts. */
export const VERBS: readonly Verb[] = [
  ...GROUND_VERBS,
  ...FORM_VERBS,
  ...SLICE_VERBS,
  ...FABRIC_VERBS,
  ...SEEING_VERBS,
  ...EVERYWHERE_VERBS,
]

export const isAt = (verb: Verb, desk: DeskName): boolean => verb.desks === 'all' || verb.desks.includes(desk)

export const labelOf = (verb: Verb, now: Now): string => (typeof verb.label === 'string' ? verb.label : verb.label(now))

/** The verb that a key means at a desk; what belongs to the desk goes before what is on everywhere. */
export function verbOfKey(key: string, desk: DeskName): Verb | undefined {
  const has = (v: Verb) => v.key === key || v.also === key
  return (
    VERBS.find((v) => v.desks !== 'all' && isAt(v, desk) && has(v)) ?? VERBS.find((v) => v.desks === 'all' && has(v))
  )
}

/** A key as verbs name it: "R", "Ctrl Z", "Ctrl Shift Z", "?". */
export function keyName(e: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>): string {
  const key = e.key.length === 1 ? e.key.toUpperCase() : e.key
  if (!e.ctrlKey && !e.metaKey) return key
  return `Ctrl ${e.shiftKey ? 'Shift ' : ''}${key}`
}
