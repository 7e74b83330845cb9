import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Edit } from '@geotome/core/edits'
import { blankProject, type Project, type Scheme } from '@geotome/core/project'
import { Problem, type Api, type LoggedEdit } from './api'
import { createSession } from './create-session'
import type { PendingEdit } from './project-slice'
import { createAppStore } from './store'
import { noteTriedWell, wasTriedWell } from './tried-well'

/** A session on a server that answers as it is told, beside any browser. */
function onServer(left: PendingEdit[] = []) {
  const project = blankProject(() => crypto.randomUUID(), 'Quay', 'm', null)
  const log: LoggedEdit[] = []
  const said: string[] = []
  const steps: string[] = []
  const kept = new Map(left.map((e) => [e.id, e]))
  let server: 'well' | 'slow' | 'away' | 'refuses' = 'well'
  const store = createAppStore()
  const history = { undo: null, redo: null }
  const api = {
    open: async () => ({ project, seq: 0, history }),
    edit: async (_: string, { id, label, edit }: { id: string; label: string; edit: Edit }) => {
      if (server === 'slow') await new Promise((done) => setTimeout(done, 20))
      if (server === 'away') throw new Problem('The server could not be reached.', 0)
      if (server === 'refuses') throw new Problem('It no longer fits.', 409)
      log.push({ seq: log.length + 1, id, author: 'a', label, kind: 'edit', edit, at: '2026-01-05T09:00:00.000Z' })
      return { history, seq: log.length }
    },
    step: async (_: string, which: string) => {
      await Promise.resolve()
      if (server === 'away') throw new Problem('The server could not be reached.', 0)
      steps.push(which)
      return { history: { undo: 'the one before', redo: null }, seq: log.length, label: '' }
    },
    since: async (_: string, seq: number) => log.slice(seq),
  } as unknown as Api
  const session = createSession({
    api,
    store,
    isChecked: wasTriedWell,
    author: () => 'a',
    say: (text) => void said.push(text),
    outbox: {
      keep: (_, __, edit) => void kept.set(edit.id, edit),
      forget: async (id) => void kept.delete(id),
      leftOf: async () => [...kept.values()].map((e) => ({ ...e, author: 'a' })),
      waiting: async () => new Map(),
      keepsEdits: () => true,
    },
    stream: () => ({ addEventListener: () => {}, close: () => {}, readyState: 1 }) as unknown as EventSource,
  })
  return { session, store, log, said, steps, kept, serverIs: (now: typeof server) => (server = now) }
}

/** A session at a server that was well for `before`, and is away since `made` was made. The clock stands still between what is waited for. */
async function atAway(made: string, before: string[] = []) {
  vi.useFakeTimers()
  const s = onServer()
  await s.session.openProject('p')
  for (const name of before) s.session.makeEdit(name, named(name))
  await s.session.settled()
  s.serverIs('away')
  s.session.makeEdit(made, named(made))
  await vi.advanceTimersByTimeAsync(100)
  const isBack = async () => {
    s.serverIs('well')
    await vi.advanceTimersByTimeAsync(1500)
  }
  return { ...s, isBack }
}

const named = (name: string): Edit => ({ edit: 'project.change', set: { name } })
const nameOf = (s: ReturnType<typeof onServer>) => s.store.getState().project.confirmed?.name

describe('a session', () => {
  afterEach(() => void vi.useRealTimers())
  it('shows an edit at once, and sends edits one after the other in their order', async () => {
    const s = onServer()
    await s.session.openProject('p')
    for (const name of ['A', 'B', 'C']) expect(s.session.makeEdit(name, named(name))).toBe(true)
    expect(s.store.getState().project.pending).toHaveLength(3)
    await s.session.settled()
    expect(s.log.map((e) => e.label)).toEqual(['A', 'B', 'C'])
    expect(nameOf(s)).toBe('C')
    expect(s.kept.size).toBe(0)
    expect(s.session.wouldLose()).toBe(false)
  })
  it('does not check anew what was tried and could be made; all else it does', async () => {
    const s = onServer()
    await s.session.openProject('p')
    const project = s.store.getState().project.confirmed as Project
    // Two schemes of one name cannot be made: only that nobody checks shows that it is not checked.
    const [scheme] = Object.values(project.schemes)
    const twin = (id: string): Edit => ({ edit: 'scheme.add', thing: { ...scheme, id } as Scheme })
    expect(s.session.makeEdit('twin', twin('b'))).toBe(false)
    noteTriedWell(project, twin('b'))
    expect(s.session.makeEdit('twin', twin('c'))).toBe(false)
    expect(s.session.makeEdit('twin', twin('b'))).toBe(true)
    // Of another project, or after it, it is another matter.
    expect(s.session.makeEdit('twin', twin('b'))).toBe(false)
    expect(s.said).toHaveLength(3)
  })
  it('keeps what the server did not get, says that it is away, and sends it when it is back', async () => {
    const s = await atAway('A')
    await vi.advanceTimersByTimeAsync(2400)
    expect(s.store.getState().project.saved.state).toBe('away')
    expect([...s.kept.values()].map((e) => e.label)).toEqual(['A'])
    await s.isBack()
    expect(s.log).toHaveLength(1)
    expect(s.kept.size).toBe(0)
  })
  it('keeps what the server refuses, says what it was and why, and makes it anew when it is told to', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.serverIs('refuses')
    s.session.makeEdit('A', named('A'))
    await s.session.settled()
    const why = 'It no longer fits.'
    expect(s.said).toEqual([`Not stored: A ("Quay": "A"). ${why}`.replace('("Quay"', '(The name of "Quay"')])
    const { pending, refused, saved } = s.store.getState().project
    expect([pending, nameOf(s), saved.state]).toEqual([[], 'Quay', 'saved'])
    expect(refused).toMatchObject([{ label: 'A', value: 'The name of "Quay": "A"', why }])
    // It is kept in the browser too, and is not sent by itself when the project is opened again.
    expect([...s.kept.values()]).toMatchObject([{ label: 'A', why }])
    await s.session.openProject('p')
    expect(s.store.getState().project.refused).toHaveLength(1)
    s.serverIs('well')
    await s.session.settled()
    expect(s.log).toEqual([])
    s.session.tryAgain(refused[0]?.id ?? '')
    await s.session.settled()
    expect([nameOf(s), s.store.getState().project.refused, s.kept.size]).toEqual(['A', [], 0])
  })
  it('says at once that the server is back where it refuses what was kept for it', async () => {
    const s = await atAway('A')
    expect(s.store.getState().project.saved.state).toBe('away')
    s.serverIs('refuses')
    await vi.advanceTimersByTimeAsync(1500)
    expect(s.store.getState().project.saved.state).toBe('saved')
    expect(s.said.at(-1)).toBe('The server is back. Not stored: A (The name of "Quay": "A"). It no longer fits.')
  })
  it('says that the network is gone before anything is made', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.session.online(false)
    expect(s.store.getState().project.saved.state).toBe('away')
  })
  it('makes nothing of what changes nothing: no edit, nothing to take back, no trace of what was tried', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.session.tryEdit(() => named('Quay'))
    expect(s.session.makeEdit('same name', named('Quay'))).toBe(true)
    const { pending, preview, history } = s.store.getState().project
    expect([pending, preview, history.undo]).toEqual([[], null, null])
    await s.session.settled()
    expect(s.log).toEqual([])
  })
  it('asks before the page is left while something is being taken back', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.session.makeEdit('A', named('A'))
    const back = s.session.stepBack('undo')
    expect(s.session.wouldLose()).toBe(true)
    await back
    expect([s.steps, s.session.wouldLose()]).toEqual([['undo'], false])
  })
  it('a project that is left while the server is away keeps what was made, and says so', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.serverIs('away')
    s.session.makeEdit('A', named('A'))
    s.session.closeProject()
    await vi.waitFor(() => expect(s.said).toEqual([expect.stringMatching(/kept here, and sent when it is back/)]))
    expect([...s.kept.values()].map((e) => e.label)).toEqual(['A'])
  })
  it('says when nothing could be taken back, and leaves the page free to go', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.serverIs('away')
    await s.session.stepBack('undo')
    expect([s.said, s.steps, s.session.wouldLose()]).toEqual([['The server could not be reached.'], [], false])
  })
  it('takes back nothing else where what was to be taken back was refused', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.session.makeEdit('A', named('A'))
    await s.session.settled()
    s.serverIs('refuses')
    s.session.makeEdit('B', named('B'))
    await s.session.stepBack('undo')
    expect([s.steps, nameOf(s)]).toEqual([[], 'A'])
    s.serverIs('well')
    await s.session.stepBack('undo')
    expect(s.steps).toEqual(['undo'])
  })
  it('takes back what is not stored yet when the server is back, and says that it waits', async () => {
    const s = await atAway('A')
    const back = s.session.stepBack('undo')
    expect(s.said).toEqual(['The server is away. Undo follows when it is back.'])
    await s.isBack()
    await back
    expect([s.log.map((e) => e.label), s.steps]).toEqual([['A'], ['undo']])
  })
  it('takes back nothing else where the project is left before what was to be taken back is stored, and says so', async () => {
    const s = await atAway('B', ['A'])
    const back = s.session.stepBack('undo')
    s.session.closeProject()
    await vi.advanceTimersByTimeAsync(500)
    await s.isBack()
    await back
    expect([s.log.map((e) => e.label), s.steps]).toEqual([['A'], []])
    expect(s.said.at(-1)).toBe('Not undone: B. The project was left before it was stored.')
  })
  it('takes back the last of several that were on their way when the project is left', async () => {
    const s = onServer()
    await s.session.openProject('p')
    s.serverIs('slow')
    for (const name of ['A', 'B']) s.session.makeEdit(name, named(name))
    const back = s.session.stepBack('undo')
    s.session.closeProject()
    await back
    expect([[...new Set(s.log.map((e) => e.label))], s.steps]).toEqual([['A', 'B'], ['undo']])
  })
  it('what was taken back in a project that was left says nothing of the one that is open', async () => {
    const s = onServer()
    await s.session.openProject('p')
    const back = s.session.stepBack('undo')
    await s.session.openProject('q')
    await back
    expect([s.steps, s.store.getState().project.history.undo]).toEqual([['undo'], null])
  })
  it('takes up what an earlier window left unsent', async () => {
    const s = onServer([{ id: crypto.randomUUID(), label: 'left', edit: named('Left') }])
    await s.session.openProject('p')
    await s.session.settled()
    expect(s.log.map((e) => e.label)).toEqual(['left'])
    expect(nameOf(s)).toBe('Left')
  })
  it('two sessions know nothing of one another', async () => {
    const [a, b] = [onServer(), onServer()]
    await Promise.all([a.session.openProject('a'), b.session.openProject('b')])
    a.session.makeEdit('A', named('A'))
    await a.session.settled()
    expect([nameOf(a), nameOf(b)]).toEqual(['A', 'Quay'])
  })
})
