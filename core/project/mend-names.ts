import { freeName, isPlainText, plainText } from '../values'

/** Keys whose texts are names: `NameSchema` refuses characters there that no screen can show. */
const NAME_KEYS = ['name', 'group', 'material', 'file']

/** A project's plain data with names that can be shown, and the mended names as they are now. */
export interface MendedNames {
  data: unknown
  mended: string[]
}

/**
 * Takes control characters and the like out of the names of a project that an older version, or another program, has written. A name of
 * which nothing is left is "Unnamed"; one that another thing of the same list has is numbered.
 */
export function mendNames(data: unknown): MendedNames {
  const mended: string[] = []
  const mend = (value: unknown, taken: readonly string[], depth: number): unknown => {
    // The schemas refuse what nests deeper; a project itself does not come near.
    if (value === null || typeof value !== 'object' || depth > 100) return value
    if (Array.isArray(value)) {
      const names = namesIn(value)
      return value.map((item) => mend(item, names, depth + 1))
    }
    const names = namesIn(Object.values(value))
    const fields = Object.entries(value).map(([key, field]): [string, unknown] => {
      if (typeof field !== 'string' || !NAME_KEYS.includes(key)) return [key, mend(field, names, depth + 1)]
      if (isPlainText(field)) return [key, field]
      const name = freeName(plainText(field).trim() || 'Unnamed', key === 'name' ? [...taken, ...mended] : [])
      mended.push(name)
      return [key, name]
    })
    return Object.fromEntries(fields)
  }
  return { data: mend(data, [], 0), mended }
}

/** The names of things side by side that can be shown as they are. */
const namesIn = (things: readonly unknown[]): string[] =>
  things.flatMap((thing) => {
    const name = typeof thing === 'object' && thing !== null && 'name' in thing ? thing.name : null
    return typeof name === 'string' && isPlainText(name) ? [name] : []
  })

/** Says which names were mended; null where none was. */
export function sayMended(names: readonly string[]): string | null {
  if (names.length === 0) return null
  const some = names.slice(0, MOST_NAMED).map((name) => `"${name}"`)
  const more = names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : ''
  return `The file had names with characters that cannot be shown. Geotome took them out: ${some.join(', ')}${more}.`
}

/** so many mended names are listed in a sentence */
const MOST_NAMED = 5
