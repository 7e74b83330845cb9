import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { siteEdit } from '../../groundwork'
import { inOrder, type Project } from '../../project'
import { openKernel, sideNames, type Vec2 } from '../../solid'
import {
  apply,
  changeMass,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
  withMoves,
} from '../../testing/make'
import { rect, turned } from '../../testing/plans'
import { ruled } from '../../testing/ruled'
import { meetSteps, moverNamed, moversOf, type Meeting, type Target, type TargetMove } from '.'
import { figureNamed } from '../areas'
import { search, type Tried } from './search'

beforeAll(() => openKernel())

const through = <T>(steps: Generator<unknown, T>): T => {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}
const meet = (p: Project, ...moves: TargetMove[]): Meeting =>
  through(meetSteps(p, schemeOf(p).id, moves, minter('new')))
const seek = (
  p: Project,
  mover: string,
  figure: string,
  value: number,
  bound: Target['bound'] = 'about',
  range: { from?: number; to?: number } = {},
): TargetMove => ({
  mover: moverNamed(p, schemeOf(p), mover),
  target: { of: figureNamed(p, figure), bound, value },
  ...range,
})
const figure = (p: Project, m: Meeting) => studied(m.edit ? apply(p, m.edit) : p)
const FIVE = [0, 3, 6, 9, 12]
const bar = (width: number, height = 15, heights = FIVE) =>
  withMass(projectWith(heights), { name: 'Bar', height, box: [0, 0, width, 12] })
const fixed = (p: Project, of: string, value: number) =>
  apply(p, { edit: 'project.change', set: { [of]: value } as never })

describe('the value at which a figure comes out', () => {
  it('of a height at which a figure jumps is told by what a hair more or less gives, not twice with one number', () => {
    const [{ say } = { say: '' }] = meet(bar(40), seek(bar(40), 'Bar, height', 'homes', 2100)).met
    expect(say).toBe(
      'Homes of 2,100.00 m² is out of reach. Bar, height 14.000 m gives 1,920.00 m²; a hair more gives 2,400.00 m²; there the figure jumps.',
    )
  })
  it('the width of a bar of five storeys, 12 deep, for 3,150 m2 is 52.500 m', () => {
    const p = bar(40)
    const { met, edit } = meet(p, seek(p, 'Bar, width', 'homes', 3150))
    expect(met[0]).toMatchObject({ reached: true, best: { at: 52.5 }, before: { at: 40, figure: 2400 } })
    expect(met[0]?.say).toBe('Bar, width 52.500 m gives 3,150.00 m².')
    expect(studied(apply(p, edit as never)).totals.area).toBeCloseTo(3150, 6)
    expect(studied(p).totals.area).toBeCloseTo(2400, 6)
  })
  it.each([
    [0, [0, 0]],
    [33.7, [12, -7]],
    [211.3, [458_300, 5_432_100]],
  ] as [number, Vec2][])(
    'the setback of the site that a rule grows within, all round and of one side, turned by %d',
    (degrees, [x, y]) => {
      const points = turned(rect(0, 0, 60, 40), degrees).map(([px, py]): Vec2 => [px + x, py + y])
      const p = ruled('site', 5, 3, [x, y], (q) => apply(q, siteEdit(q, minter('corner'), points, 15)))
      // A ring 12 deep on five storeys: 5 x (24 x (100 - 4 s) - 576).
      expect(studied(p).totals.area).toBeCloseTo(9120, 2)
      const all = meet(p, seek(p, 'site, setback of all sides', 'area', 7200))
      expect(all.met[0]).toMatchObject({ reached: true })
      expect(all.met[0]?.best?.at).toBeCloseTo(4, 3)
      expect(figure(p, all).totals.area).toBeCloseTo(7200, 1)
      const one = meet(p, seek(p, `site, setback of the ${sideNames(points)[0]}`, 'area', 8520))
      expect(one.met[0]?.best?.at).toBeCloseTo(5, 3)
      const set = apply(p, one.edit as never)
      expect(set.site?.corners.map((c) => c.setback !== 0)).toEqual([true, false, false, false])
      expect(moversOf(set, schemeOf(set)).some((m) => m.key === 'setback:all')).toBe(false)
    },
  )
  it('a site that no form follows offers no setback', () => {
    let p = bar(40)
    p = apply(p, siteEdit(p, minter('corner'), rect(-10, -10, 80, 60), null))
    expect(moversOf(p, schemeOf(p)).filter((m) => m.key.startsWith('setback'))).toEqual([])
  })
  it('storeys of the bar, 40 wide, for at least 3,000 m2 are 7 (3,360), 6 give 2,880; levels come along', () => {
    const p = bar(40)
    const m = meet(p, seek(p, 'storeys:Bar', 'homes', 3000, 'least'))
    expect(m.met[0]).toMatchObject({ reached: true, best: { at: 7 }, beside: { at: 6 }, before: { at: 5 } })
    expect(m.met[0]?.say).toBe('Storeys Bar 7 gives 3,360.00 m²; 6 gives 2,880.00 m².')
    const study = figure(p, m)
    expect(study.floors.map((f) => f.area)).toEqual(Array.from({ length: 7 }, () => 480))
    expect(study.levels.map((l) => l.height)).toEqual([0, 3, 6, 9, 12, 15, 18])
    const fewer = meet(p, seek(p, 'storeys:Bar', 'homes', 1500, 'most'))
    expect(fewer.met[0]).toMatchObject({ best: { at: 3, figure: 1440 } })
    expect(figure(p, fewer).totals.area).toBeCloseTo(1440, 6)
  })
  it('a bar that reaches up to a level keeps to levels', () => {
    const p = withMass(projectWith(FIVE), { name: 'Bar', height: 12, upTo: 'L4', box: [0, 0, 40, 12] })
    const m = meet(p, seek(p, 'storeys:Bar', 'homes', 3000, 'least'))
    expect(m.met[0]).toMatchObject({ best: { at: 7 }, before: { at: 4 } })
    const study = figure(p, m)
    expect(study.totals.area).toBeCloseTo(3360, 6)
    expect(study.forms[0]?.top).toBeCloseTo(21, 9)
  })
  it.each([
    [0, 0, 0],
    [33.7, 0, 0],
    [118.2, 458_300, 5_432_100],
  ])('the setback of a stepping body is found to a millimetre, turned by %d', (degrees, x, y) => {
    const points = turned(rect(0, 0, 42.1, 10), degrees).map(([px, py]): Vec2 => [px + x, py + y])
    let p = withMass(projectWith([-3, 0, 3, 6]), { name: 'Body', height: 12, points })
    const [, east] = massNamed(p, 'Body').recipe.flatMap((m) =>
      m.move === 'outline' && m.shape.kind === 'polygon' ? m.shape.corners.map((c) => c.id) : [],
    )
    const move = { id: 'st', move: 'step-back' as const, on: true, side: east ?? 'east', by: 2, from: 9, level: null }
    p = withMoves(p, 'Body', move)
    const m = meet(p, seek(p, 'Body, step back: back by', 'area', 1608.8))
    expect(Math.abs((m.met[0]?.best?.at ?? 0) - 7.52)).toBeLessThan(0.001)
    expect(m.met[0]?.reached).toBe(true)
  })
  it('a dial, the side of a mass, the height of a storey, the ratio', () => {
    const p = fixed(bar(40), 'siteArea', 1000)
    const east = meet(p, seek(p, 'Bar, east side moved out', 'ratio', 2.55))
    expect(east.met[0]?.best?.at).toBeCloseTo(2.5, 6)
    expect(figure(p, east).totals.ratio).toBeCloseTo(2.55, 6)
    const high = meet(p, seek(p, 'height of Level 1 above Level 0', 'height', 15, 'most'))
    expect(high.met[0]?.reached).toBe(true)
    let d = apply(p, {
      edit: 'dial.add',
      scheme: schemeOf(p).id,
      thing: { id: 'bay', name: 'bay', order: 0, quantity: 'length', value: 5, least: 2, most: 20, step: 0.5 },
    })
    const { recipe } = massNamed(d, 'Bar')
    d = changeMass(d, 'Bar', {
      recipe: recipe.map((m) =>
        m.move === 'outline' && m.shape.kind === 'rectangle'
          ? { ...m, shape: { ...m.shape, width: { formula: '{bay} * 8' } } }
          : m,
      ),
    })
    const bay = meet(d, seek(d, 'dial:bay', 'homes', 3150))
    expect(bay.met[0]).toMatchObject({ best: { at: 6.5625 }, reached: true })
    expect(() => moverNamed(d, schemeOf(d), 'Bar, width')).toThrow(/There is nothing called "Bar, width" to move/)
  })
  it('a number of things, and net floor, come out too', () => {
    let p = apply(bar(40), { edit: 'project.change', set: { wallAllowance: 0.5 } })
    const net = meet(p, seek(p, 'Bar, width', 'homes net', 2500))
    expect(net.met[0]?.best?.at).toBeCloseTo(2500 / 5 / 11 + 1, 3)
    p = apply(p, {
      edit: 'brief-line.add',
      thing: {
        id: 'flats',
        name: 'flats',
        order: 0,
        of: { kind: 'count', use: inOrder(p.uses)[0]?.id ?? '', size: 60, measure: 'gross' },
        bound: 'least',
        target: 50,
        tolerance: 0,
      },
    })
    const flats = meet(p, seek(p, 'Bar, width', 'flats', 50, 'least'))
    expect(flats.met[0]?.best?.figure).toBe(50)
    expect(flats.met[0]?.best?.at).toBeCloseTo(50, 3)
  })
  it('two at once, where they do not hang on one another', () => {
    let p = withMass(bar(40), { name: 'Shop', height: 3, box: [100, 0, 10, 10], use: 'market' })
    const m = meet(p, seek(p, 'Bar, width', 'homes', 3150), seek(p, 'Shop, depth', 'market', 250))
    expect(m.met.map((x) => x.best?.at)).toEqual([52.5, 25])
    const study = figure(p, m)
    expect(study.totals.area).toBeCloseTo(3400, 6)
    p = bar(40)
    expect(() => meet(p, seek(p, 'Bar, width', 'homes', 3150), seek(p, 'Bar, depth', 'area', 2000))).toThrow(
      /The two hang on one another: moving Bar, depth changes homes from 3,150.00 m² to 2,000.00 m²/,
    )
  })
})

describe("a taper's scale", () => {
  it('may move for a target: two floors of a block that is scaled at its top', () => {
    const taper = { id: 'tp', move: 'taper' as const, on: true, by: { kind: 'scale' as const, scale: 1 } }
    const p = withMoves(
      withMass(projectWith([0, 3]), { box: [0, 0, 20, 10], height: 6, name: 'Block' }),
      'Block',
      taper,
    )
    // At half of its height it is (1 + scale) / 2 as wide: 200 (1 + 0.9^2) for a scale of 0.8.
    const found = meet(p, seek(p, 'Block, taper: scale', 'area', 362))
    expect(found.met[0]).toMatchObject({ reached: true, best: { at: expect.closeTo(0.8, 4) as number } })
    expect(moversOf(p, schemeOf(p)).map((m) => m.label)).toContain('Block, taper: scale')
  })
})

describe('a target that is not reached', () => {
  it('ends with how near it comes, and what stands in the way', () => {
    const p = bar(40)
    const end = meet(p, seek(p, 'Bar, width', 'homes', 9000, 'about', { from: 10, to: 100 }))
    expect(end.met[0]).toMatchObject({ reached: false, why: 'end', best: { at: 100, figure: 6000 } })
    expect(end.met[0]?.say).toBe(
      'Homes of 9,000.00 m² is out of reach. Bar, width 100.000 m gives 6,000.00 m²; from 10.000 m to 100.000 m it comes no nearer.',
    )
    const step = { id: 'st', move: 'step-back' as const, on: true, side: 'east', by: 2, from: 9, level: null }
    const stepped = withMoves(p, 'Bar', step)
    const gone = meet(stepped, seek(stepped, 'Bar, step back: back by', 'homes', 500, 'most', { from: 1, to: 200 }))
    expect(gone.met[0]).toMatchObject({ reached: false })
    expect(gone.met[0]?.say).toMatch(/out of reach.*; beyond it cannot be made: /)
  })
  it('a figure that hangs on nothing that moves, or is not known, is refused with a sentence', () => {
    const p = bar(40)
    expect(() => meet(p, seek(p, 'Bar, width', 'market', 200))).toThrow(
      /Market does not hang on Bar, width: it is 0.00 m² all the way. Choose something else to move/,
    )
    expect(() => meet(p, seek(p, 'Bar, width', 'ratio', 2))).toThrow(/ratio is not known. Give the site/)
    expect(() => meet(p, seek(p, 'Bar, width', 'homes net', 2))).toThrow(/Say how thick outer walls/)
    expect(() => seek(p, 'Bar, width', 'flats', 2)).toThrow(/There is no figure "flats". Choose one of homes/)
  })
})

describe('the search itself', () => {
  const run = (f: (x: number) => Tried, value: number, bound: Target['bound'], whole: boolean, now = 1) =>
    through(search(f, { from: 0, to: 10, now, whole }, { value, bound, tolerance: 0.005 }))
  it('finds a place where any steady function comes to what is sought', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.double({ min: 0.3, max: 4, noNaN: true }),
        fc.double({ min: 0.05, max: 9.95, noNaN: true }),
        fc.boolean(),
        (scale, power, at, falling) => {
          const f = (x: number): Tried => ({ at: x, figure: (falling ? -1 : 1) * scale * x ** power })
          const wanted = (f(at) as { figure: number }).figure
          const found = run(f, wanted, 'about', false)
          expect(found.reached).toBe(true)
          expect(Math.abs((found.best?.figure ?? 99) - wanted)).toBeLessThanOrEqual(0.005)
        },
      ),
    )
  })
  it('of whole numbers takes the first that does, and tells the one before it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10 }), (n) => {
        const found = run((x) => ({ at: x, figure: x * 480 }), n * 480 - 100, 'least', true, 0)
        expect(found).toMatchObject({ reached: true, best: { at: n }, beside: { at: n - 1 } })
      }),
    )
  })
  it('says where a figure jumps over what is sought, turns back before it, or is refused', () => {
    const jump = run((x) => ({ at: x, figure: x < Math.PI ? 1 : 3 }), 2, 'about', false)
    expect(jump).toMatchObject({ reached: false, why: 'jump' })
    expect([jump.best?.figure, jump.beside?.figure].sort()).toEqual([1, 3])
    expect(run((x) => ({ at: x, figure: x < Math.PI ? 1 : 3 }), 2, 'least', false)).toMatchObject({
      reached: true,
      best: { figure: 3 },
    })
    const turn = run((x) => ({ at: x, figure: 5 - (x - 4.321) ** 2 }), 9, 'about', false)
    expect(turn).toMatchObject({ reached: false, why: 'turns' })
    expect(turn.best?.at).toBeCloseTo(4.321, 3)
    const wall = run((x) => (x > 6.2 ? { at: x, say: 'It is too wide.' } : { at: x, figure: x }), 9, 'about', false)
    expect(wall).toMatchObject({ reached: false, why: 'refused', refused: 'It is too wide.' })
    expect(wall.best?.at).toBeGreaterThan(6)
  })
})
