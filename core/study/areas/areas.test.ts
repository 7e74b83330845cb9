import { beforeAll, describe, expect, it } from 'vitest'
import { addHole } from '../../form'
import { siteEdit } from '../../groundwork'
import { removeLevel } from '../../levels'
import { inOrder, type BriefLine, type BriefOf, type Mass, type PlateEdit, type Project } from '../../project'
import { openKernel, placePoint, type Vec2 } from '../../solid'
import {
  apply,
  changeMass,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  thick,
  withMass,
  withMoves,
} from '../../testing/make'
import { turned, rect } from '../../testing/plans'
import { accountOf, briefOf, entriesOf, platesOf, summaryOf, surfacesOf, terracesOf, voidFigures } from '.'

beforeAll(() => openKernel())

const useNamed = (p: Project, name: string) => inOrder(p.uses).find((u) => u.name === name)?.id ?? ''
const sum = (numbers: (number | null)[]) => numbers.reduce<number>((s, n) => s + (n ?? 0), 0)
const gives =
  (what: 'void' | 'core') =>
  (mass: Mass): Mass => ({ ...mass, gives: what })
const FIVE = [0, 3, 6, 9, 12]
/** turned, and far from zero */
const PLACES = [
  [0, 0, 0],
  [33.7, 0, 0],
  [211.3, 458_300, 5_432_100],
] as const
const put = (points: Vec2[], [degrees, x, y]: readonly [number, number, number]) =>
  turned(points, degrees).map(([px, py]): Vec2 => [px + x, py + y])

describe('what counts of a floor', () => {
  it.each(PLACES)('a stepping body, turned by %d, has its floors, its terrace and its ratio', (...at) => {
    let p = withMass(projectWith([-3, 0, 3, 6]), { name: 'Bar', height: 12, points: put(rect(0, 0, 42.1, 10), at) })
    const [edge] = massNamed(p, 'Bar').recipe.flatMap((m) =>
      m.move === 'outline' && m.shape.kind === 'polygon' ? [m.shape.corners[1]?.id] : [],
    )
    p = withMoves(p, 'Bar', {
      id: 'step',
      move: 'step-back',
      on: true,
      side: edge ?? 'east',
      by: 7.52,
      from: 9,
      level: null,
    })
    p = apply(p, { edit: 'project.change', set: { siteArea: 784 } })
    const study = studied(p)
    expect(study.floors.map((f) => f.area.toFixed(2))).toEqual(['421.00', '421.00', '421.00', '345.80'])
    expect(terracesOf(study).map((t) => [t.level, t.area.toFixed(2)])).toEqual([['L3', '75.20']])
    expect(study.totals.ratio?.toFixed(3)).toBe('1.515')
    expect(sum(accountOf(study).map((i) => i.area))).toBeCloseTo(1608.8, 6)
  })
  it.each(PLACES)('a shaft takes 6.0 m2 off on each of five levels, and is shown once', (...at) => {
    let p = withMass(projectWith(FIVE), { name: 'House', height: 15, points: put(rect(0, 0, 20, 12), at) })
    p = withMass(p, { name: 'Shaft', height: 13, points: put(rect(4, 4, 3, 2), at) }, gives('void'))
    const study = studied(p)
    expect(study.floors.map((f) => f.area.toFixed(2))).toEqual(FIVE.map(() => '234.00'))
    const [shaft, more] = voidFigures(study)
    expect(more).toBeUndefined()
    expect(shaft).toMatchObject({ name: 'Shaft' })
    expect(shaft?.area.toFixed(2)).toBe('30.00')
    expect(shaft?.levels).toHaveLength(5)
    expect(study.totals.volume).toBeCloseTo(20 * 12 * 15, 4)
    expect(study.findings.filter((f) => f.kind === 'overlap')).toEqual([])
    expect(sum(accountOf(study, { level: 'L1' }).map((i) => i.area))).toBeCloseTo(234, 5)
    expect(accountOf(study, { level: 'L1' }).map((i) => i.area.toFixed(2))).toEqual(['240.00', '-6.00'])
  })
  it('a void that several masses pass is taken off once, and one that lies beside takes nothing', () => {
    let p = withMass(projectWith([0]), { name: 'A', height: 3, box: [0, 0, 10, 10] })
    p = withMass(p, { name: 'B', height: 3, box: [8, 0, 10, 10] })
    p = withMass(p, { name: 'Hole', height: 3, box: [7, 4, 4, 2] }, gives('void'))
    p = withMass(p, { name: 'Beside', height: 3, box: [40, 0, 4, 4] }, gives('void'))
    const study = studied(p)
    expect(study.floors[0]?.area).toBeCloseTo(180 - 8, 6)
    expect(voidFigures(study).map((v) => [v.name, v.area.toFixed(2)])).toEqual([['Hole', '8.00']])
  })
  it('a void gives no walls, slabs or roofs', () => {
    let p = thick(projectWith([0, 3]), { wall: 0.3 })
    p = withMass(p, { name: 'House', height: 6, box: [0, 0, 20, 12] })
    const without = studied(converted(p)).parts.length
    p = withMass(p, { name: 'Shaft', height: 6, box: [4, 4, 3, 2] }, gives('void'))
    expect(studied(converted(p)).parts).toHaveLength(without)
  })
  it.each(PLACES)('slabs are open where it passes, and closed where it stands, turned by %d', (...at) => {
    let p = thick(projectWith([0, 3, 6]), { wall: 0.3 })
    p = withMass(p, { name: 'House', height: 9, points: put(rect(0, 0, 20, 12), at) })
    p = converted(withMass(p, { name: 'Shaft', height: 12, points: put(rect(4, 4, 3, 2), at) }, gives('void')))
    const slabs = (q: Project) => studied(q).parts.filter((part) => part.role.endsWith('slab'))
    const plain = slabs(changeMass(p, 'Shaft', { context: true }))
    const taken = slabs(p).map((s, i) => (plain[i]?.area ?? 0) - s.area)
    expect(taken.map((a) => a.toFixed(2))).toEqual(['0.00', '6.00', '6.00'])
    expect(slabs(p).map((s) => s.bond.status)).toEqual(['bonded', 'bonded', 'bonded'])
    expect(slabs(p)[1]?.volume).toBeCloseTo((slabs(p)[1]?.area ?? 0) * (slabs(p)[1]?.thickness ?? 0), 5)
    // What follows a shaft that goes, or is moved, needs no hand.
    const moved = changeMass(p, 'Shaft', { place: { ...massNamed(p, 'Shaft').place, x: 1e4 } })
    expect(slabs(moved).map((s) => s.area)).toEqual(plain.map((s) => s.area))
  })
  it('a void has no height of its own, stands in no picture, and passes no limit', () => {
    let p = withMass(projectWith([0, 3]), { name: 'House', height: 6, box: [0, 0, 20, 12] })
    p = apply(p, siteEdit(p, minter('corner'), rect(-5, -5, 40, 40), 6.5))
    const before = summaryOf(studied(p))
    p = withMass(p, { name: 'Shaft', height: 9, box: [4, 4, 0.04, 2] }, gives('void'))
    const study = studied(p)
    expect(summaryOf(study)).toMatchObject({ height: 6, volume: before.volume, findings: before.findings })
    expect(summaryOf(study).sketch).toEqual(before.sketch)
    expect(study.findings.map((f) => f.kind)).toEqual([])
    const solid = studied(changeMass(p, 'Shaft', { gives: null }))
    expect([...new Set(solid.findings.map((f) => f.kind))].sort()).toEqual([
      'over the envelope',
      'overlap',
      'thin body or tiny edge',
    ])
    expect(summaryOf(solid).height).toBe(9)
  })
  it('storeys have a use of their own, which follows when a level goes', () => {
    let p = withMass(projectWith(FIVE), { name: 'House', height: 15, box: [0, 0, 20, 12] })
    const market = useNamed(p, 'market')
    p = changeMass(p, 'House', { storeyUses: [{ id: 'u', use: market, from: 'L0', to: 'L1' }] })
    const markets = (q: Project) => studied(q).floors.map((f) => Math.round(f.uses[market] ?? 0))
    expect(markets(p)).toEqual([240, 240, 0, 0, 0])
    const gone = apply(p, removeLevel(p, schemeOf(p), 'L1'))
    expect(markets(gone)).toEqual([240, 0, 0, 0])
    expect(massNamed(gone, 'House').storeyUses).toMatchObject([{ from: 'L0', to: 'L0' }])
    expect(massNamed(apply(gone, removeLevel(gone, schemeOf(gone), 'L0')), 'House').storeyUses).toEqual([])
  })
})

describe('internal and net floor', () => {
  const house = (set: Partial<Project>) => {
    let p = withMass(projectWith([0, 3]), { name: 'House', height: 6, points: turned(rect(0, 0, 20, 12), 27.4) })
    p = withMass(p, { name: 'Core', height: 6, points: turned(rect(8, 4, 5, 4), 27.4) }, gives('core'))
    return apply(p, { edit: 'project.change', set: set as never })
  }
  const homes = (p: Project) => ({
    gross: sum(entriesOf(studied(p)).map((e) => e.gross)),
    internal: sum(entriesOf(studied(p)).map((e) => e.internal)),
    net: sum(entriesOf(studied(p)).map((e) => e.net)),
  })
  it('by an allowance for outer walls, less the cores that are drawn, times the efficiency', () => {
    let p = house({ wallAllowance: 0.4 })
    expect(homes(p).gross).toBeCloseTo(480, 4)
    expect(homes(p).internal).toBeCloseTo(2 * 19.2 * 11.2, 4)
    expect(homes(p).net).toBeCloseTo(2 * (19.2 * 11.2 - 20), 4)
    p = apply(p, { edit: 'use.change', id: useNamed(p, 'homes'), set: { efficiency: 0.85, cores: 0.1 } })
    expect(homes(p).net).toBeCloseTo(2 * (19.2 * 11.2 - 20) * 0.85, 4)
    p = apply(p, { edit: 'mass.remove', scheme: schemeOf(p).id, id: massNamed(p, 'Core').id })
    expect(homes(p).net).toBeCloseTo(2 * 19.2 * 11.2 * 0.9 * 0.85, 4)
    expect(studied(p).findings.filter((f) => f.kind === 'overlap')).toEqual([])
  })
  it('is not told where neither walls nor an allowance do, and by the walls once they stand', () => {
    const p = house({})
    expect(entriesOf(studied(p)).map((e) => e.net)).toEqual([null, null])
    const built = converted(thick(p, { wall: 0.3 }))
    const study = studied(built)
    expect(sum(entriesOf(study).map((e) => e.internal))).toBeCloseTo(study.totals.net ?? 0, 6)
  })
  it('a core that stands beyond the building is gross floor there', () => {
    let p = withMass(projectWith([0]), { name: 'House', height: 3, box: [0, 0, 10, 10] })
    p = withMass(p, { name: 'Core', height: 3, box: [8, 2, 4, 4] }, gives('core'))
    p = apply(p, { edit: 'project.change', set: { wallAllowance: 0 } })
    expect(homes(p)).toMatchObject({ gross: 108, internal: 108, net: 92 })
  })
})

describe('plates and their figures', () => {
  it.each(PLACES)('depth is the greatest distance to a facade, courts too, turned by %d', (...at) => {
    let p = withMass(projectWith([0]), { name: 'House', height: 3, points: put(rect(0, 0, 40, 18), at) })
    const whole = () => platesOf(studied(p), studied(p).floors[0] as never, 'all')[0]
    expect(whole()?.depth).toBeCloseTo(9, 3)
    expect(whole()).toMatchObject({ holes: 0 })
    p = apply(
      p,
      addHole(p, schemeOf(p), massNamed(p, 'House').id, { kind: 'polygon', points: put(rect(15, 6, 10, 6), at) }),
    )
    expect(whole()?.depth).toBeCloseTo(7.5, 3)
    expect(whole()).toMatchObject({ holes: 1 })
    expect(whole()?.perimeter).toBeCloseTo(148, 5)
    const middle = placePoint([20, 9], { x: at[1], y: at[2], z: 0, turn: at[0] })
    expect(Math.hypot(...(whole()?.centroid.map((c, i) => c - (middle[i] ?? 0)) ?? []))).toBeLessThan(1e-5)
  })
  it('a shaft is no facade, a plate between two others has its own length of it', () => {
    let p = withMass(projectWith([0]), { name: 'A', height: 3, box: [0, 0, 10, 18] })
    p = withMass(p, { name: 'B', height: 3, box: [10, 0, 10, 18] })
    p = withMass(p, { name: 'C', height: 3, box: [20, 0, 20, 18] })
    p = withMass(p, { name: 'Shaft', height: 3, box: [18, 7, 3, 3] }, gives('void'))
    const study = studied(p)
    const plates = platesOf(study, study.floors[0] as never, 'mass')
    expect(plates.map((x) => [x.name, x.facade.toFixed(2), x.depth.toFixed(2)])).toEqual([
      ['A', '38.00', '9.00'],
      ['B', '20.00', '9.00'],
      ['C', '58.00', '9.00'],
    ])
  })
  it('a plate cut above the level is that of the form there', () => {
    const taper = { id: 't', move: 'taper' as const, on: true, by: { kind: 'scale' as const, scale: 0.5 } }
    let p = withMass(projectWith([0]), { name: 'A', height: 6, box: [0, 0, 10, 6] })
    const before = platesOf(studied(p), studied(p).floors[0] as never, 'all', 3)[0]
    expect(before?.area).toBeCloseTo(60, 6)
    p = withMoves(p, 'A', taper)
    const cut = (above: number) => platesOf(studied(p), studied(p).floors[0] as never, 'mass', above)[0]?.area ?? 0
    expect(cut(0)).toBeCloseTo(60, 6)
    expect(cut(3)).toBeCloseTo(60 * 0.75 ** 2, 4)
    expect(cut(7)).toBe(0)
  })
  it('facades are told by the way they look from true north, without what masses cover of one another', () => {
    let p = withMass(projectWith([0]), { name: 'A', height: 3, box: [0, 0, 10, 6] })
    p = withMass(p, { name: 'B', height: 3, box: [10, 0, 10, 6] })
    const { facades, outer, roofs } = surfacesOf(studied(p))
    expect([facades.north, facades.east, facades.south, facades.west]).toEqual([60, 18, 60, 18])
    expect([roofs, outer]).toEqual([expect.closeTo(120, 9), expect.closeTo(396, 9)])
    const north = { ...p.location, trueNorth: 45 }
    const turnedNorth = surfacesOf(studied(apply(p, { edit: 'project.change', set: { location: north } }))).facades
    expect(turnedNorth['north-west']).toBeCloseTo(60, 6)
  })
})

describe('plates changed without their form', () => {
  const edited = (p: Project, does: PlateEdit['does'], levels = ['L0']) =>
    apply(p, {
      edit: 'plate-edit.add',
      scheme: schemeOf(p).id,
      thing: {
        id: `edit${Object.keys(schemeOf(p).plateEdits).length}`,
        order: 1,
        mass: massNamed(p, 'House').id,
        levels,
        does,
      },
    })
  it.each(PLACES)('inset, left out, split by a line, another use: they follow the mass, turned by %d', (...at) => {
    const start = withMass(projectWith([0, 3]), { name: 'House', height: 6, points: put(rect(0, 0, 20, 12), at) })
    const market = useNamed(start, 'market')
    const own = massNamed(start, 'House').place
    const local = (points: Vec2[]): Vec2[] => {
      const inv = (v: Vec2) =>
        placePoint([v[0] - (own.x as number), v[1] - (own.y as number)], {
          x: 0,
          y: 0,
          z: 0,
          turn: -(own.turn as number),
        })
      return put(points, at).map(inv)
    }
    const [a, b] = local([
      [8, 0],
      [8, 12],
    ]) as [Vec2, Vec2]
    const split = edited(start, { kind: 'use', within: { kind: 'left-of', a, b }, use: market })
    const areas = (p: Project) => studied(p).floors.map((f) => f.area.toFixed(2))
    expect(studied(split).floors.map((f) => (f.uses[market] ?? 0).toFixed(2))).toEqual(['96.00', '0.00'])
    expect(areas(split)).toEqual(['240.00', '240.00'])
    const out = edited(split, { kind: 'leave-out', within: { kind: 'outline', points: local(rect(0, 0, 10, 5)) } })
    expect(areas(out)).toEqual(['190.00', '240.00'])
    expect(studied(out).floors[0]?.uses[market]).toBeCloseTo(56, 4)
    const slabs = (p: Project) =>
      studied(converted(thick(p, { wall: 0.3 }))).parts.flatMap((q) => (q.role.endsWith('slab') ? [q.area] : []))
    expect(slabs(split).map((a, i) => (a - (slabs(out)[i] ?? 0)).toFixed(2))).toEqual(['50.00', '0.00'])
    // The whole of it left out is nothing, and no change without its place.
    const none = edited(start, { kind: 'leave-out', within: { kind: 'outline', points: local(rect(-1, -1, 30, 30)) } })
    expect(areas(none)).toEqual(['0.00', '240.00'])
    expect(studied(none).findings.filter((f) => f.kind === 'change of a plate without its place')).toEqual([])
    expect(slabs(none).map((a) => a > 0)).toEqual([false, true])
    const inset = edited(out, { kind: 'inset', by: 1 }, ['L1'])
    expect(areas(inset)).toEqual(['190.00', '180.00'])
    expect(sum(accountOf(studied(inset)).map((i) => i.area))).toBeCloseTo(370, 3)
    const moved = changeMass(inset, 'House', { place: { x: 7, y: -3, turn: 71.5 } })
    expect(areas(moved)).toEqual(['190.00', '180.00'])
    expect(studied(moved).totals.volume).toBeCloseTo(1440, 3)
  })
})

describe('the brief', () => {
  const line = (name: string, of: BriefOf, bound: BriefLine['bound'], target: number, tolerance = 0): BriefLine => ({
    id: name.replace(/\W/g, ''),
    name,
    order: 1,
    of,
    bound,
    target,
    tolerance,
  })
  const add = (p: Project, thing: BriefLine) =>
    apply(p, { edit: 'brief-line.add', thing: { ...thing, order: Object.keys(p.brief).length } })
  it('says of each line whether it is met, and by how much it is not', () => {
    let p = withMass(projectWith(FIVE), { name: 'House', height: 15, box: [0, 0, 20, 12] })
    p = apply(p, { edit: 'project.change', set: { wallAllowance: 0, siteArea: 500 } })
    const homes = useNamed(p, 'homes')
    p = add(p, line('homes', { kind: 'use', use: homes, measure: 'gross' }, 'about', 1230, 0.05))
    p = add(p, line('flats', { kind: 'count', use: homes, size: 70, measure: 'net' }, 'least', 20))
    p = add(p, line('ratio', { kind: 'figure', figure: 'ratio' }, 'most', 2.5))
    p = add(p, line('height', { kind: 'figure', figure: 'height' }, 'most', 14))
    p = add(p, line('market', { kind: 'use', use: useNamed(p, 'market'), measure: 'gross' }, 'least', 100, 0.1))
    expect(briefOf(studied(p)).map((b) => [b.line.name, b.state, b.now, b.by])).toEqual([
      ['homes', 'met', 1200, 0],
      ['flats', 'short', 17, -3],
      ['ratio', 'met', 2.4, 0],
      ['height', 'over', 15, 1],
      ['market', 'short', 0, -90],
    ])
  })
  it('refuses two lines about one thing, and a target of nothing', () => {
    const p = projectWith([0])
    const homes = { kind: 'use', use: useNamed(p, 'homes'), measure: 'gross' } as const
    const one = add(p, line('homes', homes, 'about', 100))
    expect(() => add(one, line('more homes', homes, 'least', 50))).toThrow(/about the same thing/)
    expect(() => add(p, line('homes', homes, 'about', 0))).toThrow(/zero or less/)
    expect(() => add(p, line('x', { ...homes, use: 'gone' }, 'about', 5))).toThrow(/a use that is not there/)
  })
})
