import type * as v from 'valibot'
import { PROJECT_COLLECTIONS, SCHEME_COLLECTIONS } from './collections'

/** What is wrong at a place of outside data: the way to it, and a clause that goes on behind its name. */
export interface DataFault {
  path: unknown[]
  says: string
  isMissing: boolean
}

/** The innermost fault of a choice of schemas, with the whole way to it. */
export function faultOf(issue: v.BaseIssue<unknown>): DataFault {
  const here = issue.path?.map((step) => step.key) ?? []
  const inner = issue.issues?.[0]
  if (inner) {
    const found = faultOf(inner)
    return { ...found, path: [...here, ...found.path] }
  }
  if (issue.received === 'undefined') return { path: here, says: 'is missing', isMissing: true }
  return { path: here, says: clause(issue), isMissing: false }
}

/** so many choices are named in a sentence */
const MOST_CHOICES = 6

/** What is there, and what would be: the sentences of schemas of our own stand as they are. */
function clause({ message, expected, received }: v.BaseIssue<unknown>): string {
  if (!message.startsWith('Invalid')) return `is not right: ${message.replace(/\.$/, '')}`
  if (expected === 'never') return 'is not known there'
  if (!expected) return `cannot be ${received}`
  const choices = expected.replace(/^\(|\)$/g, '').split(' | ')
  const some = choices.slice(0, MOST_CHOICES)
  const more = choices.length - some.length
  const last = some.length > 1 && more === 0 ? ` or ${some.pop() ?? ''}` : ''
  return `is ${received}, and should be ${some.map(wordOf).join(', ')}${last}${more > 0 ? `, or one of ${more} more` : ''}`
}

const WORDS: Record<string, string> = {
  number: 'a number',
  string: 'a text',
  boolean: 'true or false',
  Array: 'a list',
  Object: 'a group of values',
  object: 'a group of values',
}
const wordOf = (expected: string) => WORDS[expected] ?? expected

const ONE = new Map<string, string>([
  ['schemes', 'scheme'],
  ...Object.entries({ ...PROJECT_COLLECTIONS, ...SCHEME_COLLECTIONS }).map(([key, { one }]): [string, string] => [
    key,
    one.replace(/^(project|scheme)-/, '').replace(/-/g, ' '),
  ]),
])

/** A place in a project's data as a person finds it: 'scheme "Two bars", mass "Market hall", recipe 2 (raise), height'. */
export function sayPlace(path: readonly unknown[], data: unknown): string {
  const words: string[] = []
  let at = data
  for (let i = 0; i < path.length; i++) {
    const key = path[i]
    const under = valueIn(at, key)
    const one = typeof key === 'string' ? ONE.get(key) : undefined
    const next = path[i + 1]
    if (one !== undefined && typeof next === 'string') {
      at = valueIn(under, next)
      words.push(`${one} "${nameOf(at) ?? next}"`)
      i++
    } else if (typeof key === 'number') {
      const kind = nameOf(under) ?? kindOf(under)
      words.push(`${words.pop() ?? ''} ${key + 1}${kind ? ` (${kind})` : ''}`.trim())
      at = under
    } else {
      words.push(String(key))
      at = under
    }
  }
  return words.join(', ')
}

const valueIn = (at: unknown, key: unknown): unknown =>
  typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[String(key)] : undefined
const textIn = (at: unknown, key: string): string | null => {
  const text = valueIn(at, key)
  return typeof text === 'string' && text.trim() && text.length < 80 ? text : null
}
const nameOf = (at: unknown) => textIn(at, 'name')
const kindOf = (at: unknown) => textIn(at, 'move') ?? textIn(at, 'step') ?? textIn(at, 'kind')

/** Why a text is not read as JSON, in words: the parsers' own differ from one another. */
export function sayNoJson(text: string, e: unknown): string {
  const begins = text.trimStart()
  if (begins === '') return 'there is nothing in it'
  if (begins.startsWith('<')) return 'it is a web page, or another text with tags'
  const message = e instanceof Error ? e.message : ''
  const where = /position (\d+)/.exec(message)?.[1]
  if (/end of JSON|Unterminated|end of data|unterminated/i.test(message) || Number(where) >= text.length)
    return 'it ends before it is complete'
  if (!/^[[{]/.test(begins)) return 'it is some other kind of file'
  return where === undefined ? 'it is damaged' : `it is damaged at character ${Number(where) + 1}`
}
