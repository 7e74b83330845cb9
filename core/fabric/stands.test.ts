import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { joinMasses, setPitch } from '../form'
import type { Project } from '../project'
import { areaOf, openKernel, uniteRegions, type Vec2 } from '../solid'
import { boatShed, joinedShed } from '../testing/boat-shed'
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
} from '../testing/make'
import { common, cutByLine, rect, turned } from '../testing/plans'
import { isWall, usualChoices } from './index'

beforeAll(() => openKernel())

const wallsOf = (project: Project, level?: string) =>
  studied(project).parts.filter((p) => isWall(p.role) && (!level || p.part.base?.level === level))
const sum = (values: number[]) => values.reduce((a, b) => a + b, 0)
const joined = (project: Project) =>
  apply(
    project,
    joinMasses(project, schemeOf(project), minter('join'), massNamed(project, 'A').id, massNamed(project, 'B').id),
  )
const two = (project: Project, a: Vec2[], b: Vec2[], height = 3) =>
  withMass(withMass(project, { name: 'A', height, points: a }), { name: 'B', height, points: b })
const TURNS: [number, Vec2][] = [
  [0, [0, 0]],
  [33.3, [0, 0]],
  [248.1, [4512, -903]],
  [71, [371204.5, 5812033.25]],
]

describe('what stands where', () => {
  it.each(TURNS)('a wall ends under the slab of the mass that stands on its own: turned by %d at %j', (degrees, at) => {
    let project = thick(projectWith([-3.2, 0, 3]), { slab: 0.24 })
    project = withMass(project, { name: 'Cellar', height: 3.2, points: turned(rect(0, 0, 18, 12), degrees, at) })
    project = withMass(project, {
      name: 'House',
      level: 'L1',
      height: 3,
      points: turned(rect(0, 0, 18, 12), degrees, at),
    })
    expect(wallsOf(converted(project), 'L0').map((w) => w.area / (w.length ?? 1))).toEqual(
      [2.96, 2.96, 2.96, 2.96].map((h) => expect.closeTo(h, 5) as number),
    )
  })
  it('only where the slab lies over it', () => {
    let project = thick(projectWith([0, 3, 6]), { slab: 0.24 })
    project = withMass(project, { name: 'Base', height: 3, points: turned(rect(0, 0, 18, 12), 12) })
    project = withMass(project, { name: 'Top', level: 'L1', height: 3, points: turned(rect(6.5, 0, 11.5, 12), 12) })
    expect(
      wallsOf(converted(project), 'L0')
        .map((w) => w.area)
        .sort((a, b) => a - b),
    ).toEqual(
      [12 * 2.76, 12 * 3, 18 * 3 - 11.5 * 0.24, 18 * 3 - 11.5 * 0.24].map((a) => expect.closeTo(a, 2) as number),
    )
  })
  it.each(TURNS)('a parapet leaves out what stands on its terrace: turned by %d at %j', (degrees, at) => {
    let project = projectWith([0, 3, 6])
    project = withMass(project, { name: 'Base', height: 3, points: turned(rect(0, 0, 18, 12), degrees, at) })
    project = withMass(project, {
      name: 'Top',
      level: 'L1',
      height: 3,
      points: turned(rect(6.5, 0, 11.5, 12), degrees, at),
    })
    const { terrace, parapet } = usualChoices(project)
    const found = studied(converted(project, 0, minter('part'), { terrace, parapet })).parts.filter(
      (p) => p.role === 'parapet',
    )
    expect(found.map((p) => p.length)).toEqual([expect.closeTo(25, 4)])
    expect(areaOf(found[0]?.plan ?? [])).toBeCloseTo(0.24 * 25 - 2 * 0.24 * 0.24, 3)
  })
  it('a parapet goes along no edge that another mass rises beside', () => {
    let project = projectWith([0, 3, 6])
    project = withMass(project, { name: 'Low', height: 3, points: turned(rect(0, 0, 10, 8), 20) })
    project = withMass(project, { name: 'High', height: 6, points: turned(rect(10, 2, 6, 20), 20) })
    const { terrace, parapet } = usualChoices(project)
    const found = studied(converted(project, 0, minter('part'), { terrace, parapet })).parts.filter(
      (p) => p.role === 'parapet',
    )
    expect(found.map((p) => p.length)).toEqual([expect.closeTo(10 + 8 + 10 + 2, 2)])
  })
  it('a roof hangs over no edge that meets another mass', () => {
    const roofs = studied(converted(boatShed(), 0.52)).parts.filter((p) => p.role === 'pitched roof')
    expect(sum(roofs.map((r) => r.area))).toBeCloseTo(267.055, 3)
  })
  it('two masses that overlap, not joined, have the walls of one form', () => {
    const dice = fc.record({
      w: fc.double({ min: 6, max: 20, noNaN: true }),
      d: fc.double({ min: 6, max: 20, noNaN: true }),
      x: fc.double({ min: -8, max: 18, noNaN: true }),
      y: fc.double({ min: -8, max: 18, noNaN: true }),
      skew: fc.double({ min: 5, max: 85, noNaN: true }),
      turn: fc.double({ min: 0, max: 360, noNaN: true }),
    })
    fc.assert(
      fc.property(dice, ({ w, d, x, y, skew, turn }) => {
        const [a, b] = [turned(rect(0, 0, 14, 12), turn), turned(turned(rect(0, 0, w, d), skew, [x, y]), turn)]
        const shared = common(a, b)
        fc.pre(shared > 1 && shared < 14 * 12 - 1 && shared < w * d - 1)
        const apart = two(projectWith([0, 3]), a, b)
        const one = joined(apart)
        // Stretches shorter than the walls are thick come to a point: what is left of them differs with how they are divided.
        fc.pre(wallsOf(converted(one)).every((wall) => (wall.length ?? 0) > 1.5))
        const [s, t] = [studied(converted(apart)), studied(converted(one))]
        expect(s.floors[0]?.net).toBeCloseTo(t.floors[0]?.net ?? 0, 3)
        expect(sum(s.parts.filter((p) => isWall(p.role)).map((p) => p.volume))).toBeCloseTo(
          sum(t.parts.filter((p) => isWall(p.role)).map((p) => p.volume)),
          2,
        )
        const doubled = ({ parts }: typeof s) => {
          const plans = parts.filter((p) => isWall(p.role)).map((p) => p.plan)
          return sum(plans.map(areaOf)) - areaOf(uniteRegions(plans))
        }
        expect(doubled(s)).toBeCloseTo(doubled(t), 2)
      }),
      { numRuns: 60 },
    )
  })
  it('walls follow the mass beside them: one is whole when that has gone, and what has nothing left is said', () => {
    const project = converted(two(projectWith([0, 3]), rect(0, 0, 20, 10), rect(15, 4, 20, 3)))
    const lengths = (p: Project) =>
      wallsOf(p)
        .filter((w) => w.part.name.startsWith('A'))
        .map((w) => w.length)
    expect(lengths(project)).toEqual([20, 4, 3, 20, 10].map((l) => expect.closeTo(l, 4) as number))
    const away = changeMass(project, 'B', { place: { x: 40, y: 0, turn: 0 } })
    expect(lengths(away)).toEqual([20, 10, null, 20, 10])
    expect(
      studied(away)
        .findings.filter((f) => f.kind === 'drifted part' && f.say.startsWith('A'))
        .map((f) => f.say),
    ).toEqual(['A, Level 0, wall 3 has come loose: nothing of its face stands free any more'])
    expect(lengths(changeMass(away, 'B', { place: { x: 15, y: 4, turn: 0 } }))).toEqual(
      [20, 4, 3, 20, 10].map((l) => expect.closeTo(l, 4) as number),
    )
  })
  it("a plan in pieces of one use, not joined, has the plan's walls and net", () => {
    let project = thick(projectWith([0, 3]), { wall: 0.3 })
    const pieces = [
      [0.35, 0.4, 30],
      [0.6, 0.5, 115],
    ].reduce(
      (all, [u = 0, v = 0, angle = 0]) => all.flatMap((p) => cutByLine(p, [u * 17, v * 12], angle)),
      [rect(0, 0, 17, 12)],
    )
    pieces
      .filter((p) => p.length > 2)
      .forEach((points, i) => {
        project = withMass(project, { name: `P${i}`, height: 3, points: turned(points, 77.7, [100, 30]) })
      })
    const study = studied(converted(project))
    expect(study.floors[0]?.net).toBeCloseTo(16.4 * 11.4, 3)
    expect(sum(study.parts.filter((p) => isWall(p.role)).map((p) => p.length ?? 0))).toBeCloseTo(58, 2)
  })
  it.each(['apart', 'boxes joined', 'roofs to each', 'all joined'])(
    'roofs as bodies of their own, %s, give the walls of the pitched shed',
    (how) => {
      for (const degrees of [0, 41]) {
        let project = projectWith([0, 2.85])
        const add = (name: string, height: number, points: Vec2[], above: number, direction?: number) => {
          project = withMass(project, { name, height, points: turned(points, degrees) }, (m) => ({
            ...m,
            base: { level: 'L0', above },
          }))
          if (direction !== undefined)
            project = apply(
              project,
              setPitch(schemeOf(project), massNamed(project, name), minter(`${name}pitch`), {
                angle: 35,
                direction: direction + degrees,
              }),
            )
        }
        add('A', 5.7, rect(0, 0, 9.6, 16.4), 0)
        add('B', 2.85, rect(9.6, 5.6, 4.8, 5.2), 0)
        add('Roof of A', 0.001, rect(0, 0, 9.6, 16.4), 5.7, 90)
        add('Roof of B', 0.001, rect(9.6, 5.6, 4.8, 5.2), 2.85, 0)
        const join = (a: string, b: string) => {
          project = apply(
            project,
            joinMasses(
              project,
              schemeOf(project),
              minter(`join${b}`),
              massNamed(project, a).id,
              massNamed(project, b).id,
            ),
          )
        }
        if (how === 'boxes joined' || how === 'all joined') join('A', 'B')
        if (how === 'roofs to each' || how === 'all joined') {
          join('A', 'Roof of A')
          join(how === 'all joined' ? 'A' : 'B', 'Roof of B')
        }
        const study = studied(converted(project))
        const walls = study.parts.filter((p) => isWall(p.role))
        expect(['L0', 'L1'].map((level) => walls.filter((w) => w.part.base?.level === level).length)).toEqual([8, 4])
        expect(walls.every((w) => w.area > 1 && w.bond.status === 'bonded')).toBe(true)
        expect(sum(walls.map((w) => w.area))).toBeCloseTo(sum(wallsOf(converted(joinedShed())).map((w) => w.area)), 1)
        expect(study.floors.map((f) => f.net)).toEqual([expect.closeTo(165.466, 3), expect.closeTo(143.194, 3)])
      }
    },
  )
})

describe('walls at openings and corners', () => {
  it('a joined body lower than its storey opens the wall: two pieces and what the porch has', () => {
    let project = thick(projectWith([0, 2.9]), { wall: 0.3 })
    project = withMass(project, { name: 'A', height: 2.9, points: turned(rect(0, 0, 12.6, 9.4), 14) })
    project = withMass(project, { name: 'B', height: 2.6, points: turned(rect(4, -2.1, 3.6, 2.1), 14) })
    const study = studied(converted(joined(project)))
    expect(study.floors[0]?.net).toBeCloseTo(111.9, 4)
    expect(study.parts.filter((p) => p.role === 'wall')).toHaveLength(8)
  })
  it.each(TURNS)('walls of unequal thickness in one line end square: turned by %d at %j', (degrees, at) => {
    let project = thick(projectWith([0]), { wall: 0.24 })
    const other = Object.values(project.buildUps).filter((b) => b.for === 'wall')[1]?.id ?? ''
    project = apply(project, {
      edit: 'build-up.change',
      id: other,
      set: { layers: [{ id: 'only', name: 'thick', material: 'clay', thickness: 0.6 }] },
    })
    project = converted(
      withMass(project, {
        height: 3,
        points: turned(
          [
            [0, 0],
            [4, 0],
            [9.5, 0],
            [14, 0],
            [14, 8.8],
            [0, 8.8],
          ],
          degrees,
          at,
        ),
      }),
    )
    const middle = wallsOf(project).find((w) => Math.abs((w.length ?? 0) - 5.5) < 1e-6)
    project = apply(project, {
      edit: 'part.change',
      scheme: schemeOf(project).id,
      id: middle?.id ?? '',
      set: { buildUp: other },
    })
    const walls = wallsOf(project)
    expect(sum(walls.map((w) => areaOf(w.plan)))).toBeCloseTo(12.694, 3)
  })
  it('the upper wall over a joined wing is closed where the wing has only roof space behind it', () => {
    const upper = wallsOf(converted(joinedShed()), 'L1')
    expect(upper).toHaveLength(4)
    expect(upper.filter((w) => Math.abs(w.area - 16.4 * 2.85) < 1e-4)).toHaveLength(2)
  })
})
