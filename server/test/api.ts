import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll } from 'vitest'
import { openApp, type Running } from '../src/app'

/** What the API answered. */
export interface Answer {
  status: number
  type: string
  body: {
    id: string
    seq: number
    detail: string
    title: string
    project: { name: string; schemes: Record<string, { id: string; levels: Record<string, { id: string }> }> }
    history: { undo: string | null; redo: string | null }
    database: string
  }
}

export const servers: { running: Running; http: Server; url: string }[] = []
let url = ''
/** The database of the servers. */
export const databaseUrl = () => url
let stopDatabase = async (): Promise<void> => {}

/** A server process's worth of application on the database; two of them stand for two processes. */
async function serve(databaseUrl: string): Promise<void> {
  const running = await openApp(databaseUrl)
  const http = createServer(running.app)
  await new Promise<void>((done) => http.listen(0, '127.0.0.1', done))
  servers.push({ running, http, url: `http://127.0.0.1:${(http.address() as AddressInfo).port}` })
}

/** A database as the start script starts it, in a process of its own so that this one needs no .mjs types. */
export async function startDatabase(folder: string): Promise<{ url: string; stop: () => Promise<void> }> {
  const script = `import('${resolve('scripts/lib/mariadb.mjs')}').then(async (m) => { const d = await m.startMariadb('${folder}'); console.log(JSON.stringify({ pid: d.pid, url: d.url })) })`
  const { pid, url } = await new Promise<{ pid: number; url: string }>((done, failed) => {
    const child = spawn('node', ['-e', script], { stdio: ['ignore', 'pipe', 'inherit'] })
    // On a bare machine lines about what is installed come before it.
    child.stdout.on('data', (text: Buffer) => {
      const line = String(text)
        .split('\n')
        .find((l) => l.startsWith('{'))
      if (line) done(JSON.parse(line) as { pid: number; url: string })
    })
    child.once('exit', () => failed(new Error('The database did not start.')))
  })
  return {
    url,
    stop: async () => {
      process.kill(pid, 'SIGTERM')
      await new Promise((done) => setTimeout(done, 500))
    },
  }
}

/** Two servers on one database of their own, for the tests of a file. */
export function withServers(): void {
  const folder = mkdtempSync(join(tmpdir(), 'gt-api-'))
  beforeAll(async () => {
    const started = await startDatabase(folder)
    stopDatabase = started.stop
    url = started.url
    await Promise.all([serve(started.url), serve(started.url)])
  })

  afterAll(async () => {
    for (const { running, http } of servers) {
      http.closeAllConnections()
      http.close()
      await running.close()
    }
    servers.length = 0
    await stopDatabase()
    rmSync(folder, { recursive: true, force: true })
  })
}

export async function call(method: string, path: string, body?: unknown, server = 0): Promise<Answer> {
  const response = await fetch(`${servers[server]?.url}${path}`, {
    method,
    ...(body === undefined
      ? {}
      : {
          body: typeof body === 'string' ? body : JSON.stringify(body),
          headers: { 'content-type': 'application/json' },
        }),
  })
  const text = await response.text()
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? '',
    body: (text.startsWith('{') ? JSON.parse(text) : {}) as Answer['body'],
  }
}
export const make = async (name: string) =>
  (await call('POST', '/api/projects', { name, unit: 'm', siteArea: 100 })).body.id
let n = 0
export const edit = (id: string, author: string, change: unknown, server = 0, editId = `e${++n}`) =>
  call('POST', `/api/projects/${id}/edits`, { id: editId, author, label: 'test', edit: change }, server)
export const named = (name: string) => ({ edit: 'project.change', set: { name } })
