import { describe, expect, it } from 'vitest'
import { blankProject } from '@geotome/core/project'
import type { Edit } from '@geotome/core/edits'
import {
  dropped,
  logged,
  made,
  opened,
  previewed,
  projectReducer,
  selectProject,
  selectReached,
  selectTried,
  serverAway,
} from './project-slice'

let n = 0
const project = blankProject(() => `id-${++n}`, 'School', 'm', 100)
const named = (name: string): Edit => ({ edit: 'project.change', set: { name } })
const entry = (seq: number, id: string, name: string) => ({
  seq,
  id,
  author: 'x',
  label: name,
  kind: 'edit' as const,
  edit: named(name),
  at: '2026-01-05T09:00:00.000Z',
})
type State = ReturnType<typeof projectReducer>
const start = (): State => projectReducer(undefined, opened({ project, seq: 4, history: { undo: null, redo: null } }))
const run = (...actions: Parameters<typeof projectReducer>[1][]): State =>
  actions.reduce<State>(projectReducer, start())
const seen = (state: State) => selectProject({ project: state, view: { scheme: null, shown: { trying: null } } })?.name

describe('a window', () => {
  it('shows its own edit at once, and keeps it pending until the log gives it back', () => {
    const own = run(made({ id: 'a', label: 'name', edit: named('Mine') }))
    expect(seen(own)).toBe('Mine')
    expect([own.pending.length, own.saved.state, own.confirmed?.name]).toEqual([1, 'saving', 'School'])
    const back = projectReducer(own, logged([entry(5, 'a', 'Mine')]))
    expect([back.pending.length, back.saved.state, back.confirmed?.name, back.seq]).toEqual([0, 'saved', 'Mine', 5])
  })
  it('follows another window, its own pending edit staying on top', () => {
    const state = run(made({ id: 'a', label: 'name', edit: named('Mine') }), logged([entry(5, 'other', 'Theirs')]))
    expect(state.confirmed?.name).toBe('Theirs')
    expect(seen(state)).toBe('Mine')
    expect(seen(projectReducer(state, logged([entry(6, 'a', 'Mine')])))).toBe('Mine')
  })
  it('has come farther when another edit comes in before its own, and no farther when its own is acknowledged', () => {
    const at = (state: State) => selectReached({ project: state })
    const own = run(made({ id: 'a', label: 'name', edit: named('Mine') }))
    const both = projectReducer(own, logged([entry(5, 'other', 'Theirs')]))
    expect(at(both)).not.toBe(at(own))
    expect(at(projectReducer(both, logged([entry(6, 'a', 'Mine')])))).toBe(at(both))
    expect(new Set([at(start()), at(own), at(projectReducer(own, dropped('a')))]).size).toBe(2)
  })
  it('takes each entry of the log once and in order, whatever comes twice or too early', () => {
    const state = run(
      logged([entry(5, 'p', 'Five'), entry(5, 'p', 'Five'), entry(7, 'r', 'Seven')]),
      logged([entry(6, 'q', 'Six'), entry(7, 'r', 'Seven')]),
    )
    expect([state.seq, state.confirmed?.name, state.log.map((e) => e.id)]).toEqual([7, 'Seven', ['p', 'q', 'r']])
  })
  it('drops an edit that the server refused, and nothing else', () => {
    const state = run(
      made({ id: 'a', label: 'name', edit: named('Mine') }),
      made({ id: 'b', label: 'site', edit: { edit: 'project.change', set: { siteArea: 7 } } }),
      dropped('a'),
    )
    expect(seen(state)).toBe('School')
    expect(selectProject({ project: state, view: { scheme: null, shown: { trying: null } } })?.siteArea).toBe(7)
  })
  it('leaves out a pending edit that no longer fits, until the server has said so', () => {
    const scheme = Object.keys(project.schemes)[0] ?? ''
    const gone: Edit = { edit: 'mass.remove', scheme, id: 'nobody' }
    expect(
      seen(run(made({ id: 'a', label: 'x', edit: gone }), made({ id: 'b', label: 'name', edit: named('After') }))),
    ).toBe('After')
  })
  it('tries a gesture without storing it', () => {
    const state = run(previewed(named('While dragging')))
    expect(selectTried({ project: state, view: { scheme: null, shown: { trying: null } } })?.name).toBe(
      'While dragging',
    )
    expect(seen(state)).toBe('School')
    expect(seen(projectReducer(state, previewed(null)))).toBe('School')
  })
  it('says that the server is away, and what is saved when it is back', () => {
    const away = run(made({ id: 'a', label: 'name', edit: named('Mine') }), serverAway(true))
    expect(away.saved.state).toBe('away')
    expect(projectReducer(away, serverAway(false)).saved.state).toBe('saving')
  })
})
