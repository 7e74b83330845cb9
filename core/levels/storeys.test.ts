import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { readTyped, type Project } from '../project'
import { openKernel } from '../solid'
import { apply, changeLevel, converted, minter, projectWith, schemeOf, withMass } from '../testing/make'
import {
  addRuns,
  consequencesOf,
  insertLevel,
  levelHeights,
  moveLevel,
  nameBy,
  nextName,
  readRuns,
  removeLevel,
  setStoreyHeight,
} from './index'

beforeAll(() => openKernel())

const heights = (p: Project) => Object.fromEntries(levelHeights(p, schemeOf(p)).map((l) => [l.name, l.height]))
const numOf = (p: Project) => (text: string) => readTyped(text, 'length', p, schemeOf(p)).num
const tower = () => {
  const street = changeLevel(projectWith([0]), 'L0', { name: 'Street' })
  return apply(
    street,
    addRuns(
      street,
      schemeOf(street),
      minter('t'),
      { on: 'L0', runs: readRuns('0.6, 5.1, 38 x 3.25', numOf(street)), pattern: 'Level {nn}', first: 1 },
      'carried',
    ),
  )
}
const topmost = (p: Project) => levelHeights(p, schemeOf(p)).at(-1)?.height

describe('a tower in one entry', () => {
  it('first heights of their own, then many alike: 40 levels and the street', () => {
    expect(heights(tower())).toMatchObject({ Street: 0, 'Level 01': 0.6, 'Level 02': 5.7, 'Level 03': 8.95 })
    expect(topmost(tower())).toBe(129.2)
    expect(levelHeights(tower(), schemeOf(tower()))).toHaveLength(41)
  })
  it('a level raised in it: those above are held or carried, and both are known before', () => {
    const project = tower()
    const both = (['held', 'carried'] as const).map((how) =>
      consequencesOf(project, schemeOf(project), moveLevel(project, schemeOf(project), 't-3', 9.25, how)),
    )
    expect(both.map((c) => c.topmost?.height)).toEqual([129.2, 129.5])
    expect(both.map((c) => c.moved.length)).toEqual([1, 38])
    expect(both.map((c) => c.held.length)).toEqual([37, 0])
  })
  it('is refused with the remedy where it makes no sense', () => {
    const project = projectWith([0])
    const add = (text: string) => () =>
      addRuns(
        project,
        schemeOf(project),
        minter(),
        { on: 'L0', runs: readRuns(text, numOf(project)), pattern: 'S', first: 1 },
        'carried',
      )
    expect(add('')).toThrow('Type heights from the lowest storey up')
    expect(add('3 x 0')).toThrow('storey height of zero')
    expect(add('3, -3')).toThrow('one after the other')
    expect(add('900 x 3')).toThrow('whole number from 1 to 500')
  })
})

describe('names in local habit', () => {
  it('numbers, two digits, ordinals and words, with the ground as zero', () => {
    expect([0, 1, 2, 21, 40].map((n) => nameBy('{first}', n))).toEqual([
      'Ground',
      'First',
      'Second',
      'Twenty-first',
      'Fortieth',
    ])
    expect([1, 2, 3, 11, 22].map((n) => nameBy('{1st} storey', n))).toEqual([
      '1st storey',
      '2nd storey',
      '3rd storey',
      '11th storey',
      '22nd storey',
    ])
    expect([nameBy('Level {nn}', 4), nameBy('Level', 4), nameBy('Level {n}', -2)]).toEqual([
      'Level 04',
      'Level 4',
      'Level -2',
    ])
  })
  it('go on by one, whatever the habit', () => {
    expect(['Level 09', 'Storey 9', 'First', 'third floor', '2nd storey', 'Twentieth'].map(nextName)).toEqual([
      'Level 10',
      'Storey 10',
      'Second',
      'fourth floor',
      '3rd storey',
      'Twenty-first',
    ])
    expect(nextName('Roof')).toBeNull()
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 97 }),
        fc.constantFrom('{first}', '{1st} storey', 'Level {nn}', 'Storey {n}', '{first} floor'),
        (n, pattern) => nextName(nameBy(pattern, n)) === nameBy(pattern, n + 1),
      ),
    )
  })
  it('basements are counted down', () => {
    const project = projectWith([0])
    const down = apply(
      project,
      addRuns(
        project,
        schemeOf(project),
        minter('b'),
        { on: 'L0', runs: readRuns('2 x -3.2', numOf(project)), pattern: 'Level {n}', first: -1 },
        'carried',
      ),
    )
    expect(heights(down)).toEqual({ 'Level 0': 0, 'Level -1': -3.2, 'Level -2': -6.4 })
  })
})

describe('a storey put in', () => {
  const three = () => {
    const p = projectWith([0])
    return apply(
      p,
      addRuns(
        p,
        schemeOf(p),
        minter('s'),
        { on: 'L0', runs: readRuns('3 x 3', numOf(p)), pattern: '{first}', first: 1 },
        'carried',
      ),
    )
  }
  it('renumbers those above, or not; they are carried or held', () => {
    const project = three()
    const put = (how: 'carried' | 'held', renumber: boolean) =>
      heights(
        apply(
          project,
          insertLevel(
            project,
            schemeOf(project),
            minter('n'),
            { on: 's-1', above: 2.5, kind: 'storey', name: 'Gallery' },
            how,
            renumber,
          ),
        ),
      )
    expect(put('carried', true)).toEqual({ 'Level 0': 0, First: 3, Second: 5.5, Third: 8.5, Fourth: 11.5 })
    expect(put('held', false)).toEqual({ 'Level 0': 0, First: 3, Gallery: 5.5, Second: 6, Third: 9 })
  })
  it('says what follows it: masses that grow, parts that go along, masses that are only cut elsewhere', () => {
    let project = converted(
      withMass(withMass(three(), { name: 'Tied', box: [0, 0, 10, 6], height: 9, upTo: 's-3' }), {
        name: 'Free',
        box: [30, 0, 5, 5],
        height: 9,
      }),
    )
    const said = consequencesOf(
      project,
      schemeOf(project),
      insertLevel(
        project,
        schemeOf(project),
        minter('n'),
        { on: 's-1', above: 2.5, kind: 'storey', name: 'Gallery' },
        'carried',
        false,
      ),
    )
    expect(said.added.map((l) => [l.name, l.height])).toEqual([['Gallery', 5.5]])
    expect(said.masses).toEqual([{ name: 'Tied', how: 'grows' }])
    expect(said.cut).toEqual(['Free'])
    expect(said.parts).toBeGreaterThan(0)
    project = apply(project, {
      edit: 'level.add',
      scheme: schemeOf(project).id,
      thing: { id: 'eaves', name: 'Eaves', kind: 'mark', tie: { kind: 'fixed', height: 9 }, floorBuildUp: 0, slab: 0 },
    })
    expect(
      consequencesOf(project, schemeOf(project), moveLevel(project, schemeOf(project), 's-2', 6.5, 'carried')).held,
    ).toEqual(['Eaves'])
  })
})

describe('whatever is done to levels', () => {
  const stack = fc
    .array(fc.integer({ min: 20, max: 60 }), { minLength: 2, maxLength: 8 })
    .map((rises) =>
      projectWith(rises.reduce<number[]>((zs, r) => [...zs, Math.round(((zs.at(-1) ?? 0) + r / 10) * 1e9) / 1e9], [0])),
    )
  it('a storey gets its height, the end that is kept stays, and so do all levels beyond it', () => {
    fc.assert(
      fc.property(
        stack,
        fc.nat(9),
        fc.integer({ min: 5, max: 90 }),
        fc.constantFrom('lower' as const, 'upper' as const),
        fc.constantFrom('carried' as const, 'held' as const),
        (project, k, tenths, keep, above) => {
          const before = levelHeights(project, schemeOf(project))
          const i = k % (before.length - 1)
          const [low, high] = [before[i], before[i + 1]]
          if (!low || !high) return
          const now = apply(
            project,
            setStoreyHeight(project, schemeOf(project), low.id, high.id, tenths / 10, keep, above),
          )
          const z = new Map(levelHeights(now, schemeOf(now)).map((l) => [l.id, l.height]))
          expect((z.get(high.id) ?? 0) - (z.get(low.id) ?? 0)).toBeCloseTo(tenths / 10, 9)
          expect(z.get(keep === 'lower' ? low.id : high.id)).toBeCloseTo(keep === 'lower' ? low.height : high.height, 9)
          for (const l of keep === 'lower' ? before.slice(0, i) : before.slice(i + 2))
            expect(z.get(l.id)).toBeCloseTo(l.height, 9)
          if (keep === 'lower' && above === 'held')
            for (const l of before.slice(i + 2)) expect(z.get(l.id)).toBeCloseTo(l.height, 9)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('a storey put in and taken out again leaves all heights as they were, carried or held', () => {
    fc.assert(
      fc.property(stack, fc.nat(9), fc.integer({ min: 5, max: 40 }), fc.boolean(), (project, k, tenths, held) => {
        const before = levelHeights(project, schemeOf(project))
        const on = before[k % before.length]?.id ?? ''
        const more = apply(
          project,
          insertLevel(
            project,
            schemeOf(project),
            minter('n'),
            { on, above: tenths / 10, kind: 'storey', name: 'New' },
            held ? 'held' : 'carried',
            false,
          ),
        )
        const said = consequencesOf(
          project,
          schemeOf(project),
          insertLevel(
            project,
            schemeOf(project),
            minter('n'),
            { on, above: tenths / 10, kind: 'storey', name: 'New' },
            held ? 'held' : 'carried',
            false,
          ),
        )
        expect(said.added).toHaveLength(1)
        expect(said.moved).toHaveLength(held ? 0 : before.length - 1 - (k % before.length))
        const back = apply(more, removeLevel(more, schemeOf(more), 'n-1'))
        const lift = held ? 0 : tenths / 10
        const at = before.find((l) => l.id === on)?.height ?? 0
        for (const l of levelHeights(back, schemeOf(back))) {
          const old = before.find((o) => o.id === l.id)?.height ?? 0
          expect(l.height).toBeCloseTo(old > at + 1e-9 ? old + lift : old, 9)
        }
      }),
      { numRuns: 60 },
    )
  })
  it('runs of storeys add up to their topmost level, up or down', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 20, max: 60 })), {
          minLength: 1,
          maxLength: 4,
        }),
        fc.boolean(),
        (runs, down) => {
          const project = projectWith([0])
          const text = runs.map(([n, dm]) => `${n} x ${down ? '-' : ''}${dm / 10}`).join(', ')
          const now = apply(
            project,
            addRuns(
              project,
              schemeOf(project),
              minter('r'),
              { on: 'L0', runs: readRuns(text, numOf(project)), pattern: 'S {n}', first: down ? -1 : 1 },
              'carried',
            ),
          )
          const all = levelHeights(now, schemeOf(now))
          const total = runs.reduce((sum, [n, dm]) => sum + (n * dm) / 10, 0)
          expect(all).toHaveLength(1 + runs.reduce((sum, [n]) => sum + n, 0))
          expect(down ? all[0]?.height : all.at(-1)?.height).toBeCloseTo(down ? -total : total, 6)
        },
      ),
      { numRuns: 40 },
    )
  })
})
