import { wrap, type Remote } from 'comlink'
import { onDeath } from './life'
import type { StudyWorker } from './protocol'
import { refusalsCross } from './refusals'

// What the page is asked by a worker (progress) never fails in a way that a person could do something about.
refusalsCross(['The page failed in an unforeseen way.', 'Reload it.'])

/** What waits for an answer of a worker that has died. */
export class WorkerDied extends Error {
  constructor() {
    super('The computation has died.')
  }
}

interface Living {
  remote: Remote<StudyWorker>
  /** what waits for answers: each is told when the worker dies */
  waiting: Set<(died: WorkerDied) => void>
}

const listeners = new Set<() => void>()
/** Called when the worker has died and another one, which knows nothing yet, has taken its place. */
export function onWorkerDied(listen: () => void): () => void {
  listeners.add(listen)
  return () => listeners.delete(listen)
}

const begun = new Set<(remote: Remote<StudyWorker>) => void>()
/** Called with every worker that is started, before anything else is asked of it. */
export function onWorkerBegun(listen: (remote: Remote<StudyWorker>) => void): void {
  begun.add(listen)
  if (living) listen(living.remote)
}

let living: Living | null = null

/** Starts the worker where it is not there yet: its first call finds it ready the sooner. */
export const warmWorker = (): Living => (living ??= start())

/** A new worker, and what becomes known when it dies. */
function start(): Living {
  const name = `study-${crypto.randomUUID()}`
  const worker = new Worker(new URL('./study-worker.ts', import.meta.url), { type: 'module', name })
  const remote = wrap<StudyWorker>(worker)
  for (const listen of begun) listen(remote)
  const waiting: Living['waiting'] = new Set()
  const died = () => {
    if (living?.remote !== remote) return
    worker.terminate()
    living = start()
    for (const tell of waiting) tell(new WorkerDied())
    for (const listen of listeners) listen()
  }
  worker.addEventListener('error', (event) => {
    // One that could not be loaded at all would be started again without end.
    console.error(event.message)
    if (event.message) died()
  })
  void remote.alive().then(() => onDeath(name, died))
  return { remote, waiting }
}

/** The one worker of this window; a call that it dies over is rejected with `WorkerDied`. */
export const studyWorker = new Proxy({} as Remote<StudyWorker>, {
  get:
    (_, name: keyof StudyWorker) =>
    (...args: unknown[]): Promise<unknown> => {
      const { remote, waiting } = warmWorker()
      // Not a race with one promise of its death: that would hold every answer for as long as the worker lives.
      return new Promise((resolve, reject) => {
        waiting.add(reject)
        ;(remote[name] as (...a: unknown[]) => Promise<unknown>)(...args)
          .then(resolve, reject)
          .finally(() => waiting.delete(reject))
      })
    },
})
