import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, outline, plainNumbers as numbers, raise } from '../testing/recipes'
import { areaOf, cutAt, loopArea, openKernel, type Vec2 } from '../solid'
import { checkRecipe, planOf, type Move } from './index'

beforeAll(() => openKernel())

const circle = (radius: number): Move => ({
  id: 'o',
  move: 'outline',
  on: true,
  shape: { kind: 'circle', radius },
  holes: [],
})
const inset = (by: number): Move => ({ id: 'i', move: 'inset', on: true, by })
const scale = (by: number): Move => ({ id: 's', move: 'scale', on: true, by })
const cut = (
  x: number,
  y: number,
  z: number,
  direction: number,
  rises: number,
  keeps: 'below' | 'above',
  id = 'c',
): Move => ({ id, move: 'cut', on: true, x, y, z, direction, rises, keeps })
const ring = (sides: number, radius: number): Vec2[] =>
  Array.from({ length: sides }, (_, i): Vec2 => [
    radius * Math.cos((2 * Math.PI * i) / sides),
    radius * Math.sin((2 * Math.PI * i) / sides),
  ])
const area = (...recipe: Move[]) => planOf(recipe, numbers).reduce((sum, l) => sum + loopArea(l.points), 0)

describe('a scaled plan', () => {
  it('of fourteen sides is 297.074 m² where it was 224.630, as high as it was', () => {
    const shape = outline(ring(14, 8.6))
    expect(area(shape)).toBeCloseTo(224.63, 3)
    expect(area(shape, scale(1.15))).toBeCloseTo(297.074, 3)
    const body = build(shape, scale(1.15), raise(9))
    expect(body.volume).toBeCloseTo(297.074 * 9, 1)
    expect(Math.max(...body.solid.positions.filter((_, i) => i % 3 === 2))).toBe(9)
    expect(new Set(body.faces.map((f) => f.name)).size).toBe(16)
  })
})

describe('an inset', () => {
  it('is as far from each side as it says, at right angles, inwards and outwards, and its sides keep their names', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 9 }), fc.integer({ min: -30, max: 30 }), fc.nat(360), (sides, dm, turn) => {
        const [by, a] = [dm / 10, (turn * Math.PI) / 180]
        const points = ring(sides, 20).map(([x, y]): Vec2 => [
          3e5 + Math.cos(a) * x - Math.sin(a) * y,
          5e6 + Math.sin(a) * x + Math.cos(a) * y,
        ])
        const [line] = planOf([outline(points), inset(by)], numbers)
        expect(line?.edges).toEqual(points.map((_, i) => `e${i + 1}`))
        line?.points.forEach(([x, y], i) => {
          const [p, q] = [points[i] as Vec2, points[(i + 1) % sides] as Vec2]
          const l = Math.hypot(q[0] - p[0], q[1] - p[1])
          expect(((q[0] - p[0]) * (y - p[1]) - (q[1] - p[1]) * (x - p[0])) / l).toBeCloseTo(by, 6)
        })
      }),
    )
  })
  it('adds up with a second one, and with the sides’ own lean', () => {
    expect(area(outline(box(10, 6.8)), inset(0.4))).toBeCloseTo(9.2 * 6, 9)
    expect(area(outline(box(10, 6.8)), inset(0.4), { ...inset(-0.9), id: 'j' })).toBeCloseTo(11 * 7.8, 9)
  })
  it('in which a side is gone is refused before anything is built', () => {
    expect(() => checkRecipe([outline(box(10, 6)), inset(3), raise(3)], 'Bar', numbers)).toThrow(
      'Set in by 3 m, a side of "Bar" is gone. Set it in by less, or draw the outline anew.',
    )
  })
})

describe('a cut', () => {
  it('keeps what lies to the left of an upright line, or to its right, and has a face of its own', () => {
    const whole = [outline(box(10, 6)), raise(4)]
    const [left, right] = [
      build(...whole, cut(4, 0, 0, 90, 90, 'below')),
      build(...whole, cut(4, 0, 0, 90, 90, 'above')),
    ]
    expect([left.volume, right.volume]).toEqual([expect.closeTo(96, 9), expect.closeTo(144, 9)])
    expect(left.faces.find((f) => f.name === 'c/cut')?.plane).toEqual({ n: [1, 0, 0], d: expect.closeTo(4, 9) })
    expect(left.faces.map((f) => f.name).sort()).toEqual(['c/cut', 'r/base', 'r/e1', 'r/e3', 'r/e4', 'r/top'])
  })
  it('rises to the left of its line by its angle, from its height', () => {
    // Along the south side, from 2 m up at 45 degrees: what lies below is a wedge on a box.
    const body = build(outline(box(10, 6)), raise(9), cut(0, 0, 2, 0, 45, 'below'))
    expect(body.volume).toBeCloseTo(10 * 6 * 2 + (10 * 6 * 6) / 2, 6)
  })
  it('has two sides that are the whole, wherever the plane runs, through whatever is there', () => {
    const shapes: Move[][] = [
      [outline(box(14, 9)), raise(8)],
      [circle(6), raise(8)],
      [outline(box(14, 9)), raise(8), { id: 'p', move: 'pitch', on: true, angle: 32, direction: 0 }],
      [outline(ring(5, 8)), raise(12), { id: 't', move: 'taper', on: true, by: { kind: 'scale', scale: 0.6 } }],
      [outline(box(14, 9)), inset(0.5), raise(8), cut(2, 2, 5, 30, 20, 'below', 'first')],
    ]
    fc.assert(
      fc.property(
        fc.nat(shapes.length - 1),
        fc.integer({ min: -50, max: 100 }),
        fc.integer({ min: -50, max: 100 }),
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: -90, max: 90 }),
        (k, x, y, z, direction, rises) => {
          const whole = shapes[k] as Move[]
          const sides = (['below', 'above'] as const).map((keeps) =>
            build(...whole, cut(x / 10, y / 10, z / 10, direction, rises, keeps)),
          )
          // A side that would be nothing is left as it was, and said.
          const [a, b] = sides as [(typeof sides)[0], (typeof sides)[0]]
          const all = build(...whole).volume
          if (a.leftOut.length || b.leftOut.length)
            expect([...a.leftOut, ...b.leftOut].map((l) => l.say)).toEqual(['The cut leaves nothing of "M".'])
          else expect((a.volume + b.volume) / all).toBeCloseTo(1, 6)
        },
      ),
      { numRuns: 120 },
    )
  })
  it('has plates whose areas add up to its volume over its height', () => {
    const { solid, volume } = build(outline(box(14, 9)), raise(8), cut(7, 4, 4, 25, 33, 'below'))
    const steps = 4000
    const sum = Array.from({ length: steps }, (_, i) =>
      areaOf(cutAt(solid, ((i + 0.5) * 8) / steps).map((l) => l.points)),
    ).reduce((a, b) => a + b, 0)
    expect((sum * 8) / steps / volume).toBeCloseTo(1, 5)
  })
  it('at map coordinates is the same as at home', () => {
    const far = box(14, 9).map(([x, y]): Vec2 => [x + 350_000, y + 5_600_000])
    const [here, there] = [
      build(outline(box(14, 9)), raise(8), cut(5, 3, 2, 40, 30, 'below')),
      build(outline(far), raise(8), cut(350_005, 5_600_003, 2, 40, 30, 'below')),
    ]
    expect(there.volume).toBeCloseTo(here.volume, 6)
  })
})
