import { randomUUID } from 'node:crypto'
import type { DataSource } from 'typeorm'
import type { AssetBytes } from '@geotome/core/project'
import { CheckpointRow } from '../db/entities'
import { ThreadPool, type PoolKind } from '../threads/pool'
import type { Acknowledged, EditsSince, LogAsk, LogThreadTold, ProjectBytes } from './asks'

/** bytes from which a project, or what is sent, is work for the threads that may take long */
const HEAVY = { project: 1024 * 1024, body: 128 * 1024 }
/** so many projects whose size is known */
const KNOWN = 1000
/** s */
const SECONDS = { light: 30, heavy: 120 }

/**
 * The log, as the request loop sees it: a thread that answers at once for most projects, and two for what is large. However large an edit or a project
 * is, others are not kept waiting by it, and the request loop only passes bytes on.
 */
export class LogThreads {
  private readonly light: ThreadPool<LogAsk>
  private readonly heavy: ThreadPool<LogAsk>
  /** bytes of projects, as far as they are known */
  private readonly sizes = new Map<string, number>()
  constructor(
    private readonly source: DataSource,
    url: string,
    /** hears of projects that have gone on */
    private readonly changed: (projectId: string) => void,
  ) {
    this.light = new ThreadPool(kind({ url, connections: 6, heads: 20 }, { threads: 1, atOnce: 12, ofEach: 4 }))
    this.heavy = new ThreadPool(kind({ url, connections: 2, heads: 4 }, { threads: 2, atOnce: 1, ofEach: 1 }))
  }

  /** A new project, given as bytes of its JSON, under an id of its own; with the assets that it shows. */
  async create(project: Uint8Array, assets: AssetBytes = {}, id: string = randomUUID()): Promise<string> {
    await this.ask({ task: 'create', id, project, assets }, id, 'Storing the project', {
      bytes: project.byteLength,
      move: [project, ...Object.values(assets)],
    })
    this.changed(id)
    return id
  }

  /** Errors: 'unknown-id'. */
  async duplicate(of: string): Promise<{ id: string; name: string }> {
    // Each waits for the one before it, with a connection in hand: so never many at once.
    const copy = await this.askHeavy<{ id: string; name: string }>({ task: 'duplicate', of, id: randomUUID() }, of)
    this.changed(copy.id)
    return copy
  }

  /** Stores an edit, given as the bytes of the request. Errors: 'edit', 'size', and those of the edit. */
  async append(id: string, body: Uint8Array): Promise<Acknowledged> {
    const bytes = body.byteLength
    const done = await this.ask<Acknowledged>({ task: 'append', id, body }, id, 'The edit', { bytes, move: [body] })
    const known = this.sizes.get(id)
    if (known !== undefined) this.know(id, known + bytes)
    this.changed(id)
    return done
  }

  async step(
    id: string,
    how: { author: string; step: string; which: 'undo' | 'redo'; pass: boolean },
  ): Promise<Acknowledged> {
    const done = await this.ask<Acknowledged>({ task: 'step', id, ...how }, id, `The ${how.which}`)
    this.changed(id)
    return done
  }

  /** What a window opens with, as the bytes of its JSON. */
  open(id: string, author: string): Promise<Uint8Array> {
    return this.ask({ task: 'open', id, author }, id, 'Opening the project')
  }

  /** The project as it was at a moment of its log, as the bytes of its JSON. */
  at(id: string, seq: number): Promise<Uint8Array> {
    return this.ask({ task: 'at', id, seq }, id, 'Going back to that moment')
  }

  /** The project as it is now, or was at a moment of its log, for those who compute. */
  project(id: string, at: number | null = null, withAssets = false): Promise<ProjectBytes> {
    return this.ask({ task: 'project', id, at, withAssets }, id, 'Reading the project')
  }

  since(id: string, seq: number, as: 'list' | 'events'): Promise<EditsSince> {
    return this.ask({ task: 'since', id, seq, as }, id, 'Reading the log')
  }

  putAsset(asker: string, bytes: Uint8Array): Promise<{ hash: string; type: string; bytes: number }> {
    return this.askHeavy({ task: 'put-asset', bytes }, asker, [bytes])
  }

  /** Frees assets that nothing shows; gives how many. */
  freeAssets(): Promise<number> {
    return this.askHeavy({ task: 'free-assets' }, 'assets')
  }

  async close(): Promise<void> {
    await Promise.all([this.light.close(), this.heavy.close()])
  }

  private async ask<Result>(
    ask: LogAsk,
    project: string,
    what: string,
    { bytes = 0, move = [] as Uint8Array[] } = {},
  ): Promise<Result> {
    const isHeavy = bytes > HEAVY.body || (await this.sizeOf(project)) > HEAVY.project
    const [pool, seconds] = isHeavy ? [this.heavy, SECONDS.heavy] : [this.light, SECONDS.light]
    return pool.ask<Result>(ask, { project, what, seconds, move })
  }

  private askHeavy<Result>(ask: LogAsk, project: string, move: Uint8Array[] = []): Promise<Result> {
    return this.heavy.ask<Result>(ask, { project, what: 'Storing it', seconds: SECONDS.heavy, move })
  }

  /** The bytes of a project, by its newest checkpoint. */
  private async sizeOf(id: string): Promise<number> {
    const known = this.sizes.get(id)
    if (known !== undefined) return known
    const newest = await this.source.manager
      .createQueryBuilder(CheckpointRow, 'c')
      .select('LENGTH(c.data)', 'bytes')
      .where('c.projectId = :id', { id })
      .orderBy('c.seq', 'DESC')
      .limit(1)
      .getRawOne<{ bytes: number }>()
    // One that is not there yet, or never will be, is looked for again.
    if (!newest) return 0
    return this.know(id, Number(newest.bytes))
  }

  private know(id: string, bytes: number): number {
    this.sizes.delete(id)
    this.sizes.set(id, bytes)
    for (const oldest of this.sizes.keys()) {
      if (this.sizes.size <= KNOWN) break
      this.sizes.delete(oldest)
    }
    return bytes
  }
}

const kind = (told: LogThreadTold, shares: Pick<PoolKind, 'threads' | 'atOnce' | 'ofEach'>): PoolKind => ({
  script: new URL('./log-thread.mjs', import.meta.url),
  told,
  memory: 1500,
  // What is being stored is stored, whoever has gone.
  canEnd: false,
  ...shares,
})
