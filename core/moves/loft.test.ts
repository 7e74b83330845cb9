import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, cutArea, outline, plainNumbers, raise } from '../testing/recipes'
import { isWhole, openKernel, volumeOf, warpOf, type RuledSurface, type Vec2 } from '../solid'
import { buildRecipe, checkRecipe, foldings, withPlaced, type Move, type OutlineShape } from './index'

beforeAll(() => openKernel())

const polygon = (points: Vec2[]): OutlineShape => ({
  kind: 'polygon',
  corners: points.map(([x, y], i) => ({ id: `e${i + 1}`, x, y, bulge: 0 })),
})
const loft = (z: number, shape: OutlineShape, more: Partial<Extract<Move, { move: 'loft' }>> = {}): Move => ({
  id: 'l',
  move: 'loft',
  on: true,
  sections: [{ id: 's1', z, level: null, x: 0, y: 0, shape }],
  faces: 'warped',
  ...more,
})
const TOP: Vec2[] = [
  [0, 2],
  [22, 5],
  [22, 14],
  [0, 18],
]
const storeys = {
  ...plainNumbers,
  heights: new Map([
    ['a', 0],
    ['b', 3.5],
    ['c', 7],
  ]),
}
const turned = (points: Vec2[], degrees: number, [dx, dy]: Vec2): Vec2[] => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
  return points.map(([x, y]) => [c * x - s * y + dx, s * x + c * y + dy])
}

describe('a loft', () => {
  it.each([
    ['warped', 468, 398.778, 334.444, 3862.25],
    ['right', 468, 401.667, 337.333, 3885],
    ['left', 468, 395.889, 331.556, 3839.5],
  ] as const)('form W, faces %s: plates and volume', (faces, a, b, c, volume) => {
    for (const [turn, by, sense] of [
      [0, [0, 0], 1],
      [0, [0, 0], -1],
      [33, [345_678.9, 5_712_345.6], 1],
      [33, [345_678.9, 5_712_345.6], -1],
    ] as [number, Vec2, number][]) {
      const drawn = (points: Vec2[]) => {
        const moved = turned(points, turn, by)
        return sense > 0 ? moved : [moved[0] as Vec2, ...moved.slice(1).reverse()]
      }
      const recipe = [outline(drawn(box(26, 18))), loft(10.5, polygon(drawn(TOP)), { faces })]
      checkRecipe(recipe, 'W', storeys)
      const { solid, leftOut } = buildRecipe(recipe, storeys, 'W')
      expect(leftOut).toEqual([])
      expect(isWhole(solid)).toBe(true)
      expect(cutArea(solid, 0)).toBeCloseTo(a, 3)
      expect(cutArea(solid, 3.5)).toBeCloseTo(b, 3)
      expect(cutArea(solid, 7)).toBeCloseTo(c, 3)
      expect(volumeOf(solid)).toBeCloseTo(volume, 3)
    }
  })
  it('says how far each side is off when it is folded either way: west and east are flat', () => {
    const { faces } = build(outline(box(26, 18)), loft(10.5, polygon(TOP)))
    const warp = (side: string) => warpOf(faces.find((f) => f.name === `l/${side}`)?.surface as RuledSurface)
    expect(faces.find((f) => f.name === 'l/e2')?.surface).toBeNull()
    expect(faces.find((f) => f.name === 'l/e4')?.surface).toBeNull()
    expect(warp('e1').right).toBeCloseTo(2.709, 3)
    expect(warp('e3').right).toBeCloseTo(4, 3)
    expect(warp('e1').left).toBeCloseTo(2.947, 3)
    expect(warp('e3').left).toBeCloseTo(3.738, 3)
    const folded = build(outline(box(26, 18)), loft(10.5, polygon(TOP), { faces: 'right' }))
    expect(folded.solid.facets.every((f) => !f.surface)).toBe(true)
    expect(folded.faces).toHaveLength(8)
  })
  it('tells of all three before one is chosen', () => {
    const move = loft(10.5, polygon(TOP)) as Extract<Move, { move: 'loft' }>
    const all = foldings([outline(box(26, 18)), move], move, storeys, 'W')
    expect(all.map((f) => f.volume.toFixed(3))).toEqual(['3862.250', '3885.000', '3839.500'])
    expect(all.map((f) => f.plates.map((p) => p.area.toFixed(3)).join())).toEqual([
      '468.000,398.778,334.444',
      '468.000,401.667,337.333',
      '468.000,395.889,331.556',
    ])
  })
  it('leads unlike outlines into one another: a rectangle to a circle, over three heights', () => {
    const sections = [
      { id: 's1', z: 4, level: null, x: 2, y: 1, shape: { kind: 'rectangle', width: 8, depth: 6 } as OutlineShape },
      { id: 's2', z: 9, level: null, x: 6, y: 4, shape: { kind: 'circle', radius: 3 } as OutlineShape },
    ]
    const form = build(outline(box(12, 8)), loft(1, polygon(TOP), { sections }))
    expect(isWhole(form.solid)).toBe(true)
    expect(cutArea(form.solid, 4)).toBeCloseTo(48, 6)
    expect(form.faces.find((f) => f.name === 'l/top')?.area).toBeCloseTo(9 * Math.PI, 2)
    const back = { ...sections[0], z: 0 } as (typeof sections)[0]
    expect(() =>
      checkRecipe([outline(box(12, 8)), loft(1, polygon(TOP), { sections: [back] })], 'W', plainNumbers),
    ).toThrow(/lies at 0 m, and the one before it at 0 m/)
    const crossed = polygon([
      [0, 0],
      [4, 4],
      [4, 0],
      [0, 4],
    ])
    expect(() => checkRecipe([outline(box(12, 8)), loft(5, crossed)], 'W', plainNumbers)).toThrow(
      /outline 1 of the loft of "W"/,
    )
  })
  it('can be cut, twisted and joined to like any body', () => {
    const recipe: Move[] = [
      outline(box(26, 18)),
      loft(10.5, polygon(TOP)),
      { id: 't', move: 'twist', on: true, angle: 25, from: 0, to: null },
      { id: 'c', move: 'cut', on: true, x: 13, y: 0, z: 0, direction: 80, rises: 75, keeps: 'below' },
    ]
    const form = build(...recipe)
    expect(form.leftOut).toEqual([])
    expect(isWhole(form.solid)).toBe(true)
    expect(build(...recipe.slice(0, 3)).volume).toBeCloseTo(3862.25, 5)
    expect(() => checkRecipe([outline(box(2, 2)), loft(3, polygon(TOP)), raise(3)], 'W', plainNumbers)).toThrow(
      /a raise stands behind a loft, where the form is a body/,
    )
    // It is added in place of the raise.
    expect(withPlaced([outline(box(2, 2)), raise(3)], loft(3, polygon(TOP)))?.map((m) => m.move)).toEqual([
      'outline',
      'loft',
    ])
  })
})
