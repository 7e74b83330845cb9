import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blankProject, numbersOf } from '../../project'
import { gapOf, loopArea, perimeterOf, type Vec2 } from '../../solid'
import {
  checkRecipe,
  corners,
  likeShapes,
  polygonOf,
  sizedBy,
  type Footprint,
  type Move,
  type OutlineShape,
  type Regular,
} from '../index'

let n = 0
const numbers = {
  ...numbersOf(
    blankProject(() => `m${++n}`, 'T', 'm', null),
    null,
  ),
  base: 0,
  heights: new Map<string, number>(),
}
const at = (shape: OutlineShape) => corners(shape, numbers)
const area = (shape: OutlineShape) => loopArea(at(shape))
const check = (shape: OutlineShape) =>
  checkRecipe(
    [
      { id: 'o', move: 'outline', on: true, shape, holes: [] },
      { id: 'r', move: 'raise', on: true, height: 3, upTo: null },
    ] satisfies Move[],
    'Bar',
    numbers,
  )
const footprint = (form: Footprint['form'], width: number, depth: number, a: number, b: number): Footprint => ({
  kind: 'footprint',
  form,
  width,
  depth,
  a,
  b,
})
const sided = (sides: number, by: Regular['by'], size: number): Regular => ({ kind: 'regular', sides, by, size })

describe('a ready footprint', () => {
  it('H of 18.0 by 12.6 with gaps 5.4 wide and 3.6 deep has 187.92 m², 75.60 m round, twelve corners', () => {
    const h = footprint('H', 18, 12.6, 5.4, 3.6)
    expect([area(h), perimeterOf([at(h)]), at(h).length]).toEqual([
      expect.closeTo(187.92, 9),
      expect.closeTo(75.6, 9),
      12,
    ])
  })
  it('L of 24.0 by 18.0 with both arms 7.2 wide has 250.56 m²', () => {
    expect(area(footprint('L', 24, 18, 7.2, 7.2))).toBeCloseTo(250.56, 9)
  })
  it('of any sizes that fit goes round once, counter-clockwise, in right angles, within its width and depth', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('L', 'T', 'U', 'H', 'cross'),
        fc.integer({ min: 20, max: 600 }),
        fc.integer({ min: 20, max: 600 }),
        fc.integer({ min: 1, max: 99 }),
        fc.integer({ min: 1, max: 99 }),
        (form, w, d, pa, pb) => {
          const most = { L: [d, w], T: [d, w], U: [w, d], H: [w, d / 2], cross: [d, w] }[form] as [number, number]
          const shape = footprint(
            form as Footprint['form'],
            w / 10,
            d / 10,
            (most[0] * pa) / 1000,
            (most[1] * pb) / 1000,
          )
          expect(() => check(shape)).not.toThrow()
          const points = at(shape)
          expect(loopArea(points)).toBeGreaterThan(0)
          points.forEach((p, i) => {
            const q = points[(i + 1) % points.length] as Vec2
            expect(Math.min(Math.abs(p[0] - q[0]), Math.abs(p[1] - q[1]))).toBeLessThan(1e-9)
          })
          expect([Math.max(...points.map((p) => p[0])), Math.max(...points.map((p) => p[1]))]).toEqual([w / 10, d / 10])
        },
      ),
    )
  })
  it('whose arms are too wide for it is refused with what they must stay below', () => {
    expect(() => check(footprint('H', 18, 12.6, 5.4, 6.3))).toThrow(
      'The gaps, deep of "Bar" is 6.3 m. Type less than 6.3 m, or make the whole larger.',
    )
  })
})

describe('equal sides', () => {
  it('fourteen on a circle of 8.60 are 3.8274 long, and have 224.630 m²', () => {
    const shape = sided(14, 'corners', 8.6)
    const [a, b] = at(shape) as [Vec2, Vec2]
    expect(gapOf(a, b)).toBeCloseTo(3.8274, 4)
    expect(area(shape)).toBeCloseTo(224.63, 3)
  })
  it('are the same whichever way their size is given, with a level side to the south', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 40 }), fc.integer({ min: 5, max: 500 }), (sides, dm) => {
        const shape = sided(sides, 'corners', dm / 10)
        for (const by of ['corners', 'flats', 'side'] as const) {
          const other = sizedBy(shape, by, numbers)
          expect(area(other) / area(shape)).toBeCloseTo(1, 6)
          at(other).forEach((p, i) => expect(gapOf(p, at(shape)[i] as Vec2)).toBeLessThan(1e-6))
        }
        const [a, b] = at(shape) as [Vec2, Vec2]
        expect(a[1]).toBeCloseTo(b[1], 9)
        expect(Math.min(...at(shape).map((p) => p[1]))).toBeCloseTo(a[1], 9)
      }),
    )
  })
  it('are whole in number, from three', () => {
    for (const sides of [2, 3.5, 201])
      expect(() => check(sided(sides, 'side', 4))).toThrow(/Type a whole number from 3 to 200/)
  })
})

describe('a shape that is changed into another', () => {
  it('keeps the sizes they share, and comes back as it was', () => {
    const box: OutlineShape = { kind: 'rectangle', width: 18, depth: 12.6 }
    const h = likeShapes(box, numbers).find((s) => s.name === 'H')?.shape as OutlineShape
    expect(h).toMatchObject({ kind: 'footprint', width: 18, depth: 12.6 })
    expect(likeShapes(h, numbers)[0]).toEqual({ name: 'H', shape: h })
    expect(likeShapes(h, numbers).find((s) => s.name === 'rectangle')?.shape).toEqual(box)
    const round: OutlineShape = { kind: 'circle', radius: 8.6 }
    const six = likeShapes(round, numbers).find((s) => s.name === 'equal sides')?.shape as OutlineShape
    expect(
      likeShapes(sizedBy(six as Regular, 'side', numbers), numbers).find((s) => s.name === 'circle')?.shape,
    ).toEqual({ kind: 'circle', radius: expect.closeTo(8.6, 6) })
  })
  it('with free corners keeps the names of its sides', () => {
    const l = footprint('L', 24, 18, 7.2, 7.2)
    expect(polygonOf(l, numbers).map((c) => c.id)).toEqual(['e1', 'e2', 'e3', 'e4', 'e5', 'e6'])
    expect(area({ kind: 'polygon', corners: polygonOf(l, numbers) })).toBeCloseTo(250.56, 9)
    expect(likeShapes({ kind: 'polygon', corners: polygonOf(l, numbers) }, numbers)).toEqual([])
  })
})
