import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { blankProject, numbersOf } from '../project'
import { areaOf, cutAt, facesOf, loopArea, openKernel, volumeOf, type Vec2 } from '../solid'
import { buildRecipe, checkRecipe, placeFor, planOf, type Move } from './index'

beforeAll(() => openKernel())

let n = 0
const numbers = {
  ...numbersOf(
    blankProject(() => `m${++n}`, 'T', 'm', null),
    null,
  ),
  base: 0,
  heights: new Map<string, number>(),
}
const outline = (points: Vec2[]): Move => ({
  id: 'o',
  move: 'outline',
  on: true,
  shape: { kind: 'polygon', corners: points.map(([x, y], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })) },
  holes: [],
})
const circle = (radius: number): Move => ({
  id: 'o',
  move: 'outline',
  on: true,
  shape: { kind: 'circle', radius },
  holes: [],
})
const raise = (height: number): Move => ({ id: 'r', move: 'raise', on: true, height, upTo: null })
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
const build = (...recipe: Move[]) => {
  const form = buildRecipe(recipe, numbers, 'M')
  return { ...form, volume: volumeOf(form.solid), faces: facesOf(form.solid) }
}
const box = (w: number, d: number): Vec2[] => [
  [0, 0],
  [w, 0],
  [w, d],
  [0, d],
]
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

describe('a step back', () => {
  const step = (side: string | null, by: number, from: number, id = 'b'): Move => ({
    id,
    move: 'step-back',
    on: true,
    side,
    by,
    from,
    level: null,
  })
  const plate = (solid: ReturnType<typeof build>['solid'], z: number) => areaOf(cutAt(solid, z).map((l) => l.points))

  it('of 7.52 from a short side leaves 345.80 of 421.00 m², and a terrace of 75.20', () => {
    const { solid, faces } = build(outline(box(42.1, 10)), raise(12), step('e2', 7.52, 9))
    expect([0, 3, 6, 9].map((z) => Number(plate(solid, z).toFixed(6)))).toEqual([421, 421, 421, 345.8])
    expect(faces.find((f) => f.name === 'b/terrace')?.area).toBeCloseTo(75.2, 6)
    expect(faces.find((f) => f.name === 'b/terrace')?.plane.n[2]).toBeCloseTo(1, 9)
    expect(faces.find((f) => f.name === 'b/e2')?.plane).toEqual({
      n: [expect.closeTo(1, 9), expect.closeTo(0, 9), 0],
      d: expect.closeTo(42.1 - 7.52, 6),
    })
  })
  it('on all sides is as far from each; steps add up, each at its own height', () => {
    const { solid, faces } = build(outline(box(20, 12)), raise(12), step(null, 1.5, 4, 'b'), step(null, 3, 8, 'd'))
    expect([0, 4, 8].map((z) => Number(plate(solid, z).toFixed(6)))).toEqual([240, 17 * 9, 14 * 6])
    expect(faces.filter((f) => f.name.endsWith('/terrace')).map((f) => Number(f.area.toFixed(6)))).toEqual([87, 69])
  })
  it('of one side of any outline takes off what lies within it and nothing else, turned and at map coordinates', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 8, max: 14 }), { minLength: 3, maxLength: 8 }),
        fc.nat(7),
        fc.integer({ min: 1, max: 15 }),
        fc.nat(359),
        fc.boolean(),
        (radii, k, dm, turn, isFar) => {
          const points = radii.map((r, i): Vec2 => {
            const a = (2 * Math.PI * i) / radii.length + (turn * Math.PI) / 180
            return [r * Math.cos(a) + (isFar ? 350_000 : 0), r * Math.sin(a) + (isFar ? 5_600_000 : 0)]
          })
          const n = points.length
          const i = k % n
          const form = buildRecipe([outline(points), raise(9), step(`e${i + 1}`, dm / 10, 6)], numbers, 'M')
          if (form.leftOut.length) return
          const [a, b] = [points[i] as Vec2, points[(i + 1) % n] as Vec2]
          const length = Math.hypot(b[0] - a[0], b[1] - a[1])
          const taken = plate(form.solid, 1) - plate(form.solid, 7)
          // A trapezium along the side: its ends run on along the sides beside it.
          const lean = (p: Vec2, q: Vec2) => {
            const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
            const [vx, vy] = [p[0] - q[0], p[1] - q[1]]
            return (ux * vx + uy * vy) / (ux * vy - uy * vx)
          }
          const [w, d] = [lean(points[(i + n - 1) % n] as Vec2, a), -lean(points[(i + 2) % n] as Vec2, b)]
          expect(taken).toBeCloseTo((dm / 10) * (length - ((w + d) * dm) / 20), 3)
          expect(volumeOf(form.solid)).toBeCloseTo(plate(form.solid, 1) * 6 + plate(form.solid, 7) * 3, 3)
        },
      ),
      { numRuns: 80 },
    )
  })
  it('at a level goes with it; above its top, or of a side that is gone, it is left out with a sentence', () => {
    const whole = [outline(box(10, 6)), raise(9)]
    const say = (...recipe: Move[]) => buildRecipe(recipe, numbers, 'Bar').leftOut.map((l) => `${l.say} ${l.remedy}`)
    expect(say(...whole, step('e1', 2, 9))[0]).toMatch(/steps back at 9 m, where it does not stand/)
    expect(say(...whole, step('e9', 2, 3))[0]).toMatch(/has no side "e9" any more/)
    expect(say(...whole, step(null, 3, 3))[0]).toMatch(/Moved in by 3 m, a side of "Bar" is gone/)
    expect(
      say(...whole, { id: 't', move: 'taper', on: true, by: { kind: 'scale', scale: 0.5 } }, step('e1', 1, 3))[0],
    ).toMatch(/not those of an outline that stands upright/)
    const tied: Move = {
      id: 'b',
      move: 'step-back',
      on: true,
      side: 'e1',
      by: 2,
      from: 0,
      level: { level: 'L2', above: 0 },
    }
    const at = (height: number) =>
      volumeOf(buildRecipe([...whole, tied], { ...numbers, heights: new Map([['L2', height]]) }, 'Bar').solid)
    expect([at(3), at(6)]).toEqual([expect.closeTo(180 + 240, 6), expect.closeTo(360 + 120, 6)])
  })
})

describe('a pull', () => {
  const L: Vec2[] = [
    [0, 0],
    [24, 0],
    [24, 7.2],
    [7.2, 7.2],
    [7.2, 18],
    [0, 18],
  ]
  const pull = (side: string, by: number, from: number, to: number | null): Move => ({
    id: 'q',
    move: 'pull',
    on: true,
    side,
    by,
    from,
    fromLevel: null,
    to,
    toLevel: null,
  })
  const plates = (...recipe: Move[]) => {
    const { solid } = buildRecipe(recipe, numbers, 'L')
    return [0, 3, 6, 9, 12].map((z) => areaOf(cutAt(solid, z).map((l) => l.points)))
  }
  const total = (...recipe: Move[]) => plates(...recipe).reduce((a, b) => a + b, 0)

  it('of the end of an arm by 1.20 on the third storey makes 1,261.44 of five times 250.56 m², on the second to fourth 1,278.72', () => {
    const whole = [outline(L), raise(15)]
    expect(total(...whole)).toBeCloseTo(1252.8, 6)
    expect(total(...whole, pull('e2', 1.2, 6, 9))).toBeCloseTo(1261.44, 6)
    expect(total(...whole, pull('e2', 1.2, 3, 12))).toBeCloseTo(1278.72, 6)
    expect(total(...whole, pull('e2', -1.2, 6, 9))).toBeCloseTo(1244.16, 6)
    expect(total(...whole, pull('e2', 1.2, 0, null))).toBeCloseTo(1252.8 + 5 * 8.64, 6)
  })
  it('stands before what is joined, and is put there', () => {
    const join: Move = {
      id: 'jn',
      move: 'join',
      on: true,
      name: 'Arm',
      place: { x: 24, y: 0, turn: 0 },
      lift: 0,
      recipe: [outline(box(6, 7.2)), raise(15)],
    }
    expect(() => checkRecipe([outline(L), raise(15), join, pull('e2', 1.2, 6, 9)], 'L', numbers)).toThrow(
      /a pull stands behind a join, .* It is about the sides of the outline, not of what was joined: put it behind the raise/,
    )
    expect(placeFor([outline(L), raise(15), join], pull('e2', 1.2, 6, 9))).toBe(2)
  })
  it('over the whole height is the outline with that side moved: its neighbours, top and base run on under their names', () => {
    const { faces, volume } = build(outline(L), raise(15), pull('e2', 1.2, 0, null))
    expect(volume).toBeCloseTo((250.56 + 8.64) * 15, 6)
    expect(faces.map((f) => f.name).sort()).toEqual(['q/e2', 'r/base', 'r/e1', 'r/e3', 'r/e4', 'r/e5', 'r/e6', 'r/top'])
  })
  it('adds what lies before the side and takes off what lies behind it, wherever it looks and whatever is beside it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 30 }),
        fc.nat(359),
        fc.boolean(),
        (k, dm, turn, isFar) => {
          const a = (turn * Math.PI) / 180
          const [far, away] = isFar ? [350_000, 5_600_000] : [0, 0]
          const points = L.map(([x, y]): Vec2 => [
            far + x * Math.cos(a) - y * Math.sin(a),
            away + x * Math.sin(a) + y * Math.cos(a),
          ])
          const [p, q] = [L[k - 1] as Vec2, L[k % 6] as Vec2]
          const strip = (Math.hypot(q[0] - p[0], q[1] - p[1]) * dm) / 10
          const [out, back] = [dm / 10, -dm / 10].map((by) =>
            build(outline(points), raise(15), pull(`e${k}`, by, 6, 9)),
          )
          expect(out?.volume).toBeCloseTo(250.56 * 15 + strip * 3, 3)
          expect(back?.volume).toBeCloseTo(250.56 * 15 - strip * 3, 3)
        },
      ),
      { numRuns: 60 },
    )
  })
})
