import type { Request, Response } from 'express'
import type { EditLog } from '../log/log'

interface Listener {
  projectId: string
  seq: number
  response: Response
  busy: boolean
  again: boolean
}

/**
 * Server-sent events: every window hears of the edits to its project, in order, fed from the table of edits. This process's own
 * edits are sent at once, those of other processes at the next look.
 */
export class EventStreams {
  private readonly listeners = new Set<Listener>()
  private timer: NodeJS.Timeout | null = null
  constructor(private readonly log: () => EditLog) {}

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
    request.on('close', () => {
      this.listeners.delete(listener)
    })
    void this.feed(listener)
    this.timer ??= setInterval(() => {
      for (const l of this.listeners) void this.feed(l)
    }, 700)
  }

  changed(projectId: string): void {
    for (const l of this.listeners) if (l.projectId === projectId) void this.feed(l)
  }

  close(): void {
    if (this.timer) clearInterval(this.timer)
    for (const l of this.listeners) l.response.end()
    this.listeners.clear()
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
        for (const edit of await this.log().since(listener.projectId, listener.seq)) {
          listener.response.write(`id: ${edit.seq}\nevent: edit\ndata: ${JSON.stringify(edit)}\n\n`)
          listener.seq = edit.seq
        }
      } while (listener.again)
    } catch {
      listener.response.end()
      this.listeners.delete(listener)
    } finally {
      listener.busy = false
    }
  }
}
