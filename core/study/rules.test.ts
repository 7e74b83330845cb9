import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { duplicateScheme } from '../groundwork'
import { changeRule, freezeRule, growAgain, newRule, newStep, removeMaterial, withStep } from '../form'
import { addParts, partsFrom, propose, USUAL } from '../fabric'
import { levelHeights, removeLevel } from '../levels'
import { areaOf, openKernel } from '../solid'
import { ruleRun, type Project } from '../project'
import type { Rule, Step } from '../rules'
import { studyScheme } from './index'
import { apply, choicesOf, minter, projectWith, schemeOf, studied } from '../testing/make'

beforeAll(() => openKernel())

const mint = minter('rule')
const heights = (n: number, each: number) => Array.from({ length: n }, (_, i) => i * each)

/** A ready rule on storeys, about a point. */
function ruled(ready: string, storeys: number, each: number, at: [number, number] = [0, 0]): Project {
  const plain = projectWith(heights(storeys, each), mint)
  const scheme = schemeOf(plain)
  const [level] = levelHeights(plain, scheme)
  return apply(
    plain,
    newRule(plain, scheme, mint, { use: Object.keys(plain.uses)[0] as string, level: level?.id ?? '', at }, ready),
  )
}
const only = (project: Project): Rule => Object.values(schemeOf(project).rules)[0] as Rule
function withDial(project: Project, name: string, value: number): Project {
  const dial = Object.values(schemeOf(project).dials).find((d) => d.name === name)
  return apply(project, { edit: 'dial.change', scheme: schemeOf(project).id, id: dial?.id ?? '', set: { value } })
}
const stepOf = (project: Project, step: Step['step']) => only(project).steps.find((s) => s.step === step) as Step
const withTurn = (project: Project, turn: number, x = 0, y = 0) =>
  apply(project, changeRule(schemeOf(project), only(project).id, { place: { x, y, turn } }))

describe('the tower cluster', () => {
  for (const [turn, x, y] of [
    [0, 0, 0],
    [37.3, 0, 0],
    [-114.6, 32456789.25, 5534321.5],
  ] as const)
    it(`stands on six cells, twisted between 21 and 91, turned by ${turn}`, () => {
      const study = studied(withTurn(ruled('cluster', 31, 3.5), turn, x, y))
      expect(study.findings.filter((f) => f.kind.includes('rule'))).toEqual([])
      expect(study.forms).toHaveLength(6)
      expect(study.totals.area).toBeCloseTo(16434.96, 3)
      expect(new Set(study.forms.map((f) => f.body)).size).toBe(2)
      for (const floor of study.floors) {
        expect(floor.area).toBeCloseTo(6 * 88.36, 5)
        expect(floor.plates).toHaveLength(6)
      }
    })
  it('has plates about (-14|0|14, -7|7), turned by their height, every other one the other way', () => {
    const study = studied(ruled('cluster', 31, 3.5))
    const key = (id: string) => study.growth.from.get(id)?.key ?? ''
    for (const [z, turn] of [
      [0, 0],
      [21, 0],
      [42, 21.6],
      [63, 43.2],
      [91, 72],
      [105, 72],
    ] as const)
      for (const form of study.forms) {
        const [column, row] = key(form.id).split('-').map(Number) as [number, number]
        const sense = (column + row) % 2 === 0 ? 1 : -1
        const [cx, cy] = [14 * (column - 2), 14 * row - 21]
        const region = study.context.plateAt(form, z)?.region ?? []
        expect(areaOf(region)).toBeCloseTo(88.36, 6)
        const corners = [45, 135, 225, 315].map((d) => {
          const a = ((d + sense * turn) * Math.PI) / 180
          return [cx + 4.7 * Math.SQRT2 * Math.cos(a), cy + 4.7 * Math.SQRT2 * Math.sin(a)] as const
        })
        for (const p of region[0] ?? [])
          expect(Math.min(...corners.map(([x, y]) => Math.hypot(x - p[0], y - p[1]))), `${z}`).toBeLessThan(1e-5)
      }
  })
  it('inset by 0.8 only, towers overlap from 31.5 on, counted once', () => {
    const study = studied(withDial(ruled('cluster', 31, 3.5), 'inset', 0.8))
    const summed = study.floors.map((f) => f.plates.reduce((sum, p) => sum + areaOf(p.region), 0))
    const twice = study.floors.map((f, i) => (summed[i] ?? 0) - f.area)
    expect(summed.reduce((a, b) => a + b, 0)).toBeCloseTo(28599.36, 3)
    expect(study.totals.area).toBeCloseTo(27996.78, 2)
    const by = new Map(study.floors.map((f, i) => [f.level.height, twice[i] ?? 0]))
    expect([...by].filter(([z, t]) => z < 31.4 && t > 1e-6)).toEqual([])
    expect(by.get(31.5)).toBeCloseTo(2.414, 3)
    expect(by.get(63)).toBeCloseTo(43.64, 3)
    expect(by.get(66.5)).toBeCloseTo(43.64, 3)
    expect(Math.max(...twice)).toBeCloseTo(43.64, 3)
  })
})

describe('a side by its meaning', () => {
  const front = (project: Project) => {
    const study = studied(project)
    const id = stepOf(project, 'side').id
    const run = ruleRun(project, schemeOf(project), only(project))
    return run.cells.map((cell) => {
      const [outer] = cell.plan
      const i = (outer ?? []).findIndex((c) => c.id === cell.sides[id])
      const at = (k: number) => outer?.[k % outer.length]?.at ?? [0, 0]
      const [p, q] = [at(i), at(i + 1)]
      return { ys: [cell.y + (p[1] ?? 0), cell.y + (q[1] ?? 0)], study }
    })
  }
  it('is the front of each, also after the twist, its sense or the counts have changed', () => {
    const inset = (project: Project) => {
      // The side is named before the inset: at the foot it lies 2.3 further in.
      const ys = front(project).flatMap((f) => f.ys.map((y) => Math.round((y + 2.3) * 1e6) / 1e6))
      return [...new Set(ys)].sort((a, b) => a - b)
    }
    const project = ruled('cluster', 31, 3.5)
    expect(inset(project)).toEqual([-11.7, 2.3])
    expect(inset(withDial(project, 'twist', 100))).toEqual([-11.7, 2.3])
    expect(inset(withDial(project, 'columns', 5))).toEqual([-11.7, 2.3])
    const drawn = {
      kind: 'polygon',
      corners: [
        [-21, -14],
        [-21, 14],
        [21, 14],
        [21, -14],
      ].map(([x, y], i) => ({ id: `q${i}`, x, y, bulge: 0 })),
    }
    const clockwise = apply(
      project,
      withStep(schemeOf(project), only(project).id, stepOf(project, 'plan').id, { shape: drawn }),
    )
    expect(inset(clockwise)).toEqual([-11.7, 2.3])
  })
  it('says how many it found, where these are others than before', () => {
    const project = ruled('cluster', 31, 3.5)
    const looked = apply(
      project,
      withStep(schemeOf(project), only(project).id, stepOf(project, 'side').id, { found: 6 }),
    )
    expect(studied(looked).findings.filter((f) => f.kind.includes('rule'))).toEqual([])
    const more = studied(withDial(looked, 'columns', 4)).findings.filter((f) => f.kind.includes('rule'))
    expect(more.map((f) => f.say)).toEqual([expect.stringContaining('8 now, and were 6')])
  })
})

/** The cluster with nine strips on the front of each, in two materials. */
function striped(count = 9, ends: 'any' | 'alike' = 'alike', storeys = 31): Project {
  let project = ruled('cluster', storeys, 3.5)
  const materials = ['Ruled one', 'Ruled two'].map((name, i) => ({
    id: mint(),
    name,
    order: i,
    colour: '#aa5533',
    opacity: 1,
  }))
  for (const thing of materials) project = apply(project, { edit: 'material.add', thing })
  const steps = [...only(project).steps]
  const at = steps.findIndex((s) => s.step === 'move' && s.move.move === 'raise')
  const strips = newStep('strips', mint, {
    side: stepOf(project, 'side').id,
    count,
    materials: materials.map((m) => m.id),
    ends,
  })
  steps.splice(at, 0, strips)
  return apply(project, changeRule(schemeOf(project), only(project).id, { steps }))
}

describe('strips of a named side', () => {
  it('nine on each of six: 30 of the first and 24 of the second, 1.0444 wide at the foot; they sum to the face', () => {
    const project = striped()
    const study = studied(project)
    const masses = study.forms.map((f) => study.scheme.masses[f.id])
    const used = masses.flatMap((m) => Object.values(m?.faces ?? {}))
    const [first, second] = [...new Set(used)]
    expect([used.length, used.filter((m) => m === first).length, used.filter((m) => m === second).length]).toEqual([
      54, 30, 24,
    ])
    for (const [i, form] of study.forms.entries()) {
      const faces = form.body.faces()
      const strips = faces.filter((f) => Object.keys(masses[i]?.faces ?? {}).includes(f.name))
      expect(strips).toHaveLength(9)
      // The divided face is not there a second time: nine strips, three sides, top and base.
      expect(faces).toHaveLength(9 + 3 + 2)
      for (const s of strips) {
        const foot = s.loops.flatMap((l) => l.points).filter((p) => Math.abs(p[2]) < 1e-9)
        const [a, b] = foot as [[number, number, number], [number, number, number]]
        expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeCloseTo(9.4 / 9, 6)
      }
    }
    expect(study.totals.area).toBeCloseTo(16434.96, 3)
  })
  it('one storey of a strip in the twisting zone is 65.3 to 65.6 mm off flat, below and above it 0', () => {
    const study = studied(striped())
    const id = study.forms[0]?.id ?? ''
    const names = new Set(Object.keys(study.scheme.masses[id]?.faces ?? {}))
    const { candidates } = propose(study.context, [id], { ...USUAL, bent: 'facets' })
    const walls = candidates.filter((c) => names.has(c.part.host.face) && c.part.base)
    const off = (c: (typeof walls)[number]) => c.warp ?? 0
    const height = (c: (typeof walls)[number]) => study.context.heights.get(c.part.base?.level ?? '') ?? -1
    const twisting = walls.filter((c) => height(c) > 20.9 && height(c) < 90.9)
    expect([walls.length, twisting.length]).toEqual([9 * 31, 9 * 20])
    expect(Math.min(...twisting.map(off))).toBeGreaterThan(0.0653)
    expect(Math.max(...twisting.map(off))).toBeLessThan(0.0656)
    expect(Math.max(...walls.filter((w) => !twisting.includes(w)).map(off))).toBeLessThan(1e-9)
  })
  it('an even number cannot have both ends alike, and says what can', () => {
    expect(() => striped(8)).toThrow(/8 strips in 2 materials in turn cannot have both ends alike.*Take 7 or 9/)
    expect(() => striped(8, 'any')).not.toThrow()
  })
})

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
