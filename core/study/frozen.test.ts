import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { addParts, partsFrom, propose } from '../fabric'
import { changeRule, freezeRule, growAgain, leaveOutOfRule, ownOfRule, removeMaterial, withStep } from '../form'
import { FORMATS } from '../exchange'
import { duplicateScheme } from '../groundwork'
import { levelHeights, removeLevel } from '../levels'
import type { Project } from '../project'
import type { Step } from '../rules'
import { openKernel } from '../solid'
import { apply, choicesOf, schemeOf, studied } from '../testing/make'
import { mint, only, ruled, stepOf, striped, withDial, withTurn } from '../testing/ruled'
import { studyScheme } from './index'

beforeAll(() => openKernel())

describe('a frozen rule', () => {
  it('grows again with another number: same names, and what was given is kept by key', () => {
    let project = striped(9, 'alike', 3)
    const scheme = () => schemeOf(project)
    const grown = studied(project)
    const ids = grown.forms.map((f) => f.id)
    const { context } = grown
    const candidates = propose(context, [ids[0] as string]).candidates
    project = apply(project, addParts(context, partsFrom(context, mint, candidates, choicesOf(project, 0))))
    const before = studied(project)
    project = apply(project, freezeRule(scheme(), studied(project).growth, only(project).id))
    const frozen = studied(project)
    expect(frozen.forms.map((f) => f.id)).toEqual(ids)
    expect(frozen.totals).toEqual(before.totals)
    expect(frozen.parts.map((p) => p.bond.status)).toEqual(before.parts.map((p) => p.bond.status))
    // Drawn ones now: a name, a material, a move of its own.
    const material = Object.keys(project.materials)[0] as string
    const [a, b] = [scheme().masses[ids[0] as string], scheme().masses[ids[1] as string]]
    project = apply(
      project,
      { edit: 'mass.change', scheme: scheme().id, id: ids[0] as string, set: { name: 'West one', material } },
      { edit: 'mass.remove', scheme: scheme().id, id: ids[2] as string },
    )
    expect([a?.name, b?.name]).toEqual(['Tower cluster 1-1', 'Tower cluster 1-2'])
    project = withDial(project, 'twist', 60)
    expect(studied(project).totals.area).toBeCloseTo(3 * 5 * 88.36, 3)
    project = apply(project, growAgain(scheme(), only(project).id))
    const again = studied(project)
    expect(Object.keys(scheme().masses)).toHaveLength(0)
    expect(again.forms.map((f) => f.id)).toEqual(ids.filter((_, i) => i !== 2))
    const west = again.scheme.masses[ids[0] as string]
    expect([west?.name, west?.material]).toEqual(['West one', material])
    expect(Object.keys(west?.faces ?? {})).toEqual(Object.keys(grown.scheme.masses[ids[0] as string]?.faces ?? {}))
    expect(again.parts.filter((p) => p.bond.status === 'loose')).toEqual([])
    expect(again.scheme.masses[ids[1] as string]?.name).toBe('Tower cluster 1-2')
  })
})

describe('ready rules', () => {
  it.each([
    ['terrace', 10, (60 * 16 * (7 + 6 + 5 + 4 + 3 + 2)) / 6],
    ['court', 8, 6 * (64 * 48 - 40 * 24 - 4 * 8)],
    ['bar', 8, 14 * 7.2 * (9 * 5 + 3)],
  ] as const)('%s has its areas', (ready, storeys, area) => {
    const project = ruled(ready, storeys, 3)
    const study = studied(withTurn(project, 12.5, 400000, 5000000))
    expect(study.findings.filter((f) => f.kind.includes('rule'))).toEqual([])
    expect(study.totals.area).toBeCloseTo(area, 2)
  })
  it('the hall is a ring of sectors, its arcs exact', () => {
    const study = studied(ruled('hall', 1, 3))
    expect(study.forms).toHaveLength(12)
    expect(study.totals.area).toBeCloseTo(Math.PI * (24 ** 2 - 15 ** 2), 2)
    const volumes = study.forms.map((f) => f.body.volume)
    const sector = (Math.PI * (24 ** 2 - 15 ** 2)) / 12
    for (const [i, v] of volumes.entries()) expect(v).toBeCloseTo(sector * (7 + 0.5 * i), 1)
  })
})

describe('a step that cannot be made', () => {
  const broken = (set: () => Project, words: RegExp) => expect(set).toThrow(words)
  it('is refused with its number, what happened and what to do; the rule stays as it was', () => {
    const project = ruled('cluster', 31, 3.5)
    broken(
      () => withDial(project, 'inset', 7),
      /Step 5 of "Tower cluster": Set in by 7 m, a side of .* is gone\. Set it in by less/,
    )
    broken(() => withDial(project, 'columns', 50000), /Step 2 .*would make 100,000 of them; the rule may make 1,000/)
    broken(() => withDial(project, 'columns', 2.5), /A number of parts is 2.5/)
    const step = stepOf(project, 'move')
    const over = { move: { id: 'm', move: 'inset', on: true, by: { formula: '1 / 0' } } }
    broken(
      () => apply(project, withStep(schemeOf(project), only(project).id, step.id, over)),
      /Step 5 .*divides by zero/,
    )
    broken(
      () => apply(project, withStep(schemeOf(project), only(project).id, step.id, { of: 'gone' })),
      /chose what it acts on is gone/,
    )
  })
  it('a list of another length than what it is given to says so, and begins anew', () => {
    const project = ruled('cluster', 31, 3.5)
    const listed = apply(
      project,
      withStep(schemeOf(project), only(project).id, stepOf(project, 'number').id, {
        how: 'list',
        list: [1, -1, 0.5, 2],
      }),
    )
    const study = studied(listed)
    expect(study.findings.filter((f) => f.kind.includes('rule')).map((f) => f.say)).toEqual([
      expect.stringContaining('has 4 numbers for 6'),
    ])
    expect(study.forms).toHaveLength(6)
  })
})

describe('what a rule stands on, and names', () => {
  it('a level that goes leaves it where it is: its base, its tied moves and its formulas', () => {
    let project = ruled('cluster', 31, 3.5)
    const scheme = () => schemeOf(project)
    const [, second, third] = levelHeights(project, scheme())
    const raise = only(project).steps.find((s) => s.step === 'move' && s.move.move === 'raise')
    const twist = only(project).steps.at(-1) as Extract<Step, { step: 'move' }>
    project = apply(
      project,
      changeRule(scheme(), only(project).id, { base: { level: second?.id ?? '', above: 0 } }),
      withStep(scheme(), only(project).id, raise?.id ?? '', {
        move: { id: 'm', move: 'raise', on: true, height: 9, upTo: { level: third?.id ?? '', above: 94.5 } },
      }),
    )
    const id = only(project).id
    project = apply(
      project,
      withStep(scheme(), id, twist.id, { move: { ...twist.move, from: { formula: `{${third?.id ?? ''}} + 10.5 m` } } }),
    )
    project = apply(project, changeRule(scheme(), id, { base: { level: second?.id ?? '', above: 0 } }))
    const before = studied(project)
    expect(Math.min(...before.forms.map((f) => f.base))).toBeCloseTo(3.5, 9)
    const volume = before.totals.volume
    for (const gone of [third, second]) project = apply(project, removeLevel(project, scheme(), gone?.id ?? ''))
    const after = studied(project)
    expect([...new Set(after.forms.map((f) => f.base))]).toEqual([3.5])
    expect(after.totals.volume).toBeCloseTo(volume, 2)
  })
  it('a material that goes leaves its strips in turn with what is left', () => {
    const project = striped()
    const [material] = Object.values(project.materials).filter((m) => m.name === 'Ruled two')
    const left = apply(project, removeMaterial(project, material?.id ?? ''))
    const faces = studied(left).forms.flatMap((f) => Object.values(studied(left).scheme.masses[f.id]?.faces ?? {}))
    expect(faces).toHaveLength(54)
    expect(new Set(faces).size).toBe(1)
  })
  it('in a duplicated scheme it grows by itself; undone after another has worked on it, both keep what they meant', () => {
    const project = ruled('cluster', 31, 3.5)
    const copy = mint()
    const copied = apply(project, duplicateScheme(project, schemeOf(project), copy))
    const [a, b] = [copied.schemes[schemeOf(project).id], copied.schemes[copy]]
    const inset = (s: typeof a) => Object.values(s?.dials ?? {}).find((d) => d.name === 'inset')?.id ?? ''
    const changed = applyEdit(copied, { edit: 'dial.change', scheme: b?.id ?? '', id: inset(b), set: { value: 0.8 } })
    expect(studyScheme(changed.project, a?.id ?? '').totals.area).toBeCloseTo(16434.96, 3)
    expect(studyScheme(changed.project, b?.id ?? '').totals.area).toBeCloseTo(27996.78, 2)
    // Another one switches a step off meanwhile.
    const rule = only(changed.project)
    const other = applyEdit(
      changed.project,
      withStep(changed.project.schemes[b?.id ?? ''] as typeof a & object, rule.id, rule.steps.at(-1)?.id ?? '', {
        on: false,
      }),
    )
    const back = applyEdit(other.project, changed.inverse)
    expect(studyScheme(back.project, b?.id ?? '').totals.area).toBeCloseTo(16434.96, 3)
    expect(Object.values(back.project.schemes[b?.id ?? '']?.rules ?? {})[0]?.steps.at(-1)?.on).toBe(false)
  })
})

describe('what a rule grows', () => {
  it('is written to every format, has findings of its own, and is lifted, named and left out by key', async () => {
    const project = striped(9, 'alike', 3)
    const study = studied(project)
    for (const { id, write } of FORMATS) {
      const text = await write(study, '2026-01-01T00:00:00Z')
      expect(text.length, id).toBeGreaterThan(50)
    }
    const rule = only(project)
    const scheme = () => schemeOf(project)
    let changed = apply(project, ownOfRule(scheme(), rule.id, '1-1', { name: 'Gate', up: 3.5 }))
    changed = apply(changed, leaveOutOfRule(schemeOf(changed), rule.id, '2-1', true))
    const after = studied(changed)
    expect(after.forms).toHaveLength(5)
    expect(after.forms.find((f) => f.name === 'Gate')?.base).toBe(3.5)
    expect(after.totals.area).toBeCloseTo(88.36 * (5 * 3 - 1), 4)
    const back = apply(
      changed,
      ownOfRule(schemeOf(changed), rule.id, '1-1', { name: undefined, up: undefined } as never),
    )
    expect(only(back).own).toEqual({})
  })
})
