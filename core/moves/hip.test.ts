import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, outline, plainNumbers, raise } from '../testing/recipes'
import { isWhole, openKernel, type Vec2 } from '../solid'
import { checkRecipe, type Move } from './index'

beforeAll(() => openKernel())

const hip = (more: Partial<Extract<Move, { move: 'hip' }>> = {}): Move => ({
  id: 'h',
  move: 'hip',
  on: true,
  angle: 32,
  edges: [],
  breaks: null,
  upper: 20,
  ...more,
})
const gables = ['e2', 'e4'].map((side) => ({ id: side, side, rises: 'gable' as const, angle: 45 }))

describe('a hipped roof', () => {
  it('over 11.4 x 7.8 at 32 degrees: rise 2.437, sloping area 104.853, volume 83.638; gabled 108.349 and the faces of a block', () => {
    const walls = 11.4 * 7.8 * 3
    const form = build(outline(box(11.4, 7.8)), raise(3), hip())
    expect(isWhole(form.solid)).toBe(true)
    expect(form.ridge).toBeCloseTo(5.437, 3)
    expect(form.volume - walls).toBeCloseTo(83.638, 3)
    const slopes = form.faces.filter((f) => f.name.startsWith('h/'))
    expect(slopes.map((f) => f.name).sort()).toEqual(['h/e1', 'h/e2', 'h/e3', 'h/e4'])
    expect(slopes.reduce((sum, f) => sum + f.area, 0)).toBeCloseTo(104.853, 3)
    const gabled = build(outline(box(11.4, 7.8)), raise(3), hip({ edges: gables }))
    expect(gabled.volume - walls).toBeCloseTo(108.349, 3)
    expect(gabled.faces.map((f) => f.name).sort()).toEqual(['h/e1', 'h/e3', 'r/base', 'r/e1', 'r/e2', 'r/e3', 'r/e4'])
    const pitched = build(outline(box(11.4, 7.8)), raise(3), {
      id: 'p',
      move: 'pitch',
      on: true,
      angle: 32,
      direction: 0,
    })
    expect(gabled.volume).toBeCloseTo(pitched.volume, 6)
  })
  it('a mansard breaks at a height; what rises at an angle of its own keeps it', () => {
    const form = build(outline(box(12, 8)), raise(3), hip({ angle: 70, breaks: 2, upper: 20 }))
    expect(isWhole(form.solid)).toBe(true)
    expect(form.faces.filter((f) => f.name.startsWith('h/upper/'))).toHaveLength(4)
    const inset = 2 / Math.tan((70 * Math.PI) / 180)
    expect(form.ridge).toBeCloseTo(3 + 2 + (4 - inset) * Math.tan((20 * Math.PI) / 180), 8)
    const steep = build(
      outline(box(12, 8)),
      raise(3),
      hip({ edges: [{ id: 'a', side: 'e1', rises: 'at', angle: 60 }] }),
    )
    const face = steep.faces.find((f) => f.name === 'h/e1')
    expect(face?.plane.n[2]).toBeCloseTo(Math.cos(Math.PI / 3), 9)
  })
  it('stands over holes, arcs and circles', () => {
    const round: Move = { id: 'o', move: 'outline', on: true, shape: { kind: 'circle', radius: 5 }, holes: [] }
    const cone = build(round, raise(3), hip({ angle: 45 }))
    expect(isWhole(cone.solid)).toBe(true)
    expect(cone.volume).toBeCloseTo(25 * Math.PI * (3 + 5 / 3), 1)
    expect(cone.faces.filter((f) => f.name.startsWith('h/'))).toHaveLength(1)
    const court: Move = {
      ...(outline(box(20, 16)) as Extract<Move, { move: 'outline' }>),
      holes: [{ id: 'h1', x: 7, y: 6, shape: { kind: 'rectangle', width: 5, depth: 4 } }],
    }
    expect(isWhole(build(court, raise(3), hip()).solid)).toBe(true)
  })
  it('is a closed body over any outline, with any gables and angles, or says why not', () => {
    const corner = fc.integer({ min: 4000, max: 12000 })
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 3, maxLength: 10 }),
        fc.array(fc.integer({ min: 0, max: 80 }), { maxLength: 4 }),
        (radii, angles) => {
          const points = radii.map((r, i): Vec2 => {
            const a = (2 * Math.PI * i) / radii.length
            return [Math.round(r * Math.cos(a)) / 1000, Math.round(r * Math.sin(a)) / 1000]
          })
          const edges = angles
            .slice(0, radii.length - 2)
            .map((angle, i) => ({
              id: `x${i}`,
              side: `e${i + 1}`,
              rises: angle < 20 ? ('gable' as const) : ('at' as const),
              angle: Math.max(angle, 20),
            }))
          const recipe = [outline(points), raise(3), hip({ angle: 40, edges })]
          checkRecipe(recipe, 'M', plainNumbers)
          const form = build(...recipe)
          expect(isWhole(form.solid)).toBe(true)
          if (form.leftOut.length === 0) expect(form.volume).toBeGreaterThan(build(...recipe.slice(0, 2)).volume)
          else expect(form.leftOut[0]?.say).toMatch(/roof/)
        },
      ),
      { numRuns: Number(process.env.RUNS ?? 150) },
    )
  })
})

describe('other roofs', () => {
  it('of one slope: the plan times the height in its middle', () => {
    const slope: Move = { id: 's', move: 'slope', on: true, side: 'e1', angle: 10 }
    const form = build(outline(box(12, 8)), raise(3), slope)
    expect(form.volume).toBeCloseTo(96 * (3 + 4 * Math.tan(Math.PI / 18)), 5)
    expect(form.ridge).toBeCloseTo(3 + 8 * Math.tan(Math.PI / 18), 8)
    expect(form.faces.map((f) => f.name).sort()).toEqual(['r/base', 'r/e1', 'r/e2', 'r/e3', 'r/e4', 's/slope'])
  })
  it('flat within an upstand: the roof keeps its name, and less area', () => {
    const form = build(outline(box(12, 8)), raise(3), { id: 'u', move: 'upstand', on: true, height: 0.9, thick: 0.3 })
    expect(form.volume).toBeCloseTo(288 + 0.9 * (96 - 11.4 * 7.4), 6)
    expect(form.faces.find((f) => f.name === 'r/top')?.area).toBeCloseTo(11.4 * 7.4, 8)
    expect(form.faces).toHaveLength(11)
  })
})
