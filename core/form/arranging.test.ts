import { beforeAll, describe, expect, it } from 'vitest'
import { apply, massNamed, minter, projectWith, schemeOf, studied } from '../testing/make'
import { openKernel, type Vec2 } from '../solid'
import type { Project } from '../project'
import {
  alignMasses,
  copyMasses,
  dimensionsOf,
  extentOf,
  groupMasses,
  groupsOf,
  massFromRegion,
  mirrorMasses,
  newMass,
  spreadMasses,
  withGroups,
} from './index'

beforeAll(() => openKernel())

const mint = minter('a')
const blocks = (...at: [Vec2, Vec2, number][]): Project =>
  at.reduce(
    (project, [from, size, turn], i) => {
      const scheme = schemeOf(project)
      const to: Vec2 = [from[0] + size[0], from[1] + size[1]]
      const use = Object.keys(project.uses)[0] ?? ''
      const drawn = newMass(scheme, mint, {
        name: `B${i}`,
        use,
        level: 'L0',
        height: 3,
        shape: { kind: 'rectangle', from, to },
      })
      return apply(project, {
        edit: 'mass.add',
        scheme: scheme.id,
        thing: { ...drawn, place: { ...drawn.place, turn } },
      })
    },
    projectWith([0, 3, 6], mint),
  )
const extents = (project: Project) => studied(project).forms.map(extentOf)
const names = ['B0', 'B1', 'B2', 'B3']
const ids = (project: Project, n: number) => names.slice(0, n).map((name) => massNamed(project, name).id)

describe('arranging masses', () => {
  const project = blocks([[0, 0], [6, 4], 0], [[20, 3], [5, 5], 33], [[9, -7], [3, 8], 0], [[40, 1], [2, 2], 10])
  it('puts their sides or middles in line, turned ones by their corners', () => {
    for (const [by, at] of [
      ['west', (e: ReturnType<typeof extentOf>) => e.x0],
      ['north', (e: ReturnType<typeof extentOf>) => e.y1],
      ['middle, west to east', (e: ReturnType<typeof extentOf>) => (e.x0 + e.x1) / 2],
    ] as const) {
      const then = extents(apply(project, alignMasses(project, schemeOf(project), extents(project), by)))
      for (const e of then) expect(at(e)).toBeCloseTo(at(then[0] as never), 8)
    }
    expect(() => alignMasses(project, schemeOf(project), extents(project).slice(0, 1), 'west')).toThrow(
      /Pick two or more/,
    )
  })
  it('spreads them with equal gaps, the outermost stay', () => {
    const before = extents(project)
    const then = extents(apply(project, spreadMasses(project, schemeOf(project), before, 'west to east')))
    const inTurn = [...then].sort((a, b) => a.x0 - b.x0)
    const gaps = inTurn.slice(1).map((e, i) => e.x0 - (inTurn[i]?.x1 ?? 0))
    for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0] as number, 8)
    expect([inTurn[0]?.x0, inTurn.at(-1)?.x1]).toEqual([
      Math.min(...before.map((e) => e.x0)),
      Math.max(...before.map((e) => e.x1)),
    ])
  })
  it('copies in place and to other levels, with names of their own', () => {
    const made = apply(
      project,
      copyMasses(schemeOf(project), mint, ids(project, 2), { by: [0, 0], levels: ['L1', 'L2'] }, project),
    )
    const masses = Object.values(schemeOf(made).masses)
    expect(masses).toHaveLength(8)
    expect(new Set(masses.map((m) => m.name)).size).toBe(8)
    expect(masses.filter((m) => m.base.level === 'L2')).toHaveLength(2)
  })
  it('mirrors: corners are those of the image, twice brings them back', () => {
    const line = { at: [3, 1] as Vec2, direction: 40 }
    const once = apply(project, mirrorMasses(project, schemeOf(project), mint, ids(project, 4), line))
    const a = (80 * Math.PI) / 180
    const image = ([x, y]: Vec2): Vec2 => [
      3 + Math.cos(a) * (x - 3) + Math.sin(a) * (y - 1),
      1 + Math.sin(a) * (x - 3) - Math.cos(a) * (y - 1),
    ]
    const corners = (p: Project) =>
      studied(p).forms.map((f) =>
        f.body
          .plan()
          .flat()
          .map(([x, y]): Vec2 => {
            const t = (f.at.turn * Math.PI) / 180
            return [f.at.x + Math.cos(t) * x - Math.sin(t) * y, f.at.y + Math.sin(t) * x + Math.cos(t) * y]
          }),
      )
    const [before, after] = [corners(project), corners(once)]
    before.forEach((points, i) => {
      for (const p of points.map(image))
        expect(Math.min(...(after[i] ?? []).map((q) => Math.hypot(p[0] - q[0], p[1] - q[1])))).toBeLessThan(1e-6)
    })
    const twice = apply(once, mirrorMasses(once, schemeOf(once), mint, ids(once, 4), line))
    const wests = (p: Project) => extents(p).map((e) => e.x0.toFixed(6))
    expect(wests(twice)).toEqual(wests(project))
  })
  it('a new mass takes the outline of a floor, with its holes', () => {
    const region: Vec2[][] = [
      [
        [10, 10],
        [20, 10],
        [20, 18],
        [10, 18],
      ],
      [
        [12, 12],
        [12, 14],
        [15, 14],
        [15, 12],
      ],
      [
        [40, 0],
        [41, 0],
        [41, 1],
      ],
    ]
    const scheme = schemeOf(project)
    const from = { name: 'B0', use: Object.keys(project.uses)[0] ?? '', level: 'L1', height: 3, region }
    const made = apply(project, massFromRegion(scheme, mint, from))
    const form = studied(made).forms.find((f) => f.name === 'B0 2')
    expect(form?.body.volume).toBeCloseTo(3 * (80 - 6), 8)
    expect([form?.rect.x0, form?.rect.y1, form?.base]).toEqual([10, 18, 3])
    expect(() => massFromRegion(scheme, mint, { ...from, region: [] })).toThrow(/no floor/)
  })
  it('tells of dimensions that are off the stride', () => {
    const odd = blocks([[0, 0], [10.05, 8], 0])
    const found = dimensionsOf({ ...odd, stride: { length: 0.1, angle: 5 } }, schemeOf(odd))
    expect(found.filter((d) => d.off).map((d) => `${d.what} ${d.value}`)).toEqual([
      'south side 10.05',
      'north side 10.05',
    ])
    expect(found.map((d) => d.what)).toContain('height')
  })
})

describe('a group', () => {
  it('is picked whole, and its copies are a group of their own', () => {
    let project = blocks([[0, 0], [4, 4], 0], [[10, 0], [4, 4], 20], [[20, 0], [4, 4], 0])
    const scheme = () => schemeOf(project)
    const ids = ['B0', 'B1'].map((name) => massNamed(project, name).id)
    project = apply(project, groupMasses(scheme(), ids, 'Group 1'))
    expect(withGroups(scheme(), [ids[1] as string]).sort()).toEqual([...ids].sort())
    project = apply(project, copyMasses(scheme(), mint, ids, { by: [0, 10] }, project))
    expect(groupsOf(scheme())).toHaveLength(2)
    expect(withGroups(scheme(), ids)).toHaveLength(2)
    project = apply(project, groupMasses(scheme(), ids, null))
    expect(withGroups(scheme(), [ids[0] as string])).toEqual([ids[0]])
  })
})
