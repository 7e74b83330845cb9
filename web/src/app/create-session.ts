import { applyEdit, asMeant, madeAnew, sayEdit, type Edit } from '@geotome/core/edits'
import { Refusal, sayInUnits, type Project } from '@geotome/core/project'
import { Problem, type Api, type LoggedEdit } from './api'
import type { Outbox } from './outbox'
import {
  closed,
  dropped,
  historyRead,
  letRefusedGo,
  logged,
  made,
  opened,
  previewed,
  projectGone,
  refusedByServer,
  selectProject,
  serverAway,
  type PendingEdit,
} from './project-slice'
import type { AppStore } from './store'
import { left as leftProject, typed } from './view-slice'

/** What a session works with. */
export interface SessionParts {
  api: Api
  store: AppStore
  outbox: Outbox
  author: () => string
  /** a message to the person; with `act` a button that does something */
  say: (text: string, how: 'fault' | 'note', act?: { label: string; run: () => void }) => void
  /** the stream of the log's new edits */
  stream: (url: string) => EventSource
  /** whether just this edit of just this project was checked elsewhere */
  isChecked?: (project: Project, edit: Edit) => boolean
}

/**
 * One open project: sends this window's edits one after the other, follows the server's log, and says when the server is away.
 * An edit is applied here at once and stays pending until the log gives it back.
 */
export function createSession({ api, store, outbox, author, say, stream, isChecked }: SessionParts) {
  let projectId: string | null = null
  let events: EventSource | null = null
  let sending: Promise<void> | null = null
  /** counts what is opened and closed, so that a moment that comes late is not shown */
  let opening = 0
  /** steps back and forth that the server has not answered: they are kept nowhere else */
  let stepping = 0
  let isTyping = false
  /** edits of this window that the server has stored */
  const stored = new Set<string>()
  /** what was pending when a project was left, on its way */
  let leaving: Promise<void> = Promise.resolve()

  async function openProject(id: string, moment: number | null = null): Promise<void> {
    closeProject()
    if (moment !== null) {
      // A moment of the log is only looked at: nothing is sent, and nothing followed.
      const mine = ++opening
      const { project, seq } = await api.at(id, moment)
      if (mine !== opening) return
      store.dispatch(opened({ project, seq, history: { undo: null, redo: null }, moment }))
      return
    }
    projectId = id
    const { project, seq, history, total = null } = await api.open(id, author())
    if (projectId !== id) return
    store.dispatch(opened({ project, seq, history, total }))
    follow(id, seq)
    await takeUp(id)
  }

  /** What an earlier window left unsent goes on being sent, in order; the server stores an edit that comes twice once. */
  async function takeUp(id: string): Promise<void> {
    const kept = await outbox.leftOf(id)
    if (projectId !== id) return
    const project = selectProject(store.getState())
    for (const { id: editId, label, edit, why } of kept)
      if (why !== undefined)
        store.dispatch(
          refusedByServer({ id: editId, label, edit, why, value: project ? sayEdit(project, edit) : null }),
        )
    const left = kept.filter((e) => e.why === undefined)
    if (left.length === 0) return
    for (const { id: editId, label, edit } of left) store.dispatch(made({ id: editId, label, edit }))
    const [were, are] = left.length === 1 ? ['change that was', 'is'] : ['changes that were', 'are']
    say(`${left.length} ${were} not stored yet ${are} sent now.`, 'note')
    void send()
  }

  /** Sends what projects that are not open have left, so that nothing waits for them to be opened again. */
  async function sendLeftovers(): Promise<number> {
    let sent = 0
    for (const id of (await outbox.waiting()).keys()) {
      if (id === projectId) continue
      for (const edit of await outbox.leftOf(id)) {
        if (edit.why !== undefined) continue
        try {
          await api.edit(id, { id: edit.id, label: edit.label, edit: edit.edit, author: edit.author })
          sent++
        } catch (e) {
          if (!(e instanceof Problem) || e.away) return sent
          await outbox.forget(edit.id)
          outbox.keep(id, edit.author, { id: edit.id, label: edit.label, edit: edit.edit, why: e.message })
          continue
        }
        await outbox.forget(edit.id)
      }
    }
    return sent
  }

  function closeProject(): void {
    opening++
    // What is on its way goes on being sent; the server stores an edit that comes twice once.
    const [id, left] = [projectId, store.getState().project.pending]
    if (id && left.length)
      leaving = (async () => {
        for (const edit of left) {
          await api.edit(id, { ...edit, author: author() })
          stored.add(edit.id)
          await outbox.forget(edit.id)
        }
      })().catch((e: unknown) => {
        const isKept = e instanceof Problem && e.away && outbox.keepsEdits()
        if (isKept)
          say('The server does not answer. What is not stored yet is kept here, and sent when it is back.', 'note')
        else report(e)
      })
    events?.close()
    events = null
    projectId = null
    store.dispatch(closed())
    store.dispatch(leftProject())
  }

  /**
   * Makes an edit: checked here, or where it was tried, applied at once, then sent. A refusal is said and nothing changes; gives whether
   * all is now as it asks. One that changes nothing, as when something is dragged back or the same number is typed, leaves no trace.
   */
  function makeEdit(label: string, make: Edit | (() => Edit)): boolean {
    const project = selectProject(store.getState())
    if (!project) return false
    if (store.getState().project.moment !== null) {
      say('This is a moment of the past, and stays as it was. Go to the present to change something.', 'fault')
      store.dispatch(previewed(null))
      return false
    }
    try {
      const wanted = typeof make === 'function' ? make() : make
      const edit = asMeant(project, wanted)
      if (!edit) {
        store.dispatch(previewed(null))
        return true
      }
      if (!isChecked?.(project, wanted)) applyEdit(project, edit)
      const pending = { id: crypto.randomUUID(), label, edit }
      store.dispatch(made(pending))
      if (projectId) outbox.keep(projectId, author(), pending)
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      store.dispatch(previewed(null))
      say(sayInUnits(e.message, project), 'fault')
      return false
    }
    void send()
    return true
  }

  /**
   * Tries an edit while a gesture lasts. The worker checks it before it computes it; an edit that cannot be made leaves the last good
   * one standing. An edit that is typed is checked here too: half of a number can be any number, and the page draws it at once.
   */
  function tryEdit(make: (() => Edit) | null): void {
    if (!store.getState().project.confirmed) return
    try {
      const edit = make ? make() : null
      const project = selectProject(store.getState())
      if (isTyping && edit && project) applyEdit(project, edit)
      store.dispatch(typed(isTyping && edit !== null))
      store.dispatch(previewed(edit))
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
    }
  }

  /** Runs what a key in a field sets off: edits tried meanwhile are checked before they are shown. */
  function whileTyping(work: () => void): void {
    isTyping = true
    try {
      work()
    } finally {
      isTyping = false
    }
  }

  async function stepBack(which: 'undo' | 'redo', pass = false): Promise<void> {
    const id = projectId
    if (!id) return
    stepping++
    try {
      // Edits on their way come first: what is taken back must be in the log. One that did not get there is taken back by that.
      const { pending, saved } = store.getState().project
      const last = pending.at(-1)
      if (last && saved.state === 'away')
        say(`The server is away. ${which === 'undo' ? 'Undo' : 'Redo'} follows when it is back.`, 'note')
      if (last) {
        await send()
        await Promise.allSettled([leaving])
      }
      if (last && which === 'undo' && !stored.has(last.id)) {
        if (projectId !== id) say(`Not undone: ${last.label}. The project was left before it was stored.`, 'fault')
        return
      }
      const { history, seq } = await api.step(id, which, { id: crypto.randomUUID(), author: author(), pass })
      if (projectId === id) store.dispatch(historyRead(history))
      await catchUp(id, seq)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      // One that cannot be taken back must not stand in the way of those before it.
      const isBlocked = e.status === 409 && !pass && store.getState().project.history[which] !== null
      say(e.message, 'fault', isBlocked ? { label: 'Pass it over', run: () => void stepBack(which, true) } : undefined)
    } finally {
      stepping--
    }
  }

  /** Ends when every edit made here is in the log. */
  async function settled(): Promise<void> {
    if (store.getState().project.pending.length) await send()
  }

  /** Sends what is pending, in order; ends when all of it is acknowledged. */
  function send(): Promise<void> {
    sending ??= sendAll().finally(() => {
      sending = null
      // An edit made in the very moment in which the last one was done.
      if (projectId && store.getState().project.pending.length) void send()
    })
    return sending
  }

  async function sendAll(): Promise<void> {
    for (
      let next = store.getState().project.pending[0];
      next && projectId;
      next = store.getState().project.pending[0]
    ) {
      const id = projectId
      try {
        const { history, seq } = await api.edit(id, { ...next, author: author() })
        stored.add(next.id)
        if (projectId === id) store.dispatch(historyRead(history))
        void outbox.forget(next.id)
        await catchUp(id, seq)
        // One that was stored before this window was opened does not come by the log any more.
        if (store.getState().project.pending[0]?.id === next.id) store.dispatch(dropped(next.id))
      } catch (e) {
        if (e instanceof Problem && e.away) {
          store.dispatch(serverAway(true))
          await new Promise((done) => setTimeout(done, 1000))
          continue
        }
        if (!(e instanceof Problem)) {
          store.dispatch(dropped(next.id))
          void outbox.forget(next.id)
          throw e
        }
        refuse(id, next, e.message)
      }
    }
  }

  /** The server did not take an edit: it is said, with what it was to do, and kept to be tried again or let go. */
  function refuse(id: string, edit: PendingEdit, why: string): void {
    const { confirmed, saved } = store.getState().project
    const value = confirmed ? sayEdit(confirmed, edit.edit) : null
    store.dispatch(dropped(edit.id))
    void outbox.forget(edit.id).then(() => outbox.keep(id, author(), { ...edit, why }))
    if (projectId === id) store.dispatch(refusedByServer({ ...edit, why, value }))
    const back = saved.state === 'away' ? 'The server is back. ' : ''
    say(`${back}Not stored: ${edit.label}${value ? ` (${value})` : ''}. ${why}`, 'fault', {
      label: 'Try again',
      run: () => tryAgain(edit.id),
    })
  }

  /** Makes a refused edit anew, on what is there now. */
  function tryAgain(id: string): void {
    const edit = store.getState().project.refused.find((r) => r.id === id)
    const { confirmed } = store.getState().project
    if (edit && confirmed && makeEdit(edit.label, () => madeAnew(confirmed, edit.edit))) letGo(id)
  }

  /** A refused edit is not wanted any more. */
  function letGo(id: string): void {
    store.dispatch(letRefusedGo(id))
    void outbox.forget(id)
  }

  /** Sees to it that the log is here up to a sequence number, should the event stream be late. */
  async function catchUp(id: string, seq: number): Promise<void> {
    for (;;) {
      const have = store.getState().project.seq
      if (have >= seq || projectId !== id) return
      const missed = await api.since(id, have)
      if (missed.length === 0 || projectId !== id) return
      store.dispatch(logged(missed))
    }
  }

  function follow(id: string, seq: number): void {
    events?.close()
    events = stream(`/api/projects/${id}/events?since=${seq}`)
    events.addEventListener('edit', (event) => {
      if (projectId !== id) return
      const entry = JSON.parse((event as MessageEvent<string>).data) as LoggedEdit
      const have = store.getState().project.seq
      if (entry.seq === have + 1) store.dispatch(logged([entry]))
      else if (entry.seq > have + 1) void catchUp(id, entry.seq)
    })
    events.addEventListener('gone', () => {
      if (projectId !== id) return
      events?.close()
      store.dispatch(projectGone(true))
    })
    events.addEventListener('open', () => store.dispatch(serverAway(false)))
    events.addEventListener('error', () => {
      store.dispatch(serverAway(true))
      // A stream that the server ended for good is opened anew by hand.
      if (events?.readyState === EventSource.CLOSED)
        setTimeout(() => {
          if (projectId === id) {
            events?.close()
            follow(id, store.getState().project.seq)
          }
        }, 1500)
    })
  }

  function report(e: unknown): void {
    if (e instanceof Problem) say(e.message, 'fault')
    else throw e
  }

  return {
    openProject,
    closeProject,
    sendLeftovers,
    makeEdit,
    tryEdit,
    whileTyping,
    stepBack,
    settled,
    tryAgain,
    letGo,
    /** The browser has lost its network, or has it again: said without waiting for an edit that fails. */
    online(isOnline: boolean): void {
      if (!projectId) return
      if (!isOnline) store.dispatch(serverAway(true))
      else follow(projectId, store.getState().project.seq)
    },
    /** Brings back the project that somebody took away while it was open. */
    async bringBack(): Promise<void> {
      const id = projectId
      if (!id) return
      try {
        await api.restore(id)
        if (projectId !== id) return
        store.dispatch(projectGone(false))
        follow(id, store.getState().project.seq)
      } catch (e) {
        report(e)
      }
    },
    /** The window is not seen, or seen again: a stream is let go, or taken up. */
    seen(isSeen: boolean): void {
      if (!projectId) return
      if (isSeen) {
        follow(projectId, store.getState().project.seq)
        return
      }
      events?.close()
      events = null
    },
    /**
     * Whether leaving the page now would lose something: an undo under way, and what is not stored where the browser has no store of its
     * own for it.
     */
    wouldLose: () => stepping > 0 || (store.getState().project.pending.length > 0 && !outbox.keepsEdits()),
  }
}

export type Session = ReturnType<typeof createSession>
