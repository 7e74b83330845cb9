import fc from 'fast-check'
import { expect, it } from 'vitest'
import { DIRECTIONS, howSaid, keptDirection, saidDirection } from './direction'

const Directions = fc.constantFrom(...DIRECTIONS)

it('a direction along the x axis of a frame is east: bearing 90, and turned by 30 degrees counter-clockwise bearing 60', () => {
  expect([0, 90, 180, 270].map((d) => saidDirection(d, 'bearing'))).toEqual([90, 0, 270, 180])
  expect(saidDirection(0, 'bearing', 30)).toBe(60)
  expect(saidDirection(0, 'from east', 30)).toBe(30)
  expect(keptDirection(60, 'bearing', 30)).toBe(0)
})

it('what is said and typed back is what was kept, number or formula', () => {
  const nums = fc.oneof(
    fc.integer({ min: 0, max: 3599 }).map((n) => n / 10),
    fc.constantFrom('{dial}', '2 * ({dial} - 3 deg)', '90 deg - ({dial}) + (3 deg)').map((formula) => ({ formula })),
  )
  fc.assert(
    fc.property(nums, Directions, fc.constantFrom(0, 30, 17.3, -122.9), (num, directions, turn) => {
      expect(keptDirection(saidDirection(num, directions, turn), directions, turn)).toEqual(num)
      expect(saidDirection(keptDirection(num, directions, turn), directions, turn)).toEqual(num)
    }),
  )
})

it('a formula is of the same value as the number would be', () => {
  expect(keptDirection({ formula: '{a}' }, 'bearing', 30)).toEqual({ formula: '60 deg - ({a})' })
  expect(keptDirection({ formula: '{a}' }, 'from east', 30)).toEqual({ formula: '-30 deg + ({a})' })
  // Brackets that close before the end are no brackets about the whole.
  expect(saidDirection({ formula: '90 deg - ({a}) + (3 deg)' }, 'bearing')).toEqual({
    formula: '90 deg - (90 deg - ({a}) + (3 deg))',
  })
})

it('says how it is counted, and from whose north', () => {
  expect(howSaid('bearing')).toBe('from north, clockwise')
  expect(howSaid('from east', 'the rule')).toBe("from the rule's east, counter-clockwise")
})
