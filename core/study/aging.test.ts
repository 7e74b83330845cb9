import { expect, it } from 'vitest'
import { RecentMap } from './aging'

it('keeps the entries of the last studies; the ids of earlier ones leave nothing behind', () => {
  const map = new RecentMap<number>()
  map.set('stays', 1)
  for (let study = 0; study < 500; study++) {
    map.begin()
    expect(map.get('stays')).toBe(1)
    map.set(`made for ${study}`, study)
    expect(map.size).toBeLessThan(20)
  }
  expect(map.get('made for 495')).toBe(495)
  expect(map.get('made for 3')).toBeUndefined()
})
