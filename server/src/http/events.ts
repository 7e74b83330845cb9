import type { Request, Response } from 'express'
import type { EditsSince } from '../log/asks'

interface Listener {
  projectId: string
  seq: number
  response: Response
  busy: boolean
  again: boolean
}

/** Where the streams read: edits as the text of events, and how far projects have come (null: taken away). */
export interface EventSource {
  since(projectId: string, seq: number): Promise<EditsSince>
  reached(projectIds: string[]): Promise<Map<string, number | null>>
}

/** bytes that may wait for a window to read them before more is sent to it */
const MOST_WAITING = 256 * 1024
/** ms in which a window must have read them; else it is dropped, and fetches what it missed when it comes again */
const PATIENCE = 20_000
/** ms between two looks for what other processes have written */
const LOOK = 700

/**
 * Server-sent events: every window hears of the edits to its project, in order, fed from the table of edits, and that it was taken away. This
 * process's own edits are sent at once, those of other processes at the next look.
 */
export class EventStreams {
  private readonly listeners = new Set<Listener>()
  private timer: NodeJS.Timeout | null = null
  private looking = false
  constructor(
    private readonly log: EventSource,
    private readonly patience = PATIENCE,
  ) {}

  open(request: Request, response: Response, projectId: string, seq: number): void {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-cache, no-transform',
      connection: 'keep-alive',
      'x-accel-buffering': 'no',
    })
    response.write('retry: 1000\n\n')
    const listener: Listener = { projectId, seq, response, busy: false, again: false }
    this.listeners.add(listener)
    request.on('close', () => this.listeners.delete(listener))
    void this.feed(listener)
    this.timer ??= setInterval(() => void this.look(), LOOK)
  }

  /** An edit was stored by this process, or the project was taken away. */
  changed(projectId: string): void {
    for (const l of this.listeners) if (l.projectId === projectId) void this.feed(l)
  }

  close(): void {
    if (this.timer) clearInterval(this.timer)
    for (const l of this.listeners) l.response.end()
    this.listeners.clear()
  }

  /** One question for all windows: which of their projects have gone on. */
  private async look(): Promise<void> {
    if (this.looking || this.listeners.size === 0) return
    this.looking = true
    try {
      const reached = await this.log.reached([...new Set([...this.listeners].map((l) => l.projectId))])
      for (const l of this.listeners) {
        const seq = reached.get(l.projectId)
        if (seq === null || (seq !== undefined && seq > l.seq)) void this.feed(l)
      }
    } catch {
      // The database is away: the next look asks again.
    } finally {
      this.looking = false
    }
  }

  private async feed(listener: Listener): Promise<void> {
    if (listener.busy) {
      listener.again = true
      return
    }
    listener.busy = true
    try {
      do {
        listener.again = false
        await this.sendNew(listener)
      } while (listener.again && this.listeners.has(listener))
    } catch {
      this.drop(listener)
    } finally {
      listener.busy = false
    }
  }

  private async sendNew(listener: Listener): Promise<void> {
    const { projectId, response } = listener
    for (;;) {
      const { text, seq, count } = await this.log.since(projectId, listener.seq)
      if (count === 0) break
      response.write(text)
      listener.seq = seq
      if (response.writableLength > MOST_WAITING && !(await hasRead(response, this.patience))) {
        // Ended at once: an answer that is ended in order would wait for what nobody reads.
        response.destroy()
        this.listeners.delete(listener)
        return
      }
    }
    if ((await this.log.reached([projectId])).get(projectId) !== null) return
    response.write('event: gone\ndata: {}\n\n')
    this.drop(listener)
  }

  private drop(listener: Listener): void {
    listener.response.end()
    this.listeners.delete(listener)
  }
}

/** Ends with true when the window has read what was sent to it, with false when it is gone or has not read for so long (ms). */
function hasRead(response: Response, patience: number): Promise<boolean> {
  return new Promise((done) => {
    const end = (read: boolean) => {
      clearTimeout(timer)
      response.off('drain', onDrain).off('close', onClose)
      done(read)
    }
    const onDrain = () => end(true)
    const onClose = () => end(false)
    const timer = setTimeout(() => end(false), patience)
    response.on('drain', onDrain).on('close', onClose)
    if (!response.writableNeedDrain) end(!response.destroyed)
  })
}
