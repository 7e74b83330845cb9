import fc from 'fast-check'
import { expect, it } from 'vitest'
import { parseEdit } from '../edits'
import { isSmall, MOST_NESTED, MOST_VALUES, needBounds } from './bounds'

const nested = (deep: number) => '['.repeat(deep) + ']'.repeat(deep)

it('takes a document of the greatest depth, and refuses one level more', () => {
  expect(() => needBounds(nested(MOST_NESTED))).not.toThrow()
  expect(() => needBounds(nested(MOST_NESTED + 1))).toThrow('nests more than 100 times. Take it apart')
  expect(() => needBounds(`[${nested(3).repeat(400).replaceAll('][', '],[')}]`)).not.toThrow()
})

it('counts values, and no brackets and commas of a text', () => {
  expect(() => needBounds(JSON.stringify({ name: '[{,'.repeat(1000), 'a"[[[': '\\"[' }))).not.toThrow()
  expect(() => needBounds(`[${'0,'.repeat(MOST_VALUES + 1)}0]`)).toThrow(/holds more than 5000000 values/)
})

it('takes every small document', () => {
  fc.assert(fc.property(fc.json({ maxDepth: 8 }), (text) => needBounds(text) === undefined))
})

it('says of small data alone that all its faults may be listed', () => {
  expect([isSmall({ a: [1, 2, { b: 'x' }] }), isSmall(null), isSmall(Array(6000).fill(0))]).toEqual([true, true, false])
  const wide = { edit: 'patch', changes: Array.from({ length: 200_000 }, () => ({ a: 1 })) }
  expect(() => parseEdit(wide)).toThrow(/The edit "patch" is malformed at changes.0/)
})
