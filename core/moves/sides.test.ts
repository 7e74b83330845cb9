import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { bodyFault, openKernel, volumeOf, type Vec2 } from '../solid'
import { box, build, cutArea as plate, outline, plainNumbers as numbers, raise } from '../testing/recipes'
import { buildRecipe, checkRecipe, placeFor, type Move } from './index'

beforeAll(() => openKernel())

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
    return [0, 3, 6, 9, 12].map((z) => plate(solid, z))
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
  it('beside a side that was pulled before runs on from where that stands, not from where it stood', () => {
    const twice = build(outline(box(10, 6)), raise(9), pull('e2', 1, 0, null), { ...pull('e3', 2, 0, null), id: 'w' })
    // Both from foot to head: they meet in their corner.
    expect(twice.volume).toBeCloseTo(11 * 8 * 9, 6)
    expect(
      twice.faces
        .filter((f) => f.name.startsWith('w/'))
        .map((f) => f.name)
        .sort(),
    ).toEqual(['w/e3'])
    expect(twice.leftOut).toEqual([])
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

it('two neighbouring sides that are pulled from foot to head meet in their corner', () => {
  const pull = (side: string, by: number): Move =>
    ({ id: `p-${side}`, move: 'pull', on: true, side, by, from: 0, fromLevel: null, to: null, toLevel: null }) as Move
  for (const [a, b, area] of [
    [1, 1, 11 * 9],
    [1, -2, 8 * 9],
    [-1, -2, 8 * 7],
  ] as const) {
    const one = build(outline(box(10, 8)), raise(3), pull('e1', a), pull('e2', b))
    const other = build(outline(box(10, 8)), raise(3), pull('e2', b), pull('e1', a))
    expect(one.volume / 3).toBeCloseTo(area, 8)
    expect(other.volume / 3).toBeCloseTo(area, 8)
  }
})

it('a side that is set in leaves no skin along the sides beside it, where they are not square to it', () => {
  const five: Move = {
    id: 'o',
    move: 'outline',
    on: true,
    shape: { kind: 'regular', sides: 5, by: 'corners', size: 5 },
    holes: [],
  }
  const back = (id: string, by: number): Move => ({
    id,
    move: 'step-back',
    on: true,
    side: 'e1',
    by,
    from: 2,
    level: null,
    span: { of: 'heights', from: 0, fromLevel: null, to: null, toLevel: null },
  })
  const { solid, faces, volume } = build(five, raise(6), back('a', 0.2), back('b', 0.3))
  expect(bodyFault(solid)).toBeNull()
  expect(faces).toHaveLength(7)
  expect(volume).toBeCloseTo(plate(solid, 3) * 6, 8)
})
