import type { ErrorRequestHandler, RequestHandler } from 'express'
import type { Logger } from 'pino'
import * as v from 'valibot'
import { faultOf, Refusal, type RefusalCode } from '@geotome/core/project'
import { ASK_AGAIN } from '../threads/pool'

const STATUS: Partial<Record<RefusalCode, number>> = {
  'unknown-id': 404,
  'no-undo': 409,
  changed: 409,
  stale: 409,
  'id-taken': 409,
  'name-taken': 409,
  'in-use': 409,
}

/** Every error as problem details (RFC 9457) with a sentence that a person can act on. */
export const problems: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    next(error)
    return
  }
  const { status, title, detail, code } = describe(error)
  if (status === 500) (request as { log?: Logger }).log?.error(error, 'unforeseen')
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', title, status, detail, code }))
}

/** A request that is not taken as it is, whatever it asks: the status says which rule it breaks. */
export class Denied extends Error {
  constructor(
    readonly status: number,
    say: string,
    remedy: string,
  ) {
    super(`${say} ${remedy}`)
  }
}
const TITLES: Record<number, string> = {
  403: 'Not from here',
  415: 'Of another kind',
  421: 'Not this host',
  507: 'Disk full',
}

export const notFound: RequestHandler = (request) => {
  throw new Refusal('unknown-id', `There is nothing at ${request.path.slice(0, 200)}.`, 'Check the address.')
}

/** Ids as clients mint them. */
export const Id = v.pipe(v.string(), v.regex(/^[0-9a-zA-Z-]{1,64}$/, 'an id is made of letters, digits and dashes'))
export const Seq = v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'a sequence number is a whole number'), v.transform(Number))

/** Checks outside data with a schema. */
export function checked<T>(schema: v.GenericSchema<unknown, T>, data: unknown): T {
  const result = v.safeParse(schema, data, { abortEarly: true })
  if (result.success) return result.output
  const { path, says } = faultOf(result.issues[0])
  throw new Refusal(
    'edit',
    `The request is malformed at ${path.join('.') || 'the top'}: it ${says}.`,
    'Correct it and send it again.',
  )
}

function describe(error: unknown): { status: number; title: string; detail: string; code: string } {
  if (error instanceof Refusal)
    return { status: STATUS[error.code] ?? 422, title: 'This cannot be done', detail: error.message, code: error.code }
  if (error instanceof Denied)
    return {
      status: error.status,
      title: TITLES[error.status] ?? 'Not taken',
      detail: error.message,
      code: error.status === 507 ? 'size' : 'edit',
    }
  if (error instanceof URIError)
    return { status: 400, title: 'Not understood', detail: 'The address is malformed. Check it.', code: 'unknown-id' }
  const { type, status } = (error ?? {}) as { type?: string; status?: number }
  if (type === 'entity.too.large')
    return {
      status: 413,
      title: 'Too large',
      detail:
        'What was sent is larger than is taken here (60 MB for a picture, 64 MB for an edit, 150 MB for a project file), and nothing of it was stored. Send less: save a picture smaller, or crop it.',
      code: 'size',
    }
  if (type === 'entity.parse.failed')
    return {
      status: 400,
      title: 'Not readable',
      detail: 'What was sent is no JSON. Send JSON with the type application/json.',
      code: 'edit',
    }
  if (status && status >= 400 && status < 500)
    return {
      status,
      title: 'Not understood',
      detail: error instanceof Error ? error.message : 'The request was not understood.',
      code: 'edit',
    }
  const { code } = (error ?? {}) as { code?: string }
  if (code === 'ER_STATEMENT_TIMEOUT' || code === 'ER_LOCK_WAIT_TIMEOUT' || code === 'ER_LOCK_DEADLOCK')
    return {
      status: 503,
      title: 'Too slow',
      detail: 'The database took too long; nothing was stored. It is tried again by itself.',
      code: 'stale',
    }
  if (code === ASK_AGAIN)
    return {
      status: 503,
      title: 'Broken off',
      detail: 'The server broke this off for something else. It is tried again by itself.',
      code: 'stale',
    }
  if (code === 'ER_RECORD_FILE_FULL' || code === 'ER_DISK_FULL' || code === 'ENOSPC' || code === 'ER_ERROR_ON_WRITE')
    return {
      status: 507,
      title: 'Disk full',
      detail: 'The disk of the database is full; nothing was stored. Free some space and try again.',
      code: 'size',
    }
  if (code && /^(ECONN|PROTOCOL_|ER_CON|ETIMEDOUT)/.test(code))
    return {
      status: 503,
      title: 'Database away',
      detail: 'The database does not answer; nothing was stored. It is tried again by itself.',
      code: 'stale',
    }
  return {
    status: 500,
    title: 'Unforeseen',
    detail: 'Something unforeseen went wrong on the server; nothing was stored. Try again.',
    code: 'edit',
  }
}
