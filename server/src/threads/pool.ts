import { Worker } from 'node:worker_threads'
import { Refusal } from '@geotome/core/project'
import { buffersOf } from './answering'
import { errorOf, type Answer, type Question } from './messages'
import { Turns, type Waiting } from './turns'

/** What a pool's threads are, and what each piece of work may take. */
export interface PoolKind {
  script: URL
  /** what each thread is told when it starts */
  told?: unknown
  threads: number
  /** pieces of work that a thread has in hand at one time */
  atOnce: number
  /** of them, those of one project */
  ofEach: number
  /** MB of a thread */
  memory: number
  /** whether work whose asker has gone is ended while it runs; what is being stored is not */
  canEnd: boolean
}

export interface Wish {
  /** whose turn it takes */
  project: string
  /** what the work is called where it takes too long or too much: "The export" */
  what: string
  /** s */
  seconds: number
  /** when the asker goes */
  gone?: AbortSignal | undefined
  /** bytes that move to the thread, and are not copied */
  move?: Uint8Array[]
}

interface Work<Ask> extends Waiting, Wish {
  id: number
  ask: Ask
  resolve: (result: unknown) => void
  reject: (e: Error) => void
  timer: NodeJS.Timeout | null
}

interface Thread<Ask> {
  worker: Worker
  inHand: Map<number, Work<Ask>>
}

/** ms that work whose asker has gone may still take: starting a thread anew takes as long */
const GRACE = 1500

/** Threads that share work: fair turns by project, a limit of time and memory for each piece, started when they are needed and anew when they die. */
export class ThreadPool<Ask> {
  private readonly threads: Thread<Ask>[] = []
  private readonly turns: Turns<Work<Ask>>
  private closed = false
  private next = 1
  constructor(private readonly kind: PoolKind) {
    this.turns = new Turns(kind.ofEach)
  }

  /** Errors: those of the work; 'size' where it takes longer or needs more memory than it may. */
  ask<Result>(ask: Ask, wish: Wish): Promise<Result> {
    if (this.closed) return Promise.reject(ending())
    if (wish.gone?.aborted) return Promise.reject(askerGone())
    return new Promise<Result>((resolve, reject) => {
      const work: Work<Ask> = {
        ...wish,
        id: this.next++,
        ask,
        resolve: resolve as (result: unknown) => void,
        reject,
        timer: null,
      }
      wish.gone?.addEventListener('abort', () => this.drop(work), { once: true })
      this.turns.add(work)
      this.go()
    })
  }

  /** Ends all threads at once; nothing is waited for. */
  async close(): Promise<void> {
    this.closed = true
    for (const work of this.turns.clear()) work.reject(ending())
    await Promise.all(this.threads.map((t) => t.worker.terminate()))
  }

  private go(): void {
    for (;;) {
      const thread = this.free()
      if (!thread) return
      const work = this.turns.next()
      if (!work) return
      this.start(thread === 'new' ? this.open() : thread, work)
    }
  }

  /** The thread with the least in hand; a new one rather than one that is busy, while there may be more. */
  private free(): Thread<Ask> | 'new' | null {
    const [least] = [...this.threads].sort((a, b) => a.inHand.size - b.inHand.size)
    if (least && least.inHand.size === 0) return least
    if (this.threads.length < this.kind.threads) return 'new'
    return least && least.inHand.size < this.kind.atOnce ? least : null
  }

  private start(thread: Thread<Ask>, work: Work<Ask>): void {
    thread.inHand.set(work.id, work)
    work.timer = setTimeout(() => this.endThread(thread, work, tooLong(work)), work.seconds * 1000)
    work.timer.unref()
    thread.worker.postMessage({ id: work.id, ask: work.ask } satisfies Question<Ask>, buffersOf(work.move ?? []))
  }

  private open(): Thread<Ask> {
    const worker = new Worker(this.kind.script, {
      workerData: this.kind.told,
      resourceLimits: { maxOldGenerationSizeMb: this.kind.memory },
    })
    const thread: Thread<Ask> = { worker, inHand: new Map() }
    worker.on('message', ({ id, result, failure }: Answer<unknown>) => {
      const work = thread.inHand.get(id)
      if (!work) return
      this.finish(thread, work)
      if (failure) work.reject(errorOf(failure))
      else work.resolve(result)
      this.go()
    })
    worker.on('error', (e) => this.died(thread, (work) => (isFull(e) ? tooMuch(work) : e)))
    worker.on('exit', () => this.died(thread, () => endedEarly()))
    worker.unref()
    this.threads.push(thread)
    return thread
  }

  private finish(thread: Thread<Ask>, work: Work<Ask>): void {
    thread.inHand.delete(work.id)
    if (work.timer) clearTimeout(work.timer)
    this.turns.ended(work)
  }

  private died(thread: Thread<Ask>, why: (work: Work<Ask>) => Error): void {
    const at = this.threads.indexOf(thread)
    if (at >= 0) this.threads.splice(at, 1)
    for (const work of [...thread.inHand.values()]) {
      this.finish(thread, work)
      work.reject(this.closed ? ending() : why(work))
    }
    if (!this.closed) this.go()
  }

  /** Ends a thread for the sake of one piece of its work; what else it had in hand is to be asked again. */
  private endThread(thread: Thread<Ask>, work: Work<Ask>, why: Error): void {
    if (!thread.inHand.has(work.id)) return
    this.finish(thread, work)
    work.reject(why)
    void thread.worker.terminate()
    this.died(thread, () => endedEarly())
  }

  /** The asker has gone: work that waits is dropped, work under way ends soon. */
  private drop(work: Work<Ask>): void {
    if (this.turns.drop(work)) {
      work.reject(askerGone())
      return
    }
    if (!this.kind.canEnd) return
    setTimeout(() => {
      const thread = this.threads.find((t) => t.inHand.has(work.id))
      if (thread) this.endThread(thread, work, askerGone())
    }, GRACE).unref()
  }
}

const isFull = (e: Error): boolean => (e as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY'
/** What is no fault of the work: it may be asked again. */
export const ASK_AGAIN = 'GEOTOME_ASK_AGAIN'
const ending = () => Object.assign(new Error('The server is ending.'), { code: ASK_AGAIN })
const endedEarly = () => Object.assign(new Error('The thread ended early.'), { code: ASK_AGAIN })
const askerGone = () => new Refusal('stale', 'Whoever asked for this has gone.', '')
const tooLong = ({ what, seconds }: Wish) =>
  new Refusal(
    'size',
    `${what} took longer than ${seconds} s and was ended.`,
    'Divide the project, or do it on the command line, which has no limit.',
  )
const tooMuch = ({ what }: Wish) =>
  new Refusal(
    'size',
    `${what} needs more memory than the server has for it, and was ended.`,
    'Divide the project, or do it on the command line.',
  )
