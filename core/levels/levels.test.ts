import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import type { Project } from '../project'
import {
  apply,
  changeLevel,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
} from '../testing/make'
import { addLevel, addStoreys, carriedBy, levelHeights, moveLevel, removeLevel, retieLevel, tieAs } from './index'

beforeAll(() => openKernel())

const heights = (p: Project) => Object.fromEntries(levelHeights(p, schemeOf(p)).map((l) => [l.name, l.height]))
const names = (p: Project) => levelHeights(p, schemeOf(p)).map((l) => l.name)

describe('levels', () => {
  it('stacked ones follow, fixed ones stay', () => {
    let project = projectWith([0, 0.45, 4.1])
    project = apply(
      project,
      addLevel(schemeOf(project), minter('f'), { name: 'Eaves', kind: 'mark', on: 'L1', above: 3.65 }),
    )
    project = apply(
      project,
      retieLevel(project, schemeOf(project), 'f-1', tieAs(project, schemeOf(project), 'f-1', 'fixed'), 'held'),
    )
    expect(heights(project)).toEqual({ 'Level 0': 0, 'Level 1': 0.45, 'Level 2': 4.1, Eaves: 4.1 })
    project = apply(project, moveLevel(project, schemeOf(project), 'L1', 0.6, 'carried'))
    expect(heights(project)).toEqual({ 'Level 0': 0, 'Level 1': 0.6, 'Level 2': 4.25, Eaves: 4.1 })
  })
  it('those above are carried, or held, when one moves', () => {
    const project = projectWith([0, 3, 6, 9])
    expect(Object.values(heights(apply(project, moveLevel(project, schemeOf(project), 'L1', 3.3, 'carried'))))).toEqual(
      [0, 3.3, 6.3, 9.3],
    )
    expect(Object.values(heights(apply(project, moveLevel(project, schemeOf(project), 'L1', 3.3, 'held'))))).toEqual([
      0, 3.3, 6, 9,
    ])
  })
  it('hang downwards from the datum', () => {
    let project = projectWith([0])
    project = apply(
      project,
      addStoreys(
        project,
        schemeOf(project),
        minter('b'),
        { on: 'L0', count: 3, each: -3.3, pattern: 'Basement {n}', first: 1 },
        'carried',
      ),
    )
    expect(heights(project)).toMatchObject({ 'Basement 1': -3.3, 'Basement 2': -6.6, 'Basement 3': -9.9 })
    project = apply(project, moveLevel(project, schemeOf(project), 'b-1', -3.5, 'carried'))
    expect(heights(project)).toMatchObject({ 'Level 0': 0, 'Basement 1': -3.5, 'Basement 3': -10.1 })
  })
  it('thirty-eight are added at one go, in between what is there, which is carried or held', () => {
    const base = projectWith([0, 0.6, 5.7])
    const many = { on: 'L2', count: 38, each: 3.25, pattern: 'Level {n}', first: 3 }
    const tower = apply(base, addStoreys(base, schemeOf(base), minter('t'), many, 'carried'))
    expect(levelHeights(tower, schemeOf(tower)).at(-1)?.height).toBeCloseTo(129.2, 9)
    expect(names(tower)[4]).toBe('Level 4')
    expect(names(tower)[13]).toBe('Level 13')
    const between = apply(
      base,
      addStoreys(
        base,
        schemeOf(base),
        minter('u'),
        { on: 'L1', count: 2, each: 3, pattern: 'Added {n}', first: 1 },
        'carried',
      ),
    )
    expect(heights(between)).toMatchObject({ 'Added 2': 6.6, 'Level 2': 11.7 })
    const held = apply(
      base,
      addStoreys(
        base,
        schemeOf(base),
        minter('u'),
        { on: 'L1', count: 1, each: 3, pattern: 'Added {n}', first: 1 },
        'held',
      ),
    )
    expect(heights(held)).toMatchObject({ 'Added 1': 3.6, 'Level 2': 5.7 })
  })
  it('are sorted by height, as numbers where names decide', () => {
    let project = projectWith([0])
    for (const name of ['Mark 10', 'Mark 9', 'Mark 2'])
      project = apply(
        project,
        addLevel(schemeOf(project), minter(name.replace(/\W/g, '')), { name, kind: 'mark', on: 'L0', above: 3 }),
      )
    expect(names(project)).toEqual(['Level 0', 'Mark 2', 'Mark 9', 'Mark 10'])
  })
  it('a mark makes no floor, and turning it into a storey does', () => {
    let project = withMass(projectWith([0]), { box: [0, 0, 10, 10], height: 9 })
    project = apply(
      project,
      addLevel(schemeOf(project), minter('m'), { name: 'Ceiling', kind: 'mark', on: 'L0', above: 3 }),
    )
    expect(studied(project).totals.area).toBeCloseTo(100, 9)
    expect(studied(changeLevel(project, 'm-1', { kind: 'storey' })).totals.area).toBeCloseTo(200, 9)
  })
  it('refuse what makes no sense, with the remedy', () => {
    const project = projectWith([0])
    const add = (count: number, each: number) => () =>
      addStoreys(project, schemeOf(project), minter(), { on: 'L0', count, each, pattern: 'S {n}', first: 1 }, 'carried')
    expect(add(0, 3)).toThrow('whole number from 1 to 500')
    expect(add(2.5, 3)).toThrow('whole number')
    expect(add(3, 0)).toThrow('storey height of zero')
    expect(() => removeLevel(project, schemeOf(project), 'L0')).toThrow('last level')
    expect(() => moveLevel(project, schemeOf(project), 'gone', 3, 'carried')).toThrow('not there any more')
  })
})

it('a moved level says what it carries: levels over it, masses on them, parts tied to any of them', () => {
  const project = converted(
    withMass(withMass(projectWith([0, 3, 6, 9]), { name: 'Bar', box: [0, 0, 10, 6], height: 12 }), {
      name: 'Box',
      box: [30, 0, 5, 5],
      height: 3,
      level: 'L2',
    }),
  )
  const carried = carriedBy(schemeOf(project), 'L2')
  expect(carried.levels.map((l) => l.id)).toEqual(['L3'])
  expect(carried.masses).toBe(1)
  // Bar: walls of L1 reach up to L2, those of L2 and L3 stand there, and two slabs; Box: four walls and a slab.
  expect(carried.parts).toBe(4 + 4 + 4 + 2 + 4 + 1)
  expect(carriedBy(schemeOf(project), 'L3')).toMatchObject({ levels: [], masses: 0 })
})

describe('a removed level', () => {
  const built = () =>
    converted(
      withMass(withMass(projectWith([0, 3, 6, 9]), { name: 'Bar', box: [0, 0, 10, 6], height: 12 }), {
        name: 'Box',
        box: [30, 0, 5, 5],
        height: 3,
        level: 'L1',
      }),
    )
  it('leaves the heights of all others as they were, and masses where they stood', () => {
    const project = built()
    const after = apply(project, removeLevel(project, schemeOf(project), 'L1'))
    expect(heights(after)).toEqual({ 'Level 0': 0, 'Level 2': 6, 'Level 3': 9 })
    const box = studied(after).forms.find((f) => f.name === 'Box')
    expect(box?.base).toBeCloseTo(3, 9)
    expect(massNamed(after, 'Box').base.level).not.toBe('L1')
  })
  it('takes the walls and slabs that stood on it, and lets those below reach to the next storey, with nothing drifted', () => {
    const project = built()
    const study = studied(apply(project, removeLevel(project, schemeOf(project), 'L1')))
    const walls = study.parts.filter((p) => p.role === 'wall' && p.part.base?.level === 'L0')
    expect(walls).toHaveLength(4)
    expect(walls.every((w) => w.body?.kind === 'prism' && Math.abs(w.body.z1 - 5.7) < 1e-9)).toBe(true)
    expect(study.parts.filter((p) => p.part.base?.level === 'L1')).toHaveLength(0)
    expect(study.parts.filter((p) => p.bond.status === 'drifted')).toHaveLength(0)
  })
})
