import { describe, expect, it } from 'vitest'
import { outlineUse, OUTLINE_USES } from '../tools/outlines/list'
import { TOOLS } from '../tools/list'
import { DESK_NAMES } from './kind'
import { isAt, keyName, VERBS, verbOfKey } from './list'

describe('the list of verbs', () => {
  it('no desk has a key for two verbs, and none of those everywhere is hidden by one', () => {
    for (const desk of DESK_NAMES) {
      const keys = VERBS.filter((v) => isAt(v, desk)).flatMap((v) => [v.key, v.also].filter((k) => k !== undefined))
      expect(keys.length, desk).toBe(new Set(keys).size)
    }
  })
  it('a key means what it says at its desk', () => {
    expect(verbOfKey('B', 'ground')?.label).toBe('Neighbour')
    expect(verbOfKey('B', 'fabric')?.label).toBe('Make building')
    expect(verbOfKey('B', 'slice')).toBeUndefined()
    expect(verbOfKey('L', 'form')?.label).toBe('Ledger')
    expect(keyName({ key: 'z', ctrlKey: true, metaKey: false, shiftKey: true })).toBe('Ctrl Shift Z')
  })
  it('tools, and what outlines become, are known by one name each', () => {
    expect(new Set(TOOLS.map((t) => t.name)).size).toBe(TOOLS.length)
    for (const use of OUTLINE_USES) expect(outlineUse(use.name)).toBe(use)
  })
})
