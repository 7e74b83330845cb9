import { beforeAll, describe, expect, it } from 'vitest'
import { applyEdit } from '../edits'
import { detach, newMass } from '../form'
import { duplicateScheme } from '../groundwork'
import type { Move } from '../moves'
import { apply, projectWith, schemeOf as firstOf } from '../testing/make'
import { openKernel, volumeOf } from '../solid'
import type { Mass, Project, Scheme } from '../project'
import { StudyCache, studyScheme } from './index'

beforeAll(() => openKernel())

let n = 0
const mint = () => `c${++n}`

/** Two blocks, 10 x 8 x 6, the second set off by 6 and 5, turned. */
function twoBlocks(turn = 0) {
  let project = projectWith([0, 3])
  const level = Object.values(firstOf(project).levels)[0]?.id ?? ''
  const use = Object.values(project.uses)[0]?.id ?? ''
  for (const [name, from, to] of [
    ['Bar', [0, 0], [10, 8]],
    ['Cutter', [6, 5], [16, 13]],
  ] as [string, [number, number], [number, number]][]) {
    const thing = {
      ...newMass(firstOf(project), mint, { name, use, level, height: 6, shape: { kind: 'rectangle', from, to } }),
      id: name,
    }
    if (name === 'Cutter') thing.place = { ...thing.place, turn }
    project = apply(project, { edit: 'mass.add', scheme: firstOf(project).id, thing })
  }
  return project
}
const change = (project: Project, id: string, to: (recipe: Move[]) => Move[]): Project => {
  const scheme = firstOf(project)
  return apply(project, {
    edit: 'mass.change',
    scheme: scheme.id,
    id,
    set: { recipe: to(scheme.masses[id]?.recipe ?? []) },
  })
}
const withCombine =
  (how: 'less' | 'join' | 'common' | 'under', mass = 'Cutter') =>
  (r: Move[]): Move[] => [...r, { id: `x-${how}`, move: 'combine', on: true, mass, how }]
const volume = (project: Project, id: string, cache = new StudyCache()) => {
  const form = studyScheme(project, firstOf(project).id, cache).forms.find((f) => f.id === id)
  return form ? volumeOf(form.body.solid) : NaN
}

describe('a mass that reads another', () => {
  it.each([
    ['less', 480 - 72],
    ['common', 72],
    ['join', 960 - 72],
  ] as const)('%s: both stay editable, and it follows the other until it is detached', (how, want) => {
    const project = change(twoBlocks(), 'Bar', withCombine(how))
    expect(volume(project, 'Bar')).toBeCloseTo(want, 6)
    expect(volume(project, 'Cutter')).toBeCloseTo(480, 6)
    // The other is raised to half: what is made of it follows.
    const lower = (p: Project) =>
      change(p, 'Cutter', (r) => r.map((m) => (m.move === 'raise' ? { ...m, height: 3 } : m)))
    const half = { less: 480 - 36, common: 36, join: 480 + 240 - 36 }[how]
    expect(volume(lower(project), 'Bar')).toBeCloseTo(half, 6)
    const scheme = firstOf(project)
    const apart = apply(project, detach(project, scheme, 'Bar', `x-${how}`))
    expect(volume(apart, 'Bar')).toBeCloseTo(want, 6)
    expect(volume(lower(apart), 'Bar')).toBeCloseTo(want, 6)
  })
  it('under: it is raised to the underside of the other, sloping or level, and follows it', () => {
    const bridge = (project: Project, above: number) =>
      apply(project, {
        edit: 'mass.change',
        scheme: firstOf(project).id,
        id: 'Cutter',
        set: { base: { ...(firstOf(project).masses.Cutter as Mass).base, above }, place: { x: -5, y: -5, turn: 0 } },
      })
    const wide = (project: Project, more: Move[]) =>
      change(project, 'Cutter', (r) => [
        ...r.map((m) =>
          m.move === 'outline' ? { ...m, shape: { kind: 'rectangle' as const, width: 30, depth: 30 } } : m,
        ),
        ...more,
      ])
    const under = (above: number, more: Move[] = []) =>
      volume(change(bridge(wide(twoBlocks(), more), above), 'Bar', withCombine('under')), 'Bar')
    expect(under(4)).toBeCloseTo(80 * 4, 6)
    expect(under(2.5)).toBeCloseTo(80 * 2.5, 6)
    expect(under(7)).toBeCloseTo(480, 6)
    // Its underside rises by 10 degrees to the north, from the level of its base at its south edge.
    const tan = Math.tan((10 * Math.PI) / 180)
    const slope: Move = { id: 'cut', move: 'cut', on: true, x: 0, y: 0, z: 0, direction: 0, rises: 10, keeps: 'above' }
    const want = [0, 8].map((y) => 1 + (y + 5) * tan)
    expect(under(1, [slope])).toBeCloseTo((80 * ((want[0] as number) + (want[1] as number))) / 2, 5)
    // Where the other covers a part of it only, the rest goes on up.
    expect(volume(change(twoBlocks(), 'Bar', withCombine('under')), 'Bar')).toBeCloseTo(480 - 72, 6)
  })
  it('goes by where both stand, turned too; the same study is taken again only while the other stays', () => {
    const turned = change(twoBlocks(30), 'Bar', withCombine('less'))
    const away = firstOf(turned)
    const moved = apply(turned, {
      edit: 'mass.change',
      scheme: away.id,
      id: 'Cutter',
      set: { place: { x: 100, y: 5, turn: 30 } },
    })
    const [shared, left] = [volume(change(twoBlocks(30), 'Bar', withCombine('common')), 'Bar'), volume(turned, 'Bar')]
    expect(shared + left).toBeCloseTo(480, 5)
    expect(volume(moved, 'Bar')).toBeCloseTo(480, 6)
  })
  it('in a duplicated scheme follows the other of its own scheme', () => {
    const project = change(twoBlocks(), 'Bar', withCombine('less'))
    const first = firstOf(project)
    const both = apply(project, duplicateScheme(project, first, 'copy'))
    const copy = both.schemes['copy'] as Scheme
    const place = { x: 100, y: 0, turn: 0 }
    const moved = apply(both, { edit: 'mass.change', scheme: 'copy', id: 'Cutter', set: { place } })
    const of = (scheme: string) => studyScheme(moved, scheme).forms.find((f) => f.id === 'Bar')?.body.volume
    expect(copy.masses['Bar']?.recipe.at(-1)).toMatchObject({ move: 'combine', mass: 'Cutter' })
    expect(of('copy')).toBeCloseTo(480, 6)
    expect(of(first.id)).toBeCloseTo(408, 6)
  })
  it('is taken back by one person when another has changed the same mass since, and nothing else with it', () => {
    const plain = twoBlocks()
    const { recipe } = firstOf(plain).masses['Bar'] as Mass
    const [raise] = recipe.filter((m) => m.move === 'raise')
    const scheme = firstOf(plain).id
    const roof: Move = { id: 'roof', move: 'hip', on: true, angle: 30, edges: [], breaks: null, upper: 20 }
    const made = applyEdit(plain, { edit: 'mass.change', scheme, id: 'Bar', set: { recipe: [...recipe, roof] } })
    const since = change(made.project, 'Bar', (r) =>
      r.map((m) => (m.id === raise?.id ? ({ ...m, height: 4 } as Move) : m)),
    )
    const back = applyEdit(since, made.inverse).project
    expect(firstOf(back).masses['Bar']?.recipe.map((m) => m.move)).toEqual(['outline', 'raise'])
    expect(volume(back, 'Bar')).toBeCloseTo(320, 6)
  })
  it('refuses a circle with its path, and says so where the other is gone', () => {
    const project = change(twoBlocks(), 'Bar', withCombine('less'))
    expect(() => change(project, 'Cutter', withCombine('join', 'Bar'))).toThrow(
      /circle: (Bar -> Cutter -> Bar|Cutter -> Bar -> Cutter)/,
    )
    expect(() => change(project, 'Bar', withCombine('common', 'Bar'))).toThrow(/circle: Bar -> Bar/)
    const gone = apply(project, { edit: 'mass.remove', scheme: firstOf(project).id, id: 'Cutter' })
    const study = studyScheme(gone, firstOf(gone).id)
    expect(study.forms[0]?.body.volume).toBeCloseTo(480, 6)
    expect(study.findings.map((f) => f.say).join()).toMatch(/left out: The mass that it reads is gone/)
  })
})
