import { wrap, type Remote } from 'comlink'
import { secondsFor } from '@geotome/core/exchange'
import type { ReaderWorker } from './reader-worker'

/** Lets a worker of its own read a file, and ends it: when it is done, when its time is over, when it dies. */
export async function readInWorker<T extends object>(
  file: File,
  ask: (reader: Remote<ReaderWorker>, bytes: Uint8Array) => Promise<T | { refused: string }>,
): Promise<T | { refused: string }> {
  const worker = new Worker(new URL('./reader-worker.ts', import.meta.url), { type: 'module', name: 'reader' })
  const reader = wrap<ReaderWorker>(worker)
  const died = new Promise<{ refused: string }>((done) => {
    worker.addEventListener('error', () =>
      done({
        refused: `"${file.name}" cannot be read: it needs more than there is. Export only what is needed, or more coarsely.`,
      }),
    )
  })
  try {
    const bytes = new Uint8Array(await file.arrayBuffer())
    const started = await Promise.race([
      reader.ready(file.name.split('.').at(-1)?.toLowerCase() ?? '').then(() => null),
      died,
    ])
    if (started) return started
    const late = new Promise<{ refused: string }>((done) => {
      setTimeout(
        () =>
          done({
            refused: `"${file.name}" takes too long to be read, and was ended after ${secondsFor(bytes.length).toFixed(0)} s. It is damaged, or far more than is needed: export it once more.`,
          }),
        secondsFor(bytes.length) * 1000,
      )
    })
    return await Promise.race([ask(reader, bytes), late, died])
  } finally {
    worker.terminate()
  }
}
