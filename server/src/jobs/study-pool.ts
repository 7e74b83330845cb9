import { Worker } from 'node:worker_threads'
import { Refusal, type AssetBytes, type Project, type ProjectPackage, type RefusalCode } from '@geotome/core/project'

export type Ask =
  | { task: 'total'; project: Project }
  | { task: 'export'; project: Project; scheme: string | null; format: string; stamp: string; assets: AssetBytes }
  | { task: 'read'; bytes: Uint8Array }
/** What the list of projects shows of one. */
export interface ListFigures {
  area: number
  site: number | null
  sketch: string
}
export type Result = ListFigures | string | Uint8Array | ProjectPackage
export interface StudyQuestion {
  id: number
  ask: Ask
}
export interface StudyAnswer {
  id: number
  result?: Result
  failure?: { message: string; code: RefusalCode | null }
}

/** One worker thread that runs studies in turn; started when first asked, started anew when it dies. */
export class StudyPool {
  private worker: Worker | null = null
  private closed = false
  private next = 1
  private readonly waiting = new Map<number, { resolve: (r: Result) => void; reject: (e: Error) => void }>()

  total(project: Project): Promise<ListFigures> {
    return this.ask({ task: 'total', project }) as Promise<ListFigures>
  }
  export(
    project: Project,
    scheme: string | null,
    format: string,
    assets: AssetBytes = {},
  ): Promise<string | Uint8Array> {
    return this.ask({ task: 'export', project, scheme, format, stamp: new Date().toISOString(), assets }) as Promise<
      string | Uint8Array
    >
  }

  /** A project file, unpacked and checked. Errors: 'file'. */
  read(bytes: Uint8Array): Promise<ProjectPackage> {
    return this.ask({ task: 'read', bytes }) as Promise<ProjectPackage>
  }

  async close(): Promise<void> {
    this.closed = true
    await this.worker?.terminate()
  }

  private ask(ask: Ask): Promise<Result> {
    if (this.closed) return Promise.reject(new Error('The server is ending.'))
    const id = this.next++
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject })
      this.thread().postMessage({ id, ask } satisfies StudyQuestion)
    })
  }

  private thread(): Worker {
    if (this.worker) return this.worker
    const worker = new Worker(new URL('./study-thread.mjs', import.meta.url), {
      resourceLimits: { maxOldGenerationSizeMb: 2000 },
    })
    worker.on('message', (a: StudyAnswer) => {
      const wait = this.waiting.get(a.id)
      this.waiting.delete(a.id)
      if (a.failure)
        wait?.reject(a.failure.code ? new Refusal(a.failure.code, a.failure.message, '') : new Error(a.failure.message))
      else wait?.resolve(a.result ?? '')
    })
    const died = (e: Error) => {
      if (this.worker === worker) this.worker = null
      for (const wait of this.waiting.values()) wait.reject(e)
      this.waiting.clear()
    }
    worker.on('error', died)
    worker.on('exit', () => died(new Error('The computation ended early.')))
    worker.unref()
    return (this.worker = worker)
  }
}
