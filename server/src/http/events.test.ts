import type { Request, Response } from 'express'
import { EventEmitter } from 'node:events'
import { expect, it } from 'vitest'
import { EventStreams, type EventSource } from './events'

/** A window that reads what it is sent, or does not. */
class Window extends EventEmitter {
  destroyed = false
  writableLength = 0
  most = 0
  readonly heard: string[] = []
  constructor(private readonly isReading: boolean) {
    super()
  }
  get writableNeedDrain() {
    return this.writableLength > 16_000
  }
  writeHead() {}
  end() {}
  write(text: Uint8Array | string) {
    this.writableLength += text.length
    this.most = Math.max(this.most, this.writableLength)
    this.heard.push(String(text).slice(0, 20))
    if (this.isReading)
      setTimeout(() => {
        this.writableLength = 0
        this.emit('drain')
      })
  }
  destroy() {
    this.destroyed = true
  }
}

const EDITS = 400
const log: EventSource = {
  since: (_, seq) =>
    Promise.resolve({ text: Buffer.from(`id: ${seq}`.padEnd(100_000)), seq: seq + 1, count: seq < EDITS ? 1 : 0 }),
  reached: (ids) => Promise.resolve(new Map(ids.map((id) => [id, EDITS]))),
}

it.each([true, false])(
  'a window holds little of the server, whether it reads or not (reads: %s)',
  async (isReading) => {
    const streams = new EventStreams(log, 60)
    const response = new Window(isReading)
    streams.open(new EventEmitter() as unknown as Request, response as unknown as Response, 'p', 0)
    await expect
      .poll(() => (isReading ? response.heard.filter((h) => h.startsWith('id:')).length === EDITS : response.destroyed))
      .toBe(true)
    // 40 MB went by, or would have.
    expect(response.most).toBeLessThan(600_000)
    streams.close()
  },
)
