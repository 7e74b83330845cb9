import express, { type Request, type Response } from 'express'

/** Takes a body as it comes, up to so many bytes: what is in it is looked at in a thread. */
export const asBytes = (limit: string) => express.raw({ type: () => true, limit })

/** The body that `asBytes` took, in memory of its own. */
export const bodyOf = ({ body }: { body: unknown }): Uint8Array =>
  Buffer.isBuffer(body) ? (body.byteLength === body.buffer.byteLength ? body : new Uint8Array(body)) : new Uint8Array()

/** Whose turn it takes where no project does: all that comes from one place takes one turn. */
export const askerOf = (request: Request): string => `at ${request.ip ?? 'no address'}`

/** When the asker goes before it has its answer. */
export function goneOf(response: Response): AbortSignal {
  const gone = new AbortController()
  response.on('close', () => {
    if (!response.writableFinished) gone.abort()
  })
  return gone.signal
}

/** Sends bytes as they are; no hash is made of them. */
export function sendBytes(response: Response, bytes: Uint8Array, type = 'application/json'): void {
  if (!response.getHeader('content-type')) response.type(type)
  response.end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength))
}
