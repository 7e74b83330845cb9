import fc from 'fast-check'
import { expect, it } from 'vitest'
import { sideTitles } from './side-names'
import type { Vec2 } from './place'

const rect = (x: number, y: number, w: number, d: number): Vec2[] => [
  [x, y],
  [x + w, y],
  [x + w, y + d],
  [x, y + d],
]
const RING = ['e1', 'e2', 'e3', 'e4']
const block = { points: rect(0, 0, 12, 8), names: RING }

it('a side is called by where it looks on the site, however its mass is turned', () => {
  expect([...sideTitles([block])]).toEqual([
    ['e1', 'south side'],
    ['e2', 'east side'],
    ['e3', 'north side'],
    ['e4', 'west side'],
  ])
  expect([...sideTitles([block], 90).values()]).toEqual(['east side', 'north side', 'west side', 'south side'])
  expect(sideTitles([block], 45).get('e1')).toBe('south-east side')
})

it('the sides of a court are called by where they look into it, those of several courts by the court too', () => {
  const court = (x: number, name: string) => ({
    points: [...rect(x, 3, 2, 2)].reverse(),
    names: ['a', 'b', 'c', 'd'].map((edge) => `${name}/${edge}`),
  })
  const one = sideTitles([block, court(3, 'h1')])
  expect([...one.values()].slice(4).sort()).toEqual(
    ['east', 'north', 'south', 'west'].map((wind) => `court, looking ${wind}`),
  )
  expect(one.get('h1/d')).toBe('court, looking east')
  expect(sideTitles([block, court(3, 'h1'), court(7, 'h2')]).get('h2/d')).toBe('court 2, looking east')
})

it('facets and pieces of one side are one, a round that goes all about has no side', () => {
  const notched: Vec2[] = [
    [0, 0],
    [4, 0],
    [4, 1],
    [8, 1],
    [8, 0],
    [12, 0],
    [12, 8],
    [0, 8],
  ]
  const names = ['e1', 'n1', 'n2', 'n3', 'e1', 'e2', 'e3', 'e4']
  const titles = sideTitles([{ points: notched, names }])
  // Behind one another they are counted from the nearest on.
  expect(titles.get('e1')).toBe('south side 1')
  expect(titles.get('n2')).toBe('south side 2')
  expect(sideTitles([{ points: block.points, names: ['round', 'round', 'round', 'round'] }]).size).toBe(0)
})

it('no two sides have one name, of any number of bodies, at any turn and place', () => {
  const places = fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 0, max: 2 })), {
    minLength: 1,
    maxLength: 6,
    selector: ([x, y]) => `${x} ${y}`,
  })
  fc.assert(
    fc.property(places, fc.constantFrom(0, 30, 45, 122.9), fc.constantFrom(0, 450_000), (at, turn, far) => {
      const loops = at.map(([x, y], i) => ({
        points: rect(far + 10 * x, far + 10 * y, 6, 4),
        names: RING.map((edge) => `${i}/${edge}`),
      }))
      const titles = [...sideTitles(loops, turn).values()]
      expect(titles).toHaveLength(4 * at.length)
      expect(new Set(titles).size).toBe(titles.length)
    }),
  )
})
