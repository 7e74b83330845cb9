import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel } from '../solid'
import { apply, massNamed, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { inOrder, readProjectFile, Refusal, writeProjectText, type Project } from './index'

beforeAll(() => openKernel())

/** A house on two levels with a brief, a changed plate, a use of its own on a storey and a share of cores. */
function whole(): Project {
  let p = withMass(projectWith([0, 3]), { name: 'House', height: 6, box: [0, 0, 20, 12] })
  const [homes, studios] = inOrder(p.uses)
  const house = massNamed(p, 'House').id
  p = apply(
    p,
    { edit: 'use.change', id: homes?.id ?? '', set: { cores: 0.1, efficiency: 0.8 } },
    {
      edit: 'brief-line.add',
      thing: {
        id: 'line',
        name: 'homes',
        order: 0,
        of: { kind: 'use', use: homes?.id ?? '', measure: 'gross' },
        bound: 'about',
        target: 400,
        tolerance: 0.05,
      },
    },
    {
      edit: 'plate-edit.add',
      scheme: schemeOf(p).id,
      thing: { id: 'change', order: 0, mass: house, levels: ['L0'], does: { kind: 'inset', by: 1 } },
    },
    {
      edit: 'mass.change',
      scheme: schemeOf(p).id,
      id: house,
      set: { storeyUses: [{ id: 'other', use: studios?.id ?? '', from: 'L0', to: 'L0' }] },
    },
  )
  return p
}

type Loose = Record<string, unknown>
/** What stands at a path; '*' is the one there that has most in it. */
const inside = (project: Loose, ...path: string[]): Loose =>
  path.reduce<Loose>((at, key) => {
    const all = Object.values(at) as Loose[]
    return key === '*'
      ? all.reduce((a, b) => (JSON.stringify(b).length > JSON.stringify(a).length ? b : a))
      : (at[key] as Loose)
  }, project)

const DAMAGE: [what: string, sentence: RegExp, damage: (project: Loose) => void][] = [
  ['a share over 100 %', /brief line "[^"]+", tolerance/, (p) => (inside(p, 'brief', 'line').tolerance = 1.2)],
  ['a target that is no number', /brief line "[^"]+", target/, (p) => (inside(p, 'brief', 'line').target = 'many')],
  ['a bound that is none', /brief line "[^"]+", bound/, (p) => (inside(p, 'brief', 'line').bound = 'exactly')],
  ['a use that is not there', /homes/, (p) => (inside(p, 'brief', 'line', 'of').use = 'gone')],
  [
    'two lines for one use',
    /homes/,
    (p) => (inside(p, 'brief').twin = { ...inside(p, 'brief', 'line'), id: 'twin', order: 1 }),
  ],
  ['cores below zero', /cores/, (p) => (inside(p, 'uses', '*').cores = -0.1)],
  ['more net than there is', /efficiency/, (p) => (inside(p, 'uses', '*').efficiency = 1.4)],
  ['a changed plate on no level', /levels/, (p) => (inside(p, 'schemes', '*', 'plateEdits', 'change').levels = [])],
  [
    'an outline of two corners',
    /points/,
    (p) =>
      (inside(p, 'schemes', '*', 'plateEdits', 'change').does = {
        kind: 'leave-out',
        within: {
          kind: 'outline',
          points: [
            [0, 0],
            [1, 0],
          ],
        },
      }),
  ],
  [
    'a storey of a use that is not there',
    /House/,
    (p) => (inside(p, 'schemes', '*', 'masses', '*').storeyUses = [{ id: 'other', use: 'gone', from: 'L0', to: 'L0' }]),
  ],
  ['a mass that gives something else', /gives/, (p) => (inside(p, 'schemes', '*', 'masses', '*').gives = 'light')],
]

describe('what areas are told by, damaged in a file', () => {
  const read = (project: unknown) =>
    readProjectFile(
      new TextEncoder().encode(JSON.stringify({ ...(JSON.parse(writeProjectText(whole())) as object), project })),
    )
  const stored = () => (JSON.parse(writeProjectText(whole())) as { project: Loose }).project
  it('comes back whole while nothing is damaged', () => {
    expect(writeProjectText(read(stored()))).toBe(writeProjectText(whole()))
  })
  it.each(DAMAGE)('%s is refused by its place', (_, sentence, damage) => {
    const project = stored()
    damage(project)
    expect(() => read(project)).toThrow(Refusal)
    expect(() => read(project)).toThrow(sentence)
  })
  it('a changed plate whose mass is gone is read, and is a finding with its remedy', () => {
    const project = stored()
    inside(project, 'schemes', '*', 'plateEdits', 'change').mass = 'gone'
    const found = studied(read(project)).findings.filter((f) => f.kind === 'change of a plate without its place')
    expect(found.map((f) => f.fix?.label)).toEqual(['Take the change back'])
  })
})
