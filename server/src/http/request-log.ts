import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import pino, { type Logger } from 'pino'
import { pinoHttp } from 'pino-http'
import type { RequestHandler } from 'express'
import { LogFile } from './log-file'

/**
 * The log of the server: a line of JSON for each request, with its id, and for each failure; beside the private database where there is
 * one, else where the process writes to. A file that has grown large is put aside.
 */
export function serverLog(folder: string | null, level: string): Logger {
  if (!folder) return pino({ level: level === 'info' ? 'warn' : level })
  return pino({ level }, new LogFile(join(folder, 'server.log')))
}

/** Logs each request to the API with an id, which the answer names too (x-request-id). */
export const requestLog = (logger: Logger): RequestHandler =>
  pinoHttp({
    logger,
    genReqId: (_request, response) => {
      const id = randomUUID()
      response.setHeader('x-request-id', id)
      return id
    },
    customLogLevel: (_request, response, error) =>
      error || response.statusCode >= 500 ? 'error' : response.statusCode >= 400 ? 'warn' : 'info',
    serializers: {
      req: (request: { id: string; method: string; url: string }) => ({
        id: request.id,
        method: request.method,
        url: request.url,
      }),
      res: (response: { statusCode: number }) => ({ status: response.statusCode }),
    },
  }) as unknown as RequestHandler
