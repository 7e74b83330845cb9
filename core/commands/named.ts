import * as v from 'valibot'
import { readTyped, refuse, type Num } from '../project'
import type { Study } from '../study'

/** A length as it is typed, in the project's unit where it has none, or a number of metres. */
export const LengthSchema = v.union([v.number(), v.pipe(v.string(), v.maxLength(400))])
/** The name of a thing, or its id. */
export const NamedSchema = v.pipe(v.string(), v.minLength(1), v.maxLength(120))

/** What is typed as a length, as it is stored: a number in metres, or a formula. Errors: 'formula'. */
export const numOf = ({ project, scheme }: Study, length: number | string): Num =>
  typeof length === 'number' ? length : readTyped(length, 'length', project, scheme).num

/** The value of a length, m. */
export const metresOf = (study: Study, length: number | string): number =>
  study.context.numbers.length(numOf(study, length))

/** A thing of a collection by its name or id. Errors: 'unknown-id' with the names that there are. */
export function named<T extends { id: string; name: string }>(what: string, things: T[], wanted: string): T {
  const low = wanted.toLowerCase()
  const found = things.find((t) => t.id === wanted) ?? things.find((t) => t.name.toLowerCase() === low)
  const names = things.slice(0, 12).map((t) => t.name)
  return (
    found ??
    refuse(
      'unknown-id',
      `There is no ${what} "${wanted}".`,
      names.length
        ? `There are ${names.join(', ')}${things.length > 12 ? ' and more' : ''}.`
        : `There is no ${what} yet.`,
    )
  )
}

/** The level of that name or id. Errors: 'unknown-id', with the names that there are; so the others. */
export const levelNamed = (study: Study, name: string) => named('level', study.levels, name)
/** The mass of that name or id. */
export const massNamed = (study: Study, name: string) => named('mass', Object.values(study.scheme.masses), name)
/** The part of that name or id. */
export const partNamed = (study: Study, name: string) => named('part', Object.values(study.scheme.parts), name)
/** The use of that name or id. */
export const useNamed = (study: Study, name: string) => named('use', Object.values(study.project.uses), name)
