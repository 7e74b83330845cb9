import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit, type Edit } from '../../edits'
import { joinMasses, setPitch } from '../../form'
import { duplicateScheme } from '../../groundwork'
import type { Project } from '../../project'
import { openKernel, type Vec2 } from '../../solid'
import { apply, changeMass, converted, massNamed, minter, projectWith, schemeOf, studied, thick, withMass } from '../../testing/make' // prettier-ignore
import { turned } from '../../testing/plans'
import { StudyCache } from '../cache'
import { studyScheme } from '../study'
import { shareBelow } from './below-ground'
import { entriesOf } from './entries'
import { surfacesOf } from './surfaces'

beforeAll(() => openKernel())

const byUse = (p: Project) => {
  const study = studied(p)
  const sums: Record<string, number[]> = {}
  for (const e of entriesOf(study)) {
    const name = p.uses[e.use]?.name ?? ''
    const sum = (sums[name] ??= [0, 0, 0])
    ;[e.gross, e.internal, e.net].forEach((v, i) => (sum[i] = (sum[i] ?? 0) + (v ?? NaN)))
  }
  return sums
}

describe('gross, internal and net floor', () => {
  const slope = (p: Project) => {
    const pitched = apply(
      p,
      setPitch(schemeOf(p), massNamed(p, 'Homes'), minter('pitch'), { angle: 30, direction: 90 }),
    )
    return { ...pitched, wallAllowance: 0 }
  }
  it('are equal without an allowance where masses overlap and some of it is low', () => {
    let p = withMass(projectWith([0]), { name: 'Homes', box: [0, 0, 10, 10], height: 1 })
    p = withMass(slope(p), { name: 'Studios', box: [6, 0, 10, 10], height: 6, use: 'studios' })
    const sums = byUse(p)
    expect(sums['homes']).toEqual([0, 1, 2].map(() => expect.closeTo(65.36, 2) as number))
    expect(sums['studios']).toEqual([0, 1, 2].map(() => expect.closeTo(77.32, 2) as number))
  })
  it('are equal without an allowance for any boxes and slopes, by use and level', () => {
    const dm = (min: number, max: number) => fc.integer({ min: min * 10, max: max * 10 }).map((v) => v / 10)
    const box = fc.tuple(dm(0, 12), dm(0, 12), dm(3, 12), dm(3, 12))
    fc.assert(
      fc.property(fc.array(fc.tuple(box, dm(1, 7), fc.boolean()), { minLength: 2, maxLength: 5 }), (all) => {
        let p: Project = { ...projectWith([0, 3]), wallAllowance: 0 }
        all.forEach(([b, height, isPitched], i) => {
          const name = `M${i}`
          p = withMass(p, { name, box: b, height, use: ['homes', 'studios', 'market'][i % 3] as string })
          if (isPitched) p = apply(p, setPitch(schemeOf(p), massNamed(p, name), minter(name), { angle: 30, direction: 0 })) // prettier-ignore
        })
        for (const e of entriesOf(studied(p))) {
          expect(e.internal).toBeCloseTo(e.gross, 2)
          expect(e.net).toBeCloseTo(e.gross, 2)
        }
      }),
      { numRuns: 25 },
    )
  })
  it('net of walls keeps the floor under the wall over an opening', () => {
    let p = withMass(projectWith([0]), { name: 'Block', box: [0, 0, 12.6, 9.4], height: 2.9 })
    p = withMass(p, { name: 'Porch', box: [4, -2.1, 3.6, 2.1], height: 2.2 })
    const id = (name: string) => massNamed(p, name).id
    p = apply(p, joinMasses(p, schemeOf(p), minter('join'), id('Block'), id('Porch')))
    const net = studied(converted(thick(p, { wall: 0.3 }))).totals.net
    expect(net).toBeCloseTo(111.9, 2)
  })
  it('net is not known as a whole where walls stand on some storeys only, and says for which', () => {
    const p = converted(withMass(projectWith([0, 3, 6]), { box: [0, 0, 10, 10], height: 9 }))
    const scheme = schemeOf(p)
    const upper = Object.values(scheme.parts).filter((x) => x.kind === 'wall' && x.base?.level === 'L2')
    const less = apply(p, ...upper.map((x): Edit => ({ edit: 'part.remove', scheme: scheme.id, id: x.id })))
    expect(studied(less).totals).toMatchObject({ net: null, netUnknown: ['Level 2'] })
    expect(studied(p).totals.netUnknown).toEqual([])
    // Walls that run up through all storeys tell them all.
    const through = converted(withMass(projectWith([0, 3, 6]), { box: [0, 0, 10, 10], height: 9 }), 0, undefined, {
      walls: 'through',
    } as never)
    expect(studied(through).totals.netUnknown).toEqual([])
  })
})

it('a use, a name or an order that is changed and changed back is as it was, with one cache, in duplicated schemes too', () => {
  let p = withMass(projectWith([0]), { name: 'A', box: [0, 0, 10, 10], height: 3 })
  p = withMass(p, { name: 'B', box: [6, 0, 10, 10], height: 3, use: 'studios' })
  const first = schemeOf(p).id
  p = apply(p, duplicateScheme(p, schemeOf(p), 'second', 'Second'))
  const cache = new StudyCache()
  const uses = (project: Project, scheme: string, kept = cache) =>
    studyScheme(project, scheme, kept).floors.map((f) => [f.uses, f.plates.map((q) => q.mass)])
  const id = massNamed(p, 'A').id
  const other = massNamed(p, 'B').use
  for (const set of [{ use: other }, { name: 'C' }, { order: 50 }]) {
    uses(p, first)
    const edit: Edit = { edit: 'mass.change', scheme: first, id, set }
    const { project: changed, inverse } = applyEdit(p, edit)
    expect(uses(changed, first)).toEqual(uses(changed, first, new StudyCache()))
    expect(uses(changed, 'second')).toEqual(uses(changed, 'second', new StudyCache()))
    expect(uses(p, first)).toEqual(uses(p, first, new StudyCache()))
    const back = applyEdit(changed, inverse).project
    expect(uses(back, first)).toEqual(uses(back, first, new StudyCache()))
  }
})

describe('the outer surface', () => {
  const at = (turn: number, boxes: [number, number, number, number, number, string?][]) =>
    boxes.reduce(
      (p, [x, y, w, d, height, level = 'L0']) =>
        withMass(p, {
          points: turned([[x, y], [x + w, y], [x + w, y + d], [x, y + d]] as Vec2[], turn), // prettier-ignore
          height,
          level,
        }),
      projectWith([0, 6]),
    )
  it('of a tower on a podium counts the roof under it once', () => {
    for (const turn of [0, 10.5]) {
      const figures = surfacesOf(studied(at(turn, [[0, 0, 20, 20, 6], [5, 5, 10, 10, 9, 'L1']]))) // prettier-ignore
      expect(figures.outer).toBeCloseTo(1640, 2)
      expect(figures.roofs).toBeCloseTo(400, 2)
    }
  })
  it('of masses side by side has no wall between them, however they are turned', () => {
    for (const turn of [0, 10.5, 33, 121.7, 250])
      expect(surfacesOf(studied(at(turn, [[0, 0, 10, 10, 9], [10, 2, 10, 6, 9]]))).outer).toBeCloseTo(860, 2) // prettier-ignore
  })
  it('of a circle looks every way alike, by its true arc', () => {
    const { facades } = surfacesOf(studied(withMass(projectWith([0]), { circle: [3, 4, 6.3], height: 5 })))
    for (const area of Object.values(facades)) expect(area).toBeCloseTo((2 * Math.PI * 6.3 * 5) / 8, 3)
  })
})

it('a wall that has another height above its level than its storey stands where it stands', () => {
  const p = changeMass(converted(withMass(projectWith([0, 3]), { box: [0, 0, 10, 10], height: 6 })), 'Mass 1', {})
  expect(studied(p).floors.every((f) => f.net !== null && f.net < f.area)).toBe(true)
})

describe('what of the facades lies below ground', () => {
  const sunken = (turn = 0) =>
    withMass(
      { ...projectWith([-3, 0, 3]), terrain: { kind: 'level', height: -0.5 } },
      {
        points: turned([[0, 0], [20, 0], [20, 10], [0, 10]] as Vec2[], turn), // prettier-ignore
        height: 9,
        level: 'L0',
      },
    )
  const sum = (by: Record<string, number>) => Object.values(by).reduce((total, v) => total + v, 0)
  it('is measured to level ground, however the mass is turned; to the datum while there is no terrain', () => {
    for (const turn of [0, 33.3]) expect(sum(surfacesOf(studied(sunken(turn))).below)).toBeCloseTo(60 * 2.5, 6)
    expect(sum(surfacesOf(studied({ ...sunken(), terrain: null })).below)).toBeCloseTo(60 * 3, 6)
    const above = surfacesOf(studied({ ...sunken(), terrain: { kind: 'level', height: -3 } }))
    expect([sum(above.below), sum(above.facades)]).toEqual([0, expect.closeTo(540, 6)])
  })
  it('is the part under a slope: half of a prism is found by triangles', () => {
    const triangle = (a: number[], b: number[], c: number[]) => [a, b, c] as unknown as Parameters<typeof shareBelow>[0]
    const slope = (x: number) => x / 4
    const wall = [triangle([0, 0, 0], [20, 0, 0], [20, 0, 5]), triangle([0, 0, 0], [20, 0, 5], [0, 0, 5])]
    expect(wall.map((t) => shareBelow(t, slope, false))).toEqual([expect.closeTo(1, 9), expect.closeTo(0, 9)])
    // A ridge in the middle of a long wall of 2 m: all of its lower half, and none above.
    const ridge = (x: number) => 2 * Math.max(0, 1 - Math.abs(x - 10) / 3)
    const long = [triangle([0, 0, 0], [20, 0, 0], [20, 0, 2]), triangle([0, 0, 0], [20, 0, 2], [0, 0, 2])]
    expect(20 * long.reduce((total, t) => total + shareBelow(t, ridge, false), 0)).toBeCloseTo(6, 1)
  })
})
