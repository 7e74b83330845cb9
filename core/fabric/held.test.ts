import { beforeAll, describe, expect, it } from 'vitest'
import { joinMasses, setPitch } from '../form'
import { consequencesOf, moveLevel, removeLevel } from '../levels'
import type { Project } from '../project'
import { openKernel } from '../solid'
import {
  apply,
  changeLevel,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  thick,
  withMass,
  withMoves,
} from '../testing/make'
import { rect, turned } from '../testing/plans'
import { attach, bodyHeights, bringInLine, isWall, letGo, placesFor } from './index'

beforeAll(() => openKernel())

const box = (levels: number[], height: number) =>
  withMass(projectWith(levels), { name: 'A', height, box: [0, 0, 12, 9] })
const walls = (project: Project) => studied(project).parts.filter((p) => isWall(p.role))
const heights = (project: Project, id: string) => {
  const body = walls(project).find((w) => w.id === id)?.body
  if (!body) return null
  const { z0, z1 } = bodyHeights(body)
  return [z0, z1].map((z) => Number(z.toFixed(9)))
}

describe('what was let go', () => {
  it('keeps its heights when levels move, and when one is deleted, until it is tied again', () => {
    let project = converted(box([0, 3, 6], 6))
    const wall = walls(project).find((w) => w.part.base?.level === 'L1')?.part
    if (!wall) throw new Error('no wall')
    const was = heights(project, wall.id)
    project = apply(project, letGo(studied(project).context, [wall.id]))
    expect(heights(project, wall.id)).toEqual(was)
    project = changeLevel(project, 'L1', { tie: { kind: 'stacked', on: 'L0', above: 3.6 } })
    expect(heights(project, wall.id)).toEqual(was)
    const without = apply(project, removeLevel(project, schemeOf(project), 'L1'))
    expect(heights(without, wall.id)).toEqual(was)
    const { context } = studied(project)
    const kept = context.scheme.parts[wall.id]
    const [place] = kept ? placesFor(context, kept, 1) : []
    if (!kept || !place) throw new Error('no place')
    expect(heights(apply(project, attach(context, kept, place)), wall.id)).toEqual([3.6, 6])
  })
})

describe('what follows a level', () => {
  it('counts walls that reach through, and roofs', () => {
    const project = converted(
      withMass(projectWith([0, 3, 6, 9]), { name: 'A', height: 9, upTo: 'L3', box: [0, 0, 12, 9] }),
      0,
      minter('part'),
      { reach: 'through' },
    )
    const edit = moveLevel(project, schemeOf(project), 'L3', 10, 'carried')
    // Four walls that go up to the moved level, and the roof on it.
    expect(consequencesOf(project, schemeOf(project), edit).parts).toBe(5)
  })
})

describe("areas are the face's", () => {
  it('of a leaning wall, as it was offered', () => {
    const project = withMoves(
      withMass(projectWith([0]), { name: 'A', height: 4.5, points: turned(rect(0, 0, 31.5, 12), 25) }),
      'A',
      { id: 'taper', move: 'taper', on: true, by: { kind: 'lean', angle: 20 } },
    )
    const found = walls(converted(project))
    expect(found.map((w) => w.role)).toEqual(Array.from({ length: 4 }, () => 'sloping wall'))
    const inset = Math.tan((20 * Math.PI) / 180) * 4.5
    for (const long of [31.5, 12])
      expect(
        found.filter(
          (w) => Math.abs(w.area - ((2 * long - 2 * inset) / 2) * (4.5 / Math.cos((20 * Math.PI) / 180))) < 1e-4,
        ),
      ).toHaveLength(2)
  })
  it('of facets, foot to head', () => {
    const project = withMoves(withMass(projectWith([0, 3]), { name: 'A', height: 6, box: [0, 0, 12, 9] }), 'A', {
      id: 'twist',
      move: 'twist',
      on: true,
      angle: 30,
      from: 0,
      to: null,
    })
    const [upright, facets] = (['upright walls', 'facets'] as const).map((bent) =>
      walls(converted(project, 0, minter('part'), { bent })).reduce((sum, w) => sum + w.area, 0),
    )
    expect(facets).toBeGreaterThan((upright ?? 0) + 1)
    expect(facets).toBeLessThan((upright ?? 0) * 1.2)
  })
})

describe('a face that a join splits', () => {
  it('has a finding where its wall is missing, once the others are in line', () => {
    let project = converted(box([0, 3], 3))
    project = withMass(project, { name: 'B', height: 3, box: [4, -5, 2, 5] })
    project = apply(
      project,
      joinMasses(project, schemeOf(project), minter('join'), massNamed(project, 'A').id, massNamed(project, 'B').id),
    )
    const before = studied(project)
    project = apply(project, bringInLine(before.context, before.parts))
    const gaps = () => studied(project).findings.filter((f) => f.kind === 'wall gap')
    // The wall took the larger piece, of 6 m; the other, of 4 m, and B's three sides are open.
    expect(
      gaps()
        .map((f) => Math.round(f.area ?? 0))
        .sort((a, b) => a - b),
    ).toEqual([6, 12, 15, 15])
    for (const _ of [1, 2, 3, 4]) {
      const fix = gaps()[0]?.fix
      if (fix) project = apply(project, fix.edit(minter(`fix${_}`)))
    }
    expect(gaps()).toEqual([])
  })
})

describe('roofs under the face', () => {
  it("take the place of the wall's head, level or sloping", () => {
    const flat = thick(withMass(projectWith([0]), { name: 'A', height: 3, box: [0, 0, 12, 9] }), { roof: 0.3 })
    expect(walls(converted(flat, 0, minter('part'), { roofSide: 'inside' })).map((w) => w.area)).toEqual(
      [12, 9, 12, 9].map((l) => expect.closeTo(l * 2.7, 6) as number),
    )
    const pitched = apply(
      flat,
      setPitch(schemeOf(flat), massNamed(flat, 'A'), minter('p'), { angle: 30, direction: 0 }),
    )
    const under = 0.3 / Math.cos((30 * Math.PI) / 180)
    const areas = walls(converted(pitched, 0, minter('part'), { roofSide: 'inside' })).map((w) => w.area)
    const on = walls(converted(pitched)).map((w) => w.area)
    expect(areas).toEqual([12, 9, 12, 9].map((l, i) => expect.closeTo((on[i] ?? 0) - l * under, 4) as number))
  })
})
