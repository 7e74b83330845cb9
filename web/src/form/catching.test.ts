import { describe, expect, it } from 'vitest'
import type { Vec2 } from '@geotome/core/solid'
import { catchPoint, type CatchContext } from './catching'

const there: Vec2[] = [[0, 0], [10, 0], [10, 6], [0, 6]]
const at = (raw: Vec2, more: Partial<CatchContext> = {}) => catchPoint(raw, { outlines: [], drawn: [], pixel: 0.05, stride: 0.1, held: false, ...more })

describe('the pointer catches', () => {
  it('ends and middles of what is there, the nearest one', () => {
    expect(at([9.8, 0.2], { outlines: [there] })).toMatchObject({ point: [10, 0], word: 'end' })
    expect(at([5.2, -0.1], { outlines: [there] })).toMatchObject({ point: [5, 0], word: 'middle' })
    expect(at([2.52, 0.2], { outlines: [there] })).toMatchObject({ point: [2.5, 0], word: 'on side' })
  })
  it('the axes through the last corner', () => {
    expect(at([7.03, 0.2], { drawn: [[0, 0]] })).toMatchObject({ point: [7, 0], word: 'along east' })
    expect(at([0.2, 3.04], { drawn: [[0, 0]] })).toMatchObject({ point: [0, 3], word: 'along north' })
  })
  it('square to the last side, where that is no axis', () => {
    const caught = at([-0.9, 7.1], { drawn: [[0, 0], [3, 4]] })
    expect(caught.word).toBe('square to')
    expect((caught.point[0] - 3) * 3 + (caught.point[1] - 4) * 4).toBeCloseTo(0, 6)
  })
  it('the line of the first corner, so that the outline closes square', () => {
    expect(at([0.25, 8.1], { drawn: [[0, 0], [12, 0], [12, 8]] })).toMatchObject({ point: [0, 8], word: expect.stringContaining('in line with the first corner') as string })
  })
  it('the first corner, which closes the outline', () => {
    expect(at([0.2, 0.2], { drawn: [[0, 0], [12, 0], [12, 8]] })).toMatchObject({ point: [0, 0], word: 'close here' })
  })
  it('the stride where nothing else is near', () => {
    expect(at([33.33, -4.47])).toEqual({ point: [33.3, -4.5], word: null, along: null })
    expect(at([33.33, -4.47], { stride: 0.5 }).point).toEqual([33.5, -4.5])
  })
  it('only an axis while it is held to one, however far', () => {
    expect(at([7, 3], { drawn: [[0, 0]], held: true, outlines: [[[7, 3], [8, 3], [8, 4]]] }).point).toEqual([7, 0])
  })
})
