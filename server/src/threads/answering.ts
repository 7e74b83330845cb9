import { parentPort } from 'node:worker_threads'
import { failureOf, type Answer, type Question } from './messages'

/** What a piece of work gives; large bytes move to the asker, and are not copied. */
export interface Given<Result> {
  result: Result
  move?: Uint8Array[]
}

/** Makes this thread answer what its pool asks, each question on its own. */
export function answering<Ask, Result>(work: (ask: Ask) => Promise<Given<Result>>): void {
  parentPort?.on('message', ({ id, ask }: Question<Ask>) => {
    work(ask)
      .then(({ result, move = [] }) =>
        parentPort?.postMessage({ id, result } satisfies Answer<Result>, buffersOf(move)),
      )
      .catch((e: unknown) => parentPort?.postMessage({ id, failure: failureOf(e) } satisfies Answer<Result>))
  })
}

/** What can be moved: bytes that are all of their memory. */
export const buffersOf = (bytes: readonly Uint8Array[]): ArrayBuffer[] => [
  ...new Set(
    bytes.flatMap((b) => (b.buffer instanceof ArrayBuffer && b.byteLength === b.buffer.byteLength ? [b.buffer] : [])),
  ),
]

/** Data as the bytes of its JSON, in memory of their own. */
export const jsonBytes = (data: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(data))
