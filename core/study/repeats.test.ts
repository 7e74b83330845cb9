import { beforeAll, describe, expect, it } from 'vitest'
import { changeRepeat, detachRepeated, dragRepeat, leaveOut, newRepeat, ownHeight, ownMoves, ownUse } from '../form'
import { applyEdit } from '../edits'
import { FORMATS } from '../exchange'
import { duplicateScheme } from '../groundwork'
import { openKernel } from '../solid'
import type { Project } from '../project'
import { pointsOfText, type Repeat } from '../repeats'
import {
  apply,
  changeMass,
  converted,
  massNamed,
  minter,
  projectWith,
  schemeOf,
  studied,
  withMass,
} from '../testing/make'
import { StudyCache, studyScheme } from './index'

beforeAll(() => openKernel())

const mint = minter('rep')
const heights = (n: number, each = 3) => Array.from({ length: n }, (_, i) => i * each)
/** A block of 4 x 3 x 3 at 20, 0, on storeys of 3 m, repeated in some way. */
const repeated = (storeys: number, way: Repeat['way']['way'], set: Partial<Repeat>, up = false): Project => {
  const plain = withMass(projectWith(heights(storeys), mint), { name: 'Bay', height: 3, box: [20, 0, 4, 3] })
  const added = newRepeat(plain, schemeOf(plain), mint, [massNamed(plain, 'Bay').id], way, up)
  return apply(plain, added, changeRepeat(schemeOf(apply(plain, added)), added.thing.id, set))
}
const only = (project: Project): Repeat => Object.values(schemeOf(project).repeats)[0] as Repeat
const area = (project: Project) => studied(project).totals.area

describe('a repeat', () => {
  it('along a line, in a grid, round a centre: its bodies are like drawn ones, and share one solid', () => {
    const line = studied(repeated(1, 'line', { way: { way: 'line', count: 5, apart: 6, direction: 30 } }))
    expect(line.forms).toHaveLength(5)
    expect(line.totals.area).toBeCloseTo(5 * 12, 6)
    expect(new Set(line.forms.map((f) => f.body)).size).toBe(1)
    const [a, b] = line.forms
    expect(Math.hypot((b?.at.x ?? 0) - (a?.at.x ?? 0), (b?.at.y ?? 0) - (a?.at.y ?? 0))).toBeCloseTo(6, 8)
    const grid = repeated(1, 'grid', {
      way: { way: 'grid', columns: 4, rows: 3, apart: 6, between: 5, direction: -20 },
    })
    expect(area(grid)).toBeCloseTo(12 * 12, 6)
    const round = studied(repeated(1, 'round', { way: { way: 'round', count: 14, x: 0, y: 0, turn: null } }))
    expect(round.totals.area).toBeCloseTo(14 * 12, 5)
    // All lie as far from the centre, each turned with it.
    for (const f of round.forms) expect(Math.hypot(f.at.x, f.at.y)).toBeCloseTo(20, 8)
  })
  it('the last of a row has a use of its own, whichever it is; points are read from a table', () => {
    const line = { way: 'line' as const, count: 4, apart: 6, direction: 0 }
    const base = repeated(2, 'line', { way: line, up: { storeys: null, high: 'drawn', shift: 0 } }, true)
    const other = Object.keys(base.uses)[1] ?? ''
    const project = apply(base, ownUse(schemeOf(base), only(base).id, 'last', other))
    const last = (p: Project) => {
      const { growth, forms } = studied(p)
      return forms.flatMap((f) => (f.use === other ? [growth.from.get(f.id)?.key.split('-')[0]] : []))
    }
    expect(last(project)).toEqual(['4', '4'])
    const [key = ''] = [...studied(project).growth.from.values()].filter((f) => f.key.startsWith('2')).map((f) => f.key)
    const higher = apply(project, ownHeight(schemeOf(project), only(project).id, key, 6))
    const heightOf = (p: Project) =>
      studied(p).forms.flatMap((f) => (studied(p).growth.from.get(f.id)?.key === key ? [f.top - f.base] : []))
    expect([heightOf(project), heightOf(higher)]).toEqual([[3], [6]])
    const back = apply(higher, ownHeight(schemeOf(higher), only(higher).id, key, null))
    expect([heightOf(back), only(back).own]).toEqual([[3], { last: { use: other } }])
    // Moves of its own, behind those of the original: a taper to half makes a third and a quarter of it less.
    const taper = { id: 'own', move: 'taper' as const, on: true, by: { kind: 'scale', scale: 0.5 } }
    const tapered = apply(project, ownMoves(schemeOf(project), only(project).id, key, [taper as never]))
    const volumeOf = (p: Project) =>
      studied(p).forms.flatMap((f) => (studied(p).growth.from.get(f.id)?.key === key ? [f.body.volume] : []))
    expect([volumeOf(project)[0], volumeOf(tapered)[0]]).toEqual([36, expect.closeTo(21, 6)])
    expect(only(apply(tapered, ownMoves(schemeOf(tapered), only(tapered).id, key, []))).own).toEqual({
      last: { use: other },
    })
    const longer = changeRepeat(schemeOf(project), only(project).id, { way: { ...line, count: 7 } })
    expect(last(apply(project, longer))).toEqual(['7', '7'])
    expect(pointsOfText('name,east,north\nA,1.5,-2\nB,3,4e1,9\n\n')).toEqual([1.5, -2, 3, 40])
    expect(pointsOfText('east;north\n1,5;2,25\n')).toEqual([1.5, 2.25])
    expect(() => pointsOfText('nothing here')).toThrow(/no line with two numbers.*a line each/)
  })
  it('one of them dragged sets how far apart they stand, so that it comes to where it is let go; elsewhere all are moved', () => {
    const by = [3.3, -1.7] as const
    const dragged = (project: Project, key: string) => {
      const at = (p: Project) => {
        const { growth, forms } = studied(p)
        const one = forms.find((f) => growth.from.get(f.id)?.key === key)
        return [one?.at.x ?? NaN, one?.at.y ?? NaN] as const
      }
      const [x, y] = at(project)
      const after = apply(project, dragRepeat(project, schemeOf(project), only(project).id, key, by))
      const [px, py] = at(after)
      expect(Math.hypot(px - x - by[0], py - y - by[1])).toBeLessThan(1e-6)
      const original = (p: Project) => studied(p).forms.find((f) => f.name === 'Bay')?.at.x ?? NaN
      return original(after) - original(project)
    }
    const line = repeated(1, 'line', { way: { way: 'line', count: 5, apart: 6, direction: 30 } })
    expect(dragged(line, '4')).toBeCloseTo(0, 9)
    const grid = { way: 'grid' as const, columns: 4, rows: 3, apart: 6, between: 5, direction: -20 }
    expect(dragged(repeated(1, 'grid', { way: grid }), '3-2')).toBeCloseTo(0, 9)
    for (const way of ['round', 'path', 'points'] as const)
      expect(dragged(repeated(1, way, {}), '2')).toBeCloseTo(by[0], 9)
  })
  it('on every second of 14 places, the next storey turned by one, on 11 storeys: 77; one detached: 76 change', () => {
    const way = { way: 'round' as const, count: 14, x: 0, y: 0, turn: null }
    let project = repeated(11, 'round', { way, every: 2, up: { storeys: null, high: 'drawn', shift: 1 } })
    const study = studied(project)
    expect(study.forms).toHaveLength(77)
    expect(study.totals.area).toBeCloseTo(77 * 12, 4)
    for (const floor of study.floors) expect(floor.plates).toHaveLength(7)
    const other = [...study.growth.from.values()][10]
    if (!other) throw new Error('none')
    project = apply(project, detachRepeated(schemeOf(project), study.growth, mint, other.id, other.key))
    expect(studied(project).forms).toHaveLength(77)
    // The original changed once: all change but the detached one.
    project = changeMass(project, 'Bay', {
      recipe: massNamed(project, 'Bay').recipe.map((m) => (m.move === 'raise' ? { ...m, height: 2 } : m)),
    })
    expect(studied(project).forms.filter((f) => Math.abs(f.body.volume - 24) < 1e-6)).toHaveLength(76)
  })
  it('15 places: every second cannot close, and what can is said', () => {
    const way = { way: 'round' as const, count: 15, x: 0, y: 0, turn: null }
    const { findings } = studied(repeated(1, 'round', { way, every: 2 }))
    expect(findings.map((f) => `${f.say} ${f.remedy}`).join()).toMatch(
      /Every second of the 15 .* cannot close.*Every third, or every 5th closes/,
    )
  })
  it('up the storeys follows the list of levels, as drawn or as high as each storey', () => {
    const tall = repeated(4, 'once', { up: { storeys: null, high: 'storey', shift: 0 } }, true)
    const scheme = schemeOf(tall)
    expect(studied(tall).forms.map((f) => f.top - f.base)).toEqual([3, 3, 3, 3])
    const moved = apply(tall, {
      edit: 'level.change',
      scheme: scheme.id,
      id: 'L2',
      set: { tie: { kind: 'stacked', on: 'L1', above: 4.5 } },
    })
    const tops = studied(moved).forms.map((f) => [f.base, f.top])
    expect(tops).toEqual([
      [0, 3],
      [3, 7.5],
      [7.5, 10.5],
      [10.5, 13.5],
    ])
  })
  it('keeps its exceptions by key, whatever becomes of the count: left out, and another use', () => {
    const way = (count: number) => ({ way: 'line' as const, count, apart: 6, direction: 0 })
    let project = repeated(1, 'line', { way: way(6) })
    const id = only(project).id
    const other = Object.values(project.uses)[1]?.id ?? ''
    project = apply(project, leaveOut(schemeOf(project), id, '3', true))
    project = apply(project, ownUse(schemeOf(project), id, '5', other))
    for (const [count, forms] of [
      [6, 5],
      [4, 3],
      [9, 8],
    ] as const) {
      const now = studied(apply(project, changeRepeat(schemeOf(project), id, { way: way(count) })))
      expect(now.forms).toHaveLength(forms)
      expect(now.forms.filter((f) => f.use === other)).toHaveLength(count >= 5 ? 1 : 0)
    }
    expect(studied(apply(project, leaveOut(schemeOf(project), id, '3', false))).forms).toHaveLength(6)
  })
  it('frozen, its bodies are masses of their own where they stood, and nothing else changes', () => {
    const project = repeated(2, 'grid', {
      way: { way: 'grid', columns: 3, rows: 2, apart: 6, between: 5, direction: 15 },
    })
    const before = studied(project)
    const frozen = apply(project, detachRepeated(schemeOf(project), before.growth, mint, only(project).id, null))
    expect(Object.keys(schemeOf(frozen).repeats)).toEqual([])
    const after = studied(frozen)
    expect(after.totals.area).toBeCloseTo(before.totals.area, 9)
    const places = (s: typeof after) => s.forms.map((f) => `${f.at.x} ${f.at.y} ${f.at.turn}`).sort()
    expect(places(after)).toEqual(places(before))
  })
  it('says what is wrong, and all else goes on: its mass gone, too many, a count that is none', () => {
    const project = repeated(1, 'line', {})
    const gone = apply(project, { edit: 'mass.remove', scheme: schemeOf(project).id, id: massNamed(project, 'Bay').id })
    expect(
      studied(gone)
        .findings.map((f) => f.say)
        .join(),
    ).toMatch(/is not there any more/)
    const many = repeated(1, 'grid', {
      way: { way: 'grid', columns: 100, rows: 100, apart: 6, between: 5, direction: 0 },
    })
    expect(studied(many).forms).toHaveLength(1)
    expect(
      studied(many)
        .findings.map((f) => f.say)
        .join(),
    ).toMatch(/would make 9999 bodies/)
    expect(() => repeated(1, 'line', { way: { way: 'line', count: 2.5, apart: 6, direction: 0 } })).toThrow(
      /whole number/,
    )
  })
  it('is the same by a study that goes on from earlier ones', () => {
    const cache = new StudyCache()
    let project = repeated(3, 'round', { way: { way: 'round', count: 6, x: 0, y: 0, turn: null } })
    for (const count of [6, 9, 4, 6]) {
      project = apply(
        project,
        changeRepeat(schemeOf(project), only(project).id, { way: { way: 'round', count, x: 0, y: 0, turn: null } }),
      )
      const [on, fresh] = [cache, new StudyCache()].map((c) => studyScheme(project, schemeOf(project).id, c))
      expect(on?.totals).toEqual(fresh?.totals)
      expect(on?.forms.map((f) => f.id)).toEqual(fresh?.forms.map((f) => f.id))
    }
  })
  it('has fabric like drawn masses: it is proposed for all, stays bonded when the original changes, and goes into files', async () => {
    const way = (count: number) => ({ way: 'line' as const, count, apart: 9, direction: 25 })
    let project = converted(repeated(1, 'line', { way: way(4) }))
    const parts = Object.values(schemeOf(project).parts)
    expect(parts.filter((p) => p.kind === 'wall')).toHaveLength(16)
    const states = (p: Project) => studied(p).parts.map((part) => part.bond.status)
    expect(new Set(states(project))).toEqual(new Set(['bonded']))
    // The original moves: all go along, and so does what stands on them.
    project = changeMass(project, 'Bay', { place: { x: 25, y: 3, turn: 12 } })
    expect(studied(project).parts.filter((p) => p.bond.status === 'loose')).toEqual([])
    // One fewer: what stood on it is loose, and nothing else.
    const fewer = apply(project, changeRepeat(schemeOf(project), only(project).id, { way: way(3) }))
    const loose = studied(fewer).parts.filter((p) => p.bond.status === 'loose')
    expect(loose.length).toBe(parts.length / 4)
    for (const { id, write } of FORMATS) {
      const content = await write(studied(project), '2026-01-01T00:00:00Z')
      expect(content.length, id).toBeGreaterThan(50)
    }
  })
  it('in a duplicated scheme is changed there only; taken back, what somebody else has done since stays', () => {
    const way = (count: number) => ({ way: 'line' as const, count, apart: 6, direction: 15 })
    const project = repeated(1, 'line', { way: way(5) })
    const [own, id] = [schemeOf(project), only(project).id]
    const two = apply(project, duplicateScheme(project, own, 'copy', 'Copy'))
    const copy = two.schemes.copy
    if (!copy) throw new Error('no copy')
    const changed = apply(two, changeRepeat(copy, id, { way: way(9) }))
    const forms = (scheme: string) => studyScheme(changed, scheme, new StudyCache()).forms.length
    expect([forms(own.id), forms('copy')]).toEqual([5, 9])
    // One sets the count, another leaves one out, the first takes the count back.
    const first = applyEdit(project, changeRepeat(own, id, { way: way(8) }))
    const second = apply(first.project, leaveOut(schemeOf(first.project), id, '2', true))
    const back = apply(second, first.inverse)
    expect(only(back).out).toEqual(['2'])
    expect(studied(back).forms).toHaveLength(4)
  })
})

describe('what projects', () => {
  it('gives no floor and no volume to the totals, and is listed apart; it covers the site only where it is told to', () => {
    const way = { way: 'round' as const, count: 14, x: 0, y: 0, turn: null }
    const canopies = repeated(11, 'round', { way, every: 2, up: { storeys: null, high: 'drawn', shift: 1 } })
    const body = withMass(canopies, { name: 'Lookout', height: 33, circle: [0, 0, 8] })
    const plain = studied(withMass(projectWith(heights(11)), { name: 'Lookout', height: 33, circle: [0, 0, 8] }))
    const apart = studied(changeMass(body, 'Bay', { projecting: 'apart' }))
    expect(apart.totals.area).toBeCloseTo(plain.totals.area, 6)
    expect(apart.totals.volume).toBeCloseTo(plain.totals.volume, 6)
    expect(apart.totals.footprint).toBeCloseTo(plain.totals.footprint, 6)
    expect(apart.totals.projecting?.count).toBe(77)
    expect(apart.totals.projecting?.area).toBeCloseTo(77 * 12, 4)
    expect(apart.totals.projecting?.volume).toBeCloseTo(77 * 36, 4)
    const covers = studied(changeMass(body, 'Bay', { projecting: 'covers' }))
    expect(covers.totals.footprint).toBeGreaterThan(plain.totals.footprint + 100)
    expect(covers.totals.area).toBeCloseTo(plain.totals.area, 6)
  })
})
