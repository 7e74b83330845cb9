import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, byPlates, cutArea, outline, plainNumbers, raise } from '../testing/recipes'
import { boxOf, cutAt, isWhole, openKernel, volumeOf } from '../solid'
import { buildRecipe, checkRecipe, placeFor, type Move } from './index'

beforeAll(() => openKernel())

const pitch: Move = { id: 'p', move: 'pitch', on: true, angle: 35, direction: 0 }
const twist = (angle: number, more: Partial<Move> = {}): Move =>
  ({ id: 't', move: 'twist', on: true, angle, from: 0, to: null, ...more }) as Move
const cut: Move = { id: 'c', move: 'cut', on: true, x: 6, y: 0, z: 0, direction: 80, rises: 70, keeps: 'below' }
const joined: Move = {
  id: 'j',
  move: 'join',
  on: true,
  name: 'Shed',
  place: { x: -3, y: 1, turn: 10 },
  lift: 0,
  recipe: [
    { id: 'jo', move: 'outline', on: true, shape: { kind: 'rectangle', width: 5, depth: 4 }, holes: [] },
    { id: 'jr', move: 'raise', on: true, height: 3, upTo: null },
  ],
}
describe('moves that carry the cuts of a body', () => {
  it('a gabled block twisted, then cut, then joined has the volume of its plates, in any order that it allows', () => {
    const block = [outline(box(12, 8)), raise(6), pitch]
    const gabled = build(...block)
    const twisted = build(...block, twist(20))
    expect(twisted.volume).toBeCloseTo(gabled.volume, 8)
    expect(twisted.faces.map((f) => f.name).sort()).toEqual(gabled.faces.map((f) => f.name).sort())
    for (const order of [
      [twist(20), cut, joined],
      [cut, twist(20), joined],
      [joined, cut, twist(20)],
      [cut, joined, twist(20)],
    ]) {
      const recipe = [...block, ...order]
      expect(() => checkRecipe(recipe, 'M', plainNumbers)).not.toThrow()
      const form = build(...recipe)
      expect(form.leftOut).toEqual([])
      expect(isWhole(form.solid)).toBe(true)
      expect(byPlates(form.solid) / form.volume).toBeCloseTo(1, 5)
    }
    // A pitch wants what is carried up: behind a twist it is refused, with the place where it would fit.
    const wrong = [outline(box(12, 8)), raise(6), cut, pitch]
    expect(() => checkRecipe(wrong, 'M', plainNumbers)).toThrow(/a pitch stands behind a cut.*put it behind the raise/)
    expect(placeFor(wrong.slice(0, 3), pitch)).toBe(2)
  })

  it('cuts at the storeys are exactly those of the form before, turned', () => {
    const numbers = {
      ...plainNumbers,
      heights: new Map([
        ['a', 0],
        ['b', 3.3],
        ['c', 7],
      ]),
    }
    const block = [outline(box(12, 8)), raise(6), pitch]
    const plain = buildRecipe(block, numbers, 'M').solid
    const turned = buildRecipe([...block, twist(50)], numbers, 'M').solid
    for (const z of [0, 3.3, 7]) expect(cutArea(turned, z)).toBeCloseTo(cutArea(plain, z), 9)
    expect(cutAt(turned, 3.3)[0]?.points).toHaveLength(4)
  })

  it('a lean keeps flat faces flat, all areas and the volume; a bend keeps areas at the storeys and the volume', () => {
    const block = [outline(box(12, 8)), raise(6), pitch]
    const leant = build(...block, { id: 'l', move: 'lean', on: true, by: 20, towards: 33 } as Move)
    expect(leant.volume).toBeCloseTo(build(...block).volume, 9)
    expect(leant.solid.facets.every((f) => !f.surface)).toBe(true)
    expect(leant.faces).toHaveLength(7)
    const bent = build(...block, { id: 'l', move: 'bend', on: true, by: 30, towards: 90 } as Move)
    expect(bent.volume).toBeCloseTo(leant.volume, 9)
    expect(isWhole(bent.solid)).toBe(true)
    const { y1, z1 } = boxOf(bent.solid.positions)
    // The ridge, in the middle of its width, lies at height x tan(15 degrees) aside.
    expect(y1).toBeGreaterThan(8)
    const top = cutAt(bent.solid, z1 - 1e-3)[0]?.points ?? []
    const middle = top.reduce((sum, p) => sum + p[1], 0) / top.length
    expect(middle - 4).toBeCloseTo(z1 * Math.tan(Math.PI / 12), 2)
  })

  it('a taper of a body scales its cuts, a twist on two storeys leaves what lies below and carries what lies above', () => {
    const block = [outline(box(12, 8)), raise(6), cut]
    const plain = build(...block)
    const at3 = { ...plainNumbers, heights: new Map([['a', 3]]) }
    const half: Move = { id: 'ta', move: 'taper', on: true, by: { kind: 'scale', scale: 0.5 } }
    const tapered = buildRecipe([...block, half], at3, 'M').solid
    expect(cutArea(tapered, 3)).toBeCloseTo(cutArea(plain.solid, 3) * 0.75 ** 2, 9)
    expect(byPlates(tapered) / volumeOf(tapered)).toBeCloseTo(1, 5)
    const numbers = {
      ...plainNumbers,
      heights: new Map([
        ['a', 0],
        ['b', 2],
        ['c', 4],
      ]),
    }
    const span = { of: 'storeys' as const, levels: ['b'] }
    const { solid } = buildRecipe([outline(box(12, 8)), raise(6), twist(30, { span })], numbers, 'M')
    expect(volumeOf(solid)).toBeCloseTo(12 * 8 * 6, 8)
    const corner = (z: number) => cutAt(solid, z)[0]?.points.map(([x, y]) => Math.hypot(x - 6, y - 4))
    expect(boxOf(Float64Array.from((cutAt(solid, 1)[0]?.points ?? []).flatMap((p) => [...p, 0]))).x1).toBeCloseTo(12, 9)
    expect(corner(5)?.every((r) => Math.abs(r - Math.hypot(6, 4)) < 1e-6)).toBe(true)
  })
})
