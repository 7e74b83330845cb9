import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, outline, plainNumbers, raise } from '../testing/recipes'
import { boxOf, isWhole, openKernel, type Vec2 } from '../solid'
import { checkRecipe, withCorners, type Move, type OutlineShape } from './index'

beforeAll(() => openKernel())

const L: Vec2[] = [
  [0, 0],
  [12, 0],
  [12, 5],
  [5, 5],
  [5, 9],
  [0, 9],
]
const round = (by: number, more: object = {}) =>
  ({ id: 'x', move: 'round', on: true, as: 'round', by, which: 'all', ...more }) as Move
const turned = (points: Vec2[], degrees: number): Vec2[] => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return points.map(([x, y]) => [c * x - s * y, s * x + c * y])
}

describe('corners in plan', () => {
  it('rounded take off, and put in, r2 (1 - pi/4) each at right angles; cut off half a square', () => {
    const corner = 1 - Math.PI / 4
    for (const turn of [0, 31])
      for (const points of [L, [...L].reverse()]) {
        const form = build(outline(turned(points, turn)), round(1.5), raise(3))
        expect(form.volume / 3).toBeCloseTo(80 - 2.25 * corner * (5 - 1), 8)
        expect(isWhole(form.solid)).toBe(true)
      }
    expect(build(outline(L), round(1.5, { which: 'outer' }), raise(3)).volume / 3).toBeCloseTo(
      80 - 5 * 2.25 * corner,
      8,
    )
    expect(build(outline(L), round(1, { as: 'chamfer', which: 'inner' }), raise(3)).volume / 3).toBeCloseTo(80.5, 9)
    const { faces } = build(outline(box(10, 6)), round(1), raise(3))
    expect(faces.map((f) => f.name)).toContain('r/corner-e1')
    expect(faces.find((f) => f.name === 'r/corner-e1')?.surface?.kind).toBe('cylinder')
    expect(() => checkRecipe([outline(L), round(2.6), raise(3)], 'M', plainNumbers)).toThrow(
      /too short for corners of 2.6 m/,
    )
  })
  it('a mirror keeps areas, names and arcs; twice it is the same again', () => {
    const mirror = (direction: number, id = 'm'): Move => ({ id, move: 'mirror', on: true, direction })
    const plain = build(outline(L), round(1), raise(3))
    for (const direction of [0, 90, 37]) {
      const once = build(outline(L), round(1), mirror(direction), raise(3))
      expect(once.volume).toBeCloseTo(plain.volume, 9)
      expect(once.faces.map((f) => f.name).sort()).toEqual(plain.faces.map((f) => f.name).sort())
    }
    const twice = build(outline(L), mirror(90), mirror(90, 'n'), raise(3))
    expect(twice.faces.find((f) => f.name === 'r/e1')?.plane.n[1]).toBeCloseTo(-1, 9)
    const west = build(outline(L), mirror(90), raise(3)).faces.find((f) => f.name === 'r/e2')
    expect(west?.plane.n[0]).toBeCloseTo(-1, 9)
  })
  it('a thickened outline is a ring, so thick at right angles all round', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.constantFrom('inside', 'outside'),
        fc.integer({ min: 0, max: 89 }),
        (dm, side, turn) => {
          const ring = { id: 'g', move: 'ring', on: true, thick: dm / 10, side } as Move
          const { volume, faces } = build(outline(turned(box(12, 8), turn)), ring, raise(3))
          const t = (side === 'inside' ? 1 : -1) * (dm / 5)
          expect(volume / 3).toBeCloseTo(Math.abs(96 - (12 - t) * (8 - t)), 6)
          expect(faces.map((f) => f.name)).toContain('r/in/e1')
        },
      ),
      { numRuns: 30 },
    )
  })
})

describe('more shapes', () => {
  const raised = (shape: OutlineShape) => build({ id: 'o', move: 'outline', on: true, shape, holes: [] }, raise(3))
  it('an ellipse has the area of one, and its extent', () => {
    for (const [width, depth] of [
      [12, 8],
      [8, 8],
      [40, 3],
    ] as const) {
      const { volume, solid } = raised({ kind: 'ellipse', width, depth })
      expect(volume / 3).toBeCloseTo((Math.PI / 4) * width * depth, 5)
      expect(isWhole(solid)).toBe(true)
    }
  })
  it('a court lies within its wings, and stays when its corners are freed', () => {
    const shape: OutlineShape = { kind: 'footprint', form: 'court', width: 30, depth: 20, a: 6, b: 7 }
    const form = raised(shape)
    expect(form.volume / 3).toBeCloseTo(600 - 16 * 8, 9)
    expect(form.faces.map((f) => f.name)).toContain('r/court/e1')
    const freed = withCorners(
      [{ id: 'o', move: 'outline', on: true, shape, holes: [] }, raise(3)],
      plainNumbers,
      (c) => c,
    )
    expect(
      build(...freed)
        .faces.map((f) => f.name)
        .sort(),
    ).toEqual(form.faces.map((f) => f.name).sort())
    const [o] = freed
    expect(() =>
      checkRecipe([{ ...o, shape: { ...shape, a: 10 }, holes: [] } as Move, raise(3)], 'M', plainNumbers),
    ).toThrow(/wings/)
  })
  it('drawn by chance it is sound, fills its extent, and is the same again from the same number', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e6, max: 1e6 }), (seed) => {
        const shape: OutlineShape = { kind: 'chance', width: 24, depth: 15, seed }
        const recipe: Move[] = [{ id: 'o', move: 'outline', on: true, shape, holes: [] }, raise(3)]
        checkRecipe(recipe, 'M', plainNumbers)
        const [a, b] = [build(...recipe), build(...structuredClone(recipe))]
        expect(a.solid.positions).toEqual(b.solid.positions)
        const { x0, x1, y0, y1 } = boxOf(a.solid.positions)
        expect([x0, x1, y0, y1]).toEqual([0, 24, 0, 15])
      }),
      // One whose bays would reach equally far, to the tenth of a millimetre.
      { numRuns: 200, examples: [[-381779]] },
    )
  })
})
