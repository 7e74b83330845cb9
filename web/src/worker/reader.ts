import { wrap, type Remote } from 'comlink'
import { secondsFor } from '@geotome/core/exchange'
import { Refusal } from '@geotome/core/project'
import type { ReaderWorker } from './reader-worker'

/** Lets a worker of its own read a file, and ends it: when it is done, when its time is over, when it dies. Throws a Refusal where it cannot be read. */
export async function readInWorker<T extends object>(
  file: File,
  ask: (reader: Remote<ReaderWorker>, bytes: Uint8Array) => Promise<T>,
): Promise<T> {
  const worker = new Worker(new URL('./reader-worker.ts', import.meta.url), { type: 'module', name: 'reader' })
  const reader = wrap<ReaderWorker>(worker)
  const died = new Promise<never>((_, fail) => {
    worker.addEventListener('error', () =>
      fail(
        new Refusal(
          'file',
          `"${file.name}" cannot be read: it needs more than there is.`,
          'Export only what is needed, or more coarsely.',
        ),
      ),
    )
  })
  let timer: ReturnType<typeof setTimeout> | undefined
  try {
    const bytes = new Uint8Array(await file.arrayBuffer())
    await Promise.race([reader.ready(file.name.split('.').at(-1)?.toLowerCase() ?? ''), died])
    const seconds = secondsFor(bytes.length)
    const late = new Promise<never>((_, fail) => {
      timer = setTimeout(
        () =>
          fail(
            new Refusal(
              'file',
              `"${file.name}" takes too long to be read, and was ended after ${seconds.toFixed(0)} s. It is damaged, or far more than is needed:`,
              'export it once more.',
            ),
          ),
        seconds * 1000,
      )
    })
    return await Promise.race([ask(reader, bytes), late, died])
  } finally {
    clearTimeout(timer)
    worker.terminate()
  }
}
