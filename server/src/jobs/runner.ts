import type { DataSource } from 'typeorm'
import type { Logger } from 'pino'
import { Refusal } from '@geotome/core/project'
import { JobRow, ProjectRow } from '../db/entities'
import type { LogThreads } from '../log/log-threads'
import type { StudyPool } from './study-pool'

/** Takes jobs off the table, two at a time, so that one that is long keeps no other; any number of servers may do so at once (SKIP LOCKED). */
export class JobRunner {
  private timer: NodeJS.Timeout | null = null
  private stopped = false
  private running: Promise<unknown> = Promise.resolve()
  constructor(
    private readonly source: DataSource,
    private readonly log: LogThreads,
    private readonly pool: StudyPool,
    private readonly logger: Logger,
  ) {}

  start(): void {
    this.timer = setTimeout(() => {
      this.running = Promise.all(Array.from({ length: AT_ONCE }, () => this.drain()))
        .catch((e: unknown) => this.logger.error(e, 'a job failed'))
        .finally(() => {
          if (!this.stopped) this.start()
        })
    }, 400)
  }

  async stop(): Promise<void> {
    this.stopped = true
    if (this.timer) clearTimeout(this.timer)
    await this.running
  }

  private async drain(): Promise<void> {
    while (!this.stopped && (await this.one()));
  }

  /**
   * Claims the next job by putting it off: should this process die, another takes it up when the lease is over. An edit that
   * asks again meanwhile sets the time anew, and the job stays.
   */
  private async one(): Promise<boolean> {
    const lease = new Date(Date.now() + LEASE)
    const job = await this.source.transaction(async (manager) => {
      const next = await manager
        .createQueryBuilder(JobRow, 'j')
        .setLock('pessimistic_write')
        .setOnLocked('skip_locked')
        .where('j.runAfter <= :now', { now: new Date() })
        .orderBy('j.id')
        .limit(1)
        .getOne()
      if (next) await manager.update(JobRow, { id: next.id }, { runAfter: lease })
      return next
    })
    if (!job) return false
    await this.total(job.projectId).catch((e: unknown) => {
      // A project that was removed meanwhile, or cannot be studied, keeps its last total.
      if (!(e instanceof Refusal)) throw e
      this.logger.warn({ project: job.projectId, say: e.message }, 'no total')
    })
    await this.source.manager.delete(JobRow, { id: job.id, runAfter: lease })
    return true
  }

  private async total(projectId: string): Promise<void> {
    const { seq, project } = await this.log.project(projectId)
    const { area, site, sketch } = await this.pool.total(projectId, project)
    const figures = { totalArea: area, totalSeq: seq, siteArea: site, sketch }
    await this.source.manager.update(ProjectRow, { id: projectId }, figures)
  }
}

/** ms that a claimed job is left to its process */
const LEASE = 240_000
/** so many jobs at one time: of the three threads of studies one is left for those who wait */
const AT_ONCE = 2
