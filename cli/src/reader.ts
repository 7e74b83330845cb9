import { Worker } from 'node:worker_threads'
import { secondsFor, type Answers, type BodiesRead, type Placed } from '@geotome/core/exchange'
import {
  NO_LOCATION,
  Refusal,
  refuse,
  type ProjectPackage,
  type Location,
  type RefusalCode,
} from '@geotome/core/project'

/** What a reading thread is told, and what it answers. */
export interface Reading {
  what: keyof Results
  name: string
  bytes: Uint8Array
  together: boolean
  answers: Answers
  location: Location
}
export type ReadingAnswer =
  { ready: true } | { result: unknown } | { refused: { code: RefusalCode; say: string; remedy: string } }
interface Results {
  bodies: BodiesRead
  site: Placed
  project: ProjectPackage
}

/** MB of memory that a reading thread may fill with objects */
const MOST_MEMORY = 400
/** MB that a file may take beyond its own size fifty times over, buffers too */
const ROOM = 150

/** Reads a file in a thread of its own, which is ended when its time is over or its memory full. Errors: 'file' with a sentence. */
export function readAside<W extends keyof Results>(
  what: W,
  name: string,
  bytes: Uint8Array,
  more: Partial<Pick<Reading, 'together' | 'answers' | 'location'>> = {},
): Promise<Results[W]> {
  const data: Reading = { what, name, bytes, together: false, answers: {}, location: NO_LOCATION, ...more }
  // The thread is what was built of reader-worker.ts, whether this runs from a build or from its source.
  const worker = new Worker(new URL('../dist/reader-thread.mjs', import.meta.url), {
    workerData: data,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
    stdout: true,
    stderr: true,
  })
  let timer: NodeJS.Timeout | null = null
  let watch: NodeJS.Timeout | null = null
  return new Promise<Results[W]>((resolve, reject) => {
    const fail = (say: string, remedy: string) => reject(new Refusal('file', say, remedy))
    const full = () =>
      fail(
        `"${name}" cannot be read: it needs more memory than there is.`,
        'Export only what is needed, or more coarsely.',
      )
    worker.on('message', (answer: ReadingAnswer) => {
      if ('ready' in answer) {
        const before = process.memoryUsage.rss()
        watch = setInterval(() => {
          if (process.memoryUsage.rss() - before > ROOM * 2 ** 20 + bytes.length * 50) full()
        }, 20)
        timer = setTimeout(
          () =>
            fail(
              `"${name}" takes too long to be read, and was ended after ${secondsFor(bytes.length).toFixed(1)} s.`,
              'It is damaged, or far more than is needed: export it once more.',
            ),
          secondsFor(bytes.length) * 1000,
        )
      } else if ('result' in answer) resolve(answer.result as Results[W])
      else {
        try {
          refuse(answer.refused.code, answer.refused.say, answer.refused.remedy)
        } catch (e) {
          reject(e as Error)
        }
      }
    })
    worker.on('error', full)
    worker.on('exit', () => fail(`"${name}" cannot be read.`, 'Export it once more.'))
  }).finally(async () => {
    if (timer) clearTimeout(timer)
    if (watch) clearInterval(watch)
    await worker.terminate()
  })
}
