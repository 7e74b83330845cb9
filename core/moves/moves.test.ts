import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { blankProject, numbersOf } from '../project'
import { facesOf, openKernel, volumeOf, type Vec2 } from '../solid'
import { buildRecipe, checkRecipe, outlineFault, placeFor, ridgeHeight, withMoved, type Move } from './index'

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
const polygon = (points: Vec2[]): Move => ({
  id: 'o',
  move: 'outline',
  on: true,
  shape: { kind: 'polygon', corners: points.map(([x, y], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })) },
  holes: [],
})
const raise = (height: number): Move => ({ id: 'r', move: 'raise', on: true, height, upTo: null })
const pitch = (angle: number, direction: number): Move => ({ id: 'p', move: 'pitch', on: true, angle, direction })
const build = (...recipe: Move[]) => {
  const { solid, ridge } = buildRecipe(recipe, numbers, 'M')
  if (!solid) throw new Error('no body')
  return { solid, ridge, faces: facesOf(solid), volume: volumeOf(solid) }
}
const box = (w: number, d: number): Vec2[] => [
  [0, 0],
  [w, 0],
  [w, d],
  [0, d],
]
const star = fc
  .array(fc.integer({ min: 4, max: 12 }), { minLength: 3, maxLength: 9 })
  .map((radii) =>
    radii.map((r, i): Vec2 => [
      r * Math.cos((2 * Math.PI * i) / radii.length),
      r * Math.sin((2 * Math.PI * i) / radii.length),
    ]),
  )

describe('an outline', () => {
  it('that goes round once has no fault, either way and from any corner', () => {
    fc.assert(
      fc.property(star, fc.nat(8), fc.boolean(), (points, first, back) => {
        const turned = [...points.slice(first % points.length), ...points.slice(0, first % points.length)]
        expect(outlineFault(back ? turned.reverse() : turned)).toBeNull()
      }),
    )
  })
  it('with two neighbouring corners exchanged crosses itself, and the sides are named', () => {
    fc.assert(
      fc.property(fc.integer({ min: 4, max: 12 }), (count) => {
        const points = Array.from({ length: count }, (_, i): Vec2 => [
          9 * Math.cos((2 * Math.PI * i) / count),
          9 * Math.sin((2 * Math.PI * i) / count),
        ])
        const crossed = [points[1], points[0], ...points.slice(2)] as Vec2[]
        expect(outlineFault(crossed)?.what).toMatch(/crosses itself: side \d+ meets side \d+/)
      }),
    )
  })
  it.each([
    [
      [
        [0, 0],
        [5, 0],
      ],
      /fewer than three/,
    ],
    [
      [
        [0, 0],
        [5, 0],
        [5, 0.00001],
        [0, 5],
      ],
      /two corners at one place \(corner 2 and corner 3\)/,
    ],
    [
      [
        [0, 0],
        [5, 0],
        [10, 0],
      ],
      /crosses|no area/,
    ],
    [
      [
        [0, 0],
        [10, 0],
        [10, 5],
        [4, 0],
        [0, 5],
      ],
      /crosses itself/,
    ],
    [
      [
        [0, 0],
        [8, 0],
        [3, 0],
        [3, 5],
      ],
      /crosses itself/,
    ],
  ] as [Vec2[], RegExp][])('%j is refused', (points, what) => expect(outlineFault(points)?.what).toMatch(what))
})

describe('a raised outline', () => {
  it('has a side for each edge, named after it, however it was drawn', () => {
    const sides = (points: Vec2[]) =>
      new Map(
        build(polygon(points), raise(3)).faces.map((f) => [
          f.name,
          f.plane.n.map((c) => Math.round(c * 1e6) / 1e6 + 0).join(),
        ]),
      )
    expect(sides(box(10, 6))).toEqual(
      new Map([
        ['r/base', '0,0,-1'],
        ['r/top', '0,0,1'],
        ['r/e1', '0,-1,0'],
        ['r/e2', '1,0,0'],
        ['r/e3', '0,1,0'],
        ['r/e4', '-1,0,0'],
      ]),
    )
    // Drawn the other way round, the edge from the first corner to the second is the west side.
    expect(
      sides([
        [0, 0],
        [0, 6],
        [10, 6],
        [10, 0],
      ]).get('r/e1'),
    ).toBe('-1,0,0')
  })
  it("is closed: its faces' areas, each turned its way, cancel out", () => {
    fc.assert(
      fc.property(star, fc.integer({ min: 1, max: 30 }), (points, height) => {
        const { faces } = build(polygon(points), raise(height))
        for (const axis of [0, 1, 2] as const)
          expect(faces.reduce((sum, f) => sum + f.area * f.plane.n[axis], 0)).toBeCloseTo(0, 6)
      }),
    )
  })
})

describe('a pitch', () => {
  it('rises by the tangent over half the width square to the ridge', () => {
    expect(build(polygon(box(9.6, 16.4)), raise(5.7), pitch(35, 90)).ridge).toBeCloseTo(9.061, 3)
    expect(ridgeHeight(box(9.6, 16.4), 5.7, 35, 0)).toBeCloseTo(5.7 + Math.tan((35 * Math.PI) / 180) * 8.2, 9)
    expect(ridgeHeight(box(10, 10), 3, 45, 45)).toBeCloseTo(3 + Math.SQRT2 * 5, 9)
  })
  it('over a rectangle adds half the rise over its whole area, whatever its angle', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 40 }),
        fc.integer({ min: 3, max: 40 }),
        fc.integer({ min: 2, max: 20 }),
        fc.integer({ min: 5, max: 70 }),
        (w, d, height, angle) => {
          const rise = (Math.tan((angle * Math.PI) / 180) * d) / 2
          expect(
            build(polygon(box(w, d)), raise(height), pitch(angle, 0)).volume / (w * d * (height + rise / 2)),
          ).toBeCloseTo(1, 9)
        },
      ),
    )
  })
  it("covers its outline once: the plan of its slopes is the outline's", () => {
    fc.assert(
      fc.property(
        star,
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 0, max: 179 }),
        (points, angle, direction) => {
          const { faces } = build(polygon(points), raise(4), pitch(angle, direction))
          const up = faces.filter((f) => f.plane.n[2] > 1e-6).reduce((sum, f) => sum + f.area * f.plane.n[2], 0)
          const down = faces.filter((f) => f.plane.n[2] < -1e-6).reduce((sum, f) => sum - f.area * f.plane.n[2], 0)
          expect(up / down).toBeCloseTo(1, 6)
          expect(faces.every((f) => /^(r\/(e\d+|base)|p\/(left|right))/.test(f.name))).toBe(true)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('switched off is as if it were not there', () => {
    const flat = build(polygon(box(8, 5)), raise(3), { ...pitch(30, 0), on: false } as Move)
    expect(flat.volume).toBeCloseTo(120, 9)
    expect(flat.ridge).toBeNull()
  })
})

describe('moves in another order', () => {
  const taper = (scale: number): Move => ({ id: 't', move: 'taper', on: true, by: { kind: 'scale', scale } })
  const twist = (angle: number): Move => ({ id: 'w', move: 'twist', on: true, angle, from: 0, to: null })
  const off = (move: Move): Move => ({ ...move, on: false })
  const check = (...recipe: Move[]) => checkRecipe(recipe, 'M', numbers)

  it('a taper and a twist give the same body whichever comes first', () => {
    const shape = polygon(box(14, 9))
    const [a, b] = [build(shape, raise(30), taper(0.7), twist(40)), build(shape, raise(30), twist(40), taper(0.7))]
    expect(b.solid.positions).toEqual(a.solid.positions)
    expect(b.volume).toBe(a.volume)
  })
  it.each([
    [[raise(3)], /"M" a raise comes first, where there is no form yet. Begin with an outline/],
    [
      [polygon(box(4, 4)), pitch(30, 0), raise(3)],
      /a pitch stands behind an outline, .*carried up: put it behind the raise/,
    ],
    [
      [polygon(box(4, 4)), raise(3), pitch(30, 0), { id: 'i', move: 'inset', on: true, by: 1 }],
      /an inset stands behind a pitch, where the form is a body, cut or joined.*put it behind the outline/,
    ],
    [[polygon(box(4, 4)), raise(3), raise(3)], /a raise stands behind a raise/],
    [[polygon(box(4, 4))], /makes no body: the form is an outline in plan at its end. Put a raise behind the outline/],
    [[polygon(box(4, 4)), raise(3), taper(0.5), pitch(30, 0)], /sides are no longer upright/],
  ] as [Move[], RegExp][])('is refused in one sentence that says where it would fit: %#', (recipe, what) =>
    expect(() => check(...recipe)).toThrow(what),
  )
  it('moves are put earlier and later one by one, where they fit', () => {
    const recipe = [polygon(box(4, 4)), raise(3), taper(0.5), twist(20)]
    expect(withMoved(recipe, { id: 'w' }, -1)?.map((m) => m.move)).toEqual(['outline', 'raise', 'twist', 'taper'])
    expect(withMoved(recipe, { id: 't' }, -1)).toBeNull()
    expect(withMoved(recipe, { id: 'w' }, 1)).toBeNull()
    expect(withMoved(recipe, { id: 'gone' }, 1)).toBeNull()
  })
  it('what is switched off is in nobody’s way', () => {
    expect(() => check(polygon(box(4, 4)), raise(3), off(pitch(30, 0)), twist(20))).not.toThrow()
    expect(placeFor([polygon(box(4, 4)), raise(3), off(pitch(30, 0))], twist(20))).toBe(3)
    expect(placeFor([polygon(box(4, 4)), raise(3), pitch(30, 0)], twist(20))).toBe(3)
    expect(placeFor([polygon(box(4, 4)), raise(3)], { ...polygon(box(4, 4)), id: 'second' })).toBeNull()
  })
  it('runs again from the changed move on, and gives what it gives from the start', () => {
    const steps = [polygon(box(14, 9)), raise(30), taper(0.7), twist(40)]
    buildRecipe(steps, numbers, 'M')
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 40 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: -90, max: 90 }),
        (height, scale, angle) => {
          const changed = [steps[0] as Move, raise(height), taper(scale / 10), twist(angle)]
          const kept = buildRecipe(
            [changed[0] as Move, changed[1] as Move, steps[2] as Move, changed[3] as Move],
            numbers,
            'M',
          )
          expect(kept.outline).toBe(buildRecipe(steps, numbers, 'M').outline)
          const again = buildRecipe(changed, numbers, 'M')
          const fresh = buildRecipe(structuredClone(changed), numbers, 'M')
          expect(again.solid.positions).toEqual(fresh.solid.positions)
        },
      ),
      { numRuns: 40 },
    )
  })
})
