import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { numbersOf, readTyped, showFormula, type Project } from '../project'
import { openKernel } from '../solid'
import { apply, changeLevel, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import {
  addLevel,
  heightParts,
  levelHeights,
  moveLevel,
  removeLevel,
  retieLevel,
  setHeightPart,
  setStoreyHeight,
} from './index'

beforeAll(() => openKernel())

const heights = (p: Project) => Object.fromEntries(levelHeights(p, schemeOf(p)).map((l) => [l.name, l.height]))

describe('the height of a storey', () => {
  const one = () => changeLevel(projectWith([0, 3.15, 6.3]), 'L1', { slab: 0.22, floorBuildUp: 0.11 })
  const set = (
    p: Project,
    field: 'storey' | 'clear' | 'slab' | 'floor',
    num: number,
    gives: 'clear' | 'storey' = 'clear',
    above: 'carried' | 'held' = 'carried',
  ) => apply(p, setHeightPart(p, schemeOf(p), 'L0', field, num, { gives, above }))
  const of = (p: Project) => {
    const b = heightParts(p, schemeOf(p), 'L0')
    return [b?.storey, b?.clear, b?.slab, b?.floor]
  }
  it('is slab, floor build-up and clear height; each recomputes the others', () => {
    expect(of(one())).toEqual([3.15, 2.82, 0.22, 0.11])
    expect(of(set(one(), 'slab', 0.26))).toEqual([3.15, 2.78, 0.26, 0.11])
    expect(of(set(one(), 'slab', 0.26, 'storey'))).toEqual([3.19, 2.82, 0.26, 0.11])
    expect(of(set(one(), 'clear', 2.6))).toEqual([2.93, 2.6, 0.22, 0.11])
    expect(of(set(one(), 'storey', 3.5))).toEqual([3.5, 3.17, 0.22, 0.11])
    expect(heights(set(one(), 'clear', 3, 'clear', 'held'))).toEqual({ 'Level 0': 0, 'Level 1': 3.33, 'Level 2': 6.3 })
  })
  it('says when nothing is left of the clear height, and has none under the topmost storey', () => {
    expect(() => set(one(), 'slab', 3.1)).toThrow('Let the storey give way')
    expect(() => set(one(), 'storey', 0.3)).toThrow('leaves no clear height')
    expect(heightParts(one(), schemeOf(one()), 'L2')).toBeNull()
  })
  it('parts add up to the storey, whatever is changed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('storey' as const, 'clear' as const, 'slab' as const, 'floor' as const),
        fc.integer({ min: 1, max: 90 }),
        fc.constantFrom('clear' as const, 'storey' as const),
        (field, cm, gives) => {
          const b = heightParts(
            set(one(), field, field === 'storey' || field === 'clear' ? 2 + cm / 100 : cm / 100, gives),
            schemeOf(one()),
            'L0',
          )
          return b !== null && Math.abs(b.storey - b.clear - b.slab - b.floor) < 1e-9
        },
      ),
    )
  })
})

describe('one storey between two levels', () => {
  // A basement with all stacked up from it, or hanging under the ground: either end can stay.
  const up = () => {
    const p = projectWith([-3.2, 0, 3.4, 10.2])
    return changeLevel(p, 'L3', { kind: 'mark' })
  }
  const top = (p: Project) => levelHeights(p, schemeOf(p)).at(-1)?.height
  it('becomes lower with its foot held, and all above come down; or with its head held', () => {
    const project = up()
    expect(top(apply(project, setStoreyHeight(project, schemeOf(project), 'L0', 'L1', 2.75, 'lower')))).toBeCloseTo(
      9.75,
      9,
    )
    const held = apply(project, setStoreyHeight(project, schemeOf(project), 'L0', 'L1', 2.75, 'upper'))
    expect(heights(held)).toEqual({ 'Level 0': -2.75, 'Level 1': 0, 'Level 2': 3.4, 'Level 3': 10.2 })
  })
  it('does the same where the basement hangs under the ground', () => {
    let project = projectWith([0, 3.4])
    project = apply(
      project,
      addLevel(schemeOf(project), minter('b'), { name: 'Basement', kind: 'storey', on: 'L0', above: -3.2 }),
    )
    expect(heights(apply(project, setStoreyHeight(project, schemeOf(project), 'b-1', 'L0', 2.75, 'lower')))).toEqual({
      Basement: -3.2,
      'Level 0': -0.45,
      'Level 1': 2.95,
    })
    expect(heights(apply(project, setStoreyHeight(project, schemeOf(project), 'b-1', 'L0', 2.75, 'upper')))).toEqual({
      Basement: -2.75,
      'Level 0': 0,
      'Level 1': 3.4,
    })
  })
})

describe('a height by a formula with the names of levels', () => {
  it('follows the level that it names; relative, absolute and typed sums give the same', () => {
    let project = projectWith([0, 0.45, 4.1])
    project = changeLevel(project, 'L1', { name: 'Plinth top' })
    const named = readTyped('plinth TOP + 3.65', 'length', project, schemeOf(project))
    expect(named.value).toBe(4.1)
    expect(readTyped('0.45 + 3.65', 'length', project, schemeOf(project))).toEqual({ num: 4.1, value: 4.1 })
    project = apply(project, {
      edit: 'level.add',
      scheme: schemeOf(project).id,
      thing: {
        id: 'eaves',
        name: 'Eaves',
        kind: 'mark',
        tie: { kind: 'fixed', height: named.num },
        floorBuildUp: 0,
        slab: 0,
      },
    })
    expect(showFormula((named.num as { formula: string }).formula, project, schemeOf(project))).toBe(
      'Plinth top + 3.65 m',
    )
    const raised = apply(project, moveLevel(project, schemeOf(project), 'L1', 0.6, 'held'))
    expect(heights(raised)).toEqual({ 'Level 0': 0, 'Plinth top': 0.6, 'Level 2': 4.1, Eaves: 4.25 })
    const gone = apply(raised, removeLevel(raised, schemeOf(raised), 'L1'))
    expect(heights(gone)).toEqual({ 'Level 0': 0, 'Level 2': 4.1, Eaves: 4.25 })
  })
  it('cannot go in a circle, by name or by standing', () => {
    const project = projectWith([0, 3])
    expect(() =>
      apply(
        project,
        retieLevel(project, schemeOf(project), 'L0', { kind: 'fixed', height: { formula: '{L1} - 3 m' } }, 'carried'),
      ),
    ).toThrow('Level 0 -> Level 1 -> Level 0')
  })
  it('the longest name wins where one is part of another', () => {
    const project = changeLevel(changeLevel(projectWith([1, 2]), 'L0', { name: 'Storey 1' }), 'L1', {
      name: 'Storey 12',
    })
    expect(readTyped('Storey 12 + Storey 1', 'length', project, schemeOf(project)).value).toBe(3)
    expect(numbersOf(project, schemeOf(project)).height('L1')).toBe(2)
  })
})

it('marks make no plate and change no figure by a digit', () => {
  const plain = withMass(projectWith([0, 3, 6]), { box: [0, 0, 10, 10], height: 9 })
  const marked = ['Parapet', 'Ceiling', 'Foundation'].reduce(
    (p, name, i) =>
      apply(p, {
        edit: 'level.add',
        scheme: schemeOf(p).id,
        thing: {
          id: name,
          name,
          kind: 'mark',
          tie: { kind: 'fixed', height: [9.3, 2.7, -0.9][i] ?? 0 },
          floorBuildUp: 0,
          slab: 0,
        },
      }),
    plain,
  )
  expect(studied(marked).totals).toEqual(studied(plain).totals)
  expect(studied(marked).floors.map((f) => f.area)).toEqual(studied(plain).floors.map((f) => f.area))
})
