import { statfs } from 'node:fs/promises'
import type { RequestHandler } from 'express'
import { Denied } from './problems'

const LOCAL = new Set(['localhost', '127.0.0.1', '[::1]', '::1'])

/** Whether a host name means this machine. */
export const isLoopback = (host: string): boolean => LOCAL.has(host) || /^127\.\d+\.\d+\.\d+$/.test(host)

/** A request names its host: one that is not ours comes by a name that somebody else has pointed here. */
export function onlyOurHosts(hosts: readonly string[]): RequestHandler {
  return (request, _response, next) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase()
    if (isLoopback(host) || hosts.includes(host)) {
      next()
      return
    }
    next(
      new Denied(
        421,
        `This server does not answer as "${host.slice(0, 80)}".`,
        'Use the address that was printed when it started, or name this one in GEOTOME_HOSTS.',
      ),
    )
  }
}

/**
 * What asks the API must come from our own page, or from no page at all, never from another site in the same browser: what only reads makes
 * the server work too. The page itself may be linked to.
 */
export const onlyOurPages: RequestHandler = (request, _response, next) => {
  const reads = request.method === 'GET' || request.method === 'HEAD' || request.method === 'OPTIONS'
  const safe = reads && !request.path.startsWith('/api/')
  const site = request.headers['sec-fetch-site']
  const { origin, host } = request.headers
  const foreign =
    (origin !== undefined && originHost(origin) !== host) ||
    (typeof site === 'string' && site !== 'same-origin' && site !== 'none')
  if (safe || !foreign) {
    next()
    return
  }
  next(new Denied(403, "Another site's page asked for this.", "Do it in Geotome's own page."))
}

function originHost(origin: string): string | null {
  try {
    return new URL(origin).host
  } catch {
    return null
  }
}

/** Bodies come as what they are: a form or plain text, which any page may send, is none of ours. */
export const onlyOurTypes: RequestHandler = (request, _response, next) => {
  const type = (request.headers['content-type'] ?? '').split(';')[0]?.trim().toLowerCase() ?? ''
  const body = Number(request.headers['content-length'] ?? 0) > 0 || request.headers['transfer-encoding'] !== undefined
  const raw = request.method === 'POST' && /\/(import|assets)\/?$/.test(request.path)
  const fits = raw
    ? /^(application\/(octet-stream|zip|json|x-zip-compressed)|image\/(png|jpeg|webp))$/.test(type)
    : type === 'application/json'
  if (!body || fits) {
    next()
    return
  }
  next(
    new Denied(
      415,
      `What was sent has the type "${type.slice(0, 60) || 'none'}".`,
      raw ? 'Send the file as application/octet-stream.' : 'Send JSON with the type application/json.',
    ),
  )
}

/** The one worker that evaluates text: the picture library binds its functions so. A worker goes by the policy of its own script; nothing of a page or a project is ever evaluated there. */
export const WORKER_POLICY =
  "default-src 'none'; script-src 'self' 'unsafe-eval' 'wasm-unsafe-eval'; connect-src 'self' blob: data:; img-src blob: data:; worker-src 'self' blob:"

/** What the page may load and do, and that no other page may hold it in a frame. */
export const PAGE_POLICY = [
  "default-src 'self'",
  "script-src 'self' 'wasm-unsafe-eval'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' blob: data:",
  "font-src 'self' data:",
  "connect-src 'self' blob: data:",
  "worker-src 'self' blob:",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
].join('; ')

/** bytes that must be free for something to be stored: below it the database would stop in the middle */
const LEAST_FREE = 64 * 1024 * 1024

/** Before anything is stored: whether the disk of the private database has room. Reading goes on without. */
export function roomOnDisk(folder: string | null): RequestHandler {
  let known: { at: number; free: number } | null = null
  return (request, _response, next) => {
    if (!folder || request.method === 'GET' || request.method === 'HEAD') {
      next()
      return
    }
    const decide = (free: number) =>
      next(
        free < LEAST_FREE
          ? new Denied(
              507,
              'The disk of the database is nearly full; nothing was stored.',
              'Free some space and try again. What is stored can be read meanwhile.',
            )
          : undefined,
      )
    if (known && Date.now() - known.at < 1000) {
      decide(known.free)
      return
    }
    statfs(folder).then(
      (s) => {
        known = { at: Date.now(), free: s.bavail * s.bsize }
        decide(known.free)
      },
      () => next(),
    )
  }
}
