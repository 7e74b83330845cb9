import { expect, it } from 'vitest'
import { Memo } from './memo'

it('a thing that stays while its values get ever new names keeps those that are asked for, and few others', () => {
  const memo = new Memo()
  const thing = {}
  let made = 0
  for (let round = 0; round < 2000; round++) {
    memo.begin()
    for (let level = 0; level < 10; level++) memo.keep(thing, `level ${level}`, [], () => made++)
    memo.keep(thing, `height ${round}`, [], () => 0)
  }
  expect(made).toBe(10)
  expect(memo.count(thing)).toBeLessThan(100)
})

it('a thing with thousands of values that are all asked for keeps all of them', () => {
  const memo = new Memo()
  const thing = {}
  let made = 0
  for (let round = 0; round < 40; round++) {
    memo.begin()
    for (let place = 0; place < 3000; place++) memo.keep(thing, `place ${place}`, [round < 20], () => made++)
  }
  expect(made).toBe(6000)
  expect(memo.count(thing)).toBe(3000)
})
