import { describe, expect, it } from 'vitest'
import type { Vec2 } from '@geotome/core/solid'
import { catchPoint, sizeNear, type CatchContext, type CatchEdge } from './catching'

const sides = (...points: Vec2[]): CatchEdge[] =>
  points.map((a, i) => ({ kind: 'side', a, b: points[(i + 1) % points.length] ?? a }))
const there = sides([0, 0], [10, 0], [10, 6], [0, 6])
const round: CatchEdge[] = [{ kind: 'arc', arc: { x: 20, y: 0, r: 5, from: 0, sweep: 2 * Math.PI, n: 24 } }]
const at = (raw: Vec2, more: Partial<CatchContext> = {}) =>
  catchPoint(raw, { edges: [], drawn: [], pixel: 0.05, stride: 0.1, held: false, ...more })

describe('the pointer catches', () => {
  it('ends and middles of what is there, the nearest one', () => {
    expect(at([9.8, 0.2], { edges: there })).toMatchObject({ point: [10, 0], word: 'end' })
    expect(at([5.2, -0.1], { edges: there })).toMatchObject({ point: [5, 0], word: 'middle' })
    expect(at([2.52, 0.2], { edges: there })).toMatchObject({ point: [2.5, 0], word: 'on side' })
    const named = there.map((e) => ({ ...e, of: 'Tower', named: 'south' }))
    expect(at([2.52, 0.2], { edges: named }).word).toBe('on south of Tower')
  })
  it('the centre of what is round, its line, and where a line from the last corner touches it', () => {
    expect(at([20.2, 0.1], { edges: round })).toMatchObject({ point: [20, 0], word: 'centre' })
    expect(at([23.6, 3.6], { edges: round })).toMatchObject({ word: 'on arc' })
    // From 13 m away a line touches a circle of 5 m after 12 m.
    const touched = at([20 - 25 / 13, 60 / 13], { edges: round, drawn: [[7, 0]], pixel: 0.01 })
    expect(touched.word).toBe('tangent to')
    expect(Math.hypot(touched.point[0] - 7, touched.point[1])).toBeCloseTo(12, 5)
  })
  it('crossings, and the foot of a perpendicular', () => {
    expect(at([10.1, 2.05], { edges: [...there, ...sides([8, 2], [14, 2])] })).toMatchObject({
      point: [10, 2],
      word: 'crossing',
    })
    expect(at([10.1, 2.1], { edges: sides([10, 0], [10, 6]), drawn: [[4, 2]] })).toMatchObject({
      point: [10, 2],
      word: 'square to',
    })
    expect(at([5.05, 1.0], { edges: sides([2, -2], [8, 4], [8, 4]), drawn: [[0, 1]] })).toMatchObject({ point: [5, 1] })
  })
  it('the axes through the last corner', () => {
    expect(at([7.03, 0.2], { drawn: [[0, 0]] })).toMatchObject({ point: [7, 0], word: 'along east' })
    expect(at([0.2, 3.04], { drawn: [[0, 0]] })).toMatchObject({ point: [0, 3], word: 'along north' })
  })
  it('square to the last side, where that is no axis', () => {
    const caught = at([-0.9, 7.1], {
      drawn: [
        [0, 0],
        [3, 4],
      ],
    })
    expect(caught.word).toMatch(/^square to/)
    expect((caught.point[0] - 3) * 3 + (caught.point[1] - 4) * 4).toBeCloseTo(0, 6)
  })
  it('the line of the first corner, so that the outline closes square', () => {
    expect(
      at([0.25, 8.1], {
        drawn: [
          [0, 0],
          [12, 0],
          [12, 8],
        ],
      }),
    ).toMatchObject({ point: [0, 8], word: expect.stringContaining('in line with the first corner') as string })
  })
  it('the first corner, which closes the outline', () => {
    expect(
      at([0.2, 0.2], {
        drawn: [
          [0, 0],
          [12, 0],
          [12, 8],
        ],
      }),
    ).toMatchObject({ point: [0, 0], word: 'close here' })
  })
  it('the stride where nothing else is near', () => {
    expect(at([33.33, -4.47])).toEqual({ point: [33.3, -4.5], word: null, along: null })
    expect(at([33.33, -4.47], { stride: 0.5 }).point).toEqual([33.5, -4.5])
    // Counted from the corner that was picked, along each axis: 10.0 x 6.8.
    expect(at([13.19, 8.7], { stride: 0.2, drawn: [[3.137, 1.952]] }).point).toEqual([13.137, 8.752])
  })
  it('only an axis while it is held to one, however far', () => {
    expect(at([7, 3], { drawn: [[0, 0]], held: true, edges: sides([7, 3], [8, 3], [8, 4]) }).point).toEqual([7, 0])
  })
  it('in line with corners of what is there, said by its name, along one axis or both', () => {
    const named = there.map((e) => ({ ...e, of: 'Tower' }))
    expect(at([10.1, 14.33], { edges: named })).toMatchObject({
      point: [10, 14.3],
      word: 'in line with a corner of Tower',
    })
    expect(at([10.1, 20.1], { edges: [...named, ...sides([30, 20], [40, 20], [40, 30])] }).point).toEqual([10, 20])
  })
  it('a side as long as the one before, and the marks of a picture', () => {
    const drawn: Vec2[] = [
      [0, 0],
      [7.3, 0],
    ]
    expect(at([7.4, 7.2], { drawn })).toMatchObject({
      point: [7.3, 7.3],
      word: 'along north, as long as the side before',
    })
    expect(at([3.1, 2.9], { marks: [{ point: [3.02, 3.01], word: 'mark on the picture' }] })).toMatchObject({
      point: [3.02, 3.01],
      word: 'mark on the picture',
    })
  })
  it('the size of the side, or the radius of the arc, that is nearest', () => {
    expect(sizeNear([9.5, 3], there)).toBe(6)
    expect(sizeNear([16, 3], [...there, ...round])).toBe(5)
    expect(sizeNear([0, 0], [])).toBeNull()
  })
  it('only the direction that is held, however far, and where it crosses what is there', () => {
    const only = { direction: [0.6, 0.8] as Vec2, word: 'square to' }
    const held = at([7, 1], { drawn: [[0, 0]], only, edges: there })
    expect(held.point[0] * 0.8 - held.point[1] * 0.6).toBeCloseTo(0, 6)
    expect(at([4.4, 6.1], { drawn: [[0, 0]], only, edges: there }).point).toEqual([4.5, 6])
  })
})
