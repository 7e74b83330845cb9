import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'

/** A whole application as a person starts it, on a data folder and a port of a campaign. */
export class Application {
  private child: ChildProcess | null = null
  said = ''
  constructor(
    readonly folder: string,
    readonly port: number,
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Starts it; ends with true when it is ready, with false when it has ended before (what it said is in `said`). */
  start(): Promise<boolean> {
    const env = { ...process.env, PORT: String(this.port), GEOTOME_DATA: this.folder }
    const child = spawn('node', [resolve('scripts/start.mjs')], { env, stdio: ['ignore', 'pipe', 'pipe'] })
    this.child = child
    this.said = ''
    return new Promise((done) => {
      const listen = (chunk: Buffer) => {
        this.said += String(chunk)
        if (this.said.includes('ready at')) done(true)
      }
      child.stdout.on('data', listen)
      child.stderr.on('data', listen)
      child.once('exit', () => done(false))
    })
  }

  /** Ctrl-C; ms that it took. */
  async stop(): Promise<number> {
    const child = this.child
    if (!child || child.exitCode !== null || child.signalCode !== null) return 0
    const started = Date.now()
    const gone = new Promise((done) => child.once('exit', done))
    child.kill('SIGINT')
    await gone
    return Date.now() - started
  }

  /** kill -9 of all that it has started, or of the server alone. */
  async kill(which: 'all' | 'server'): Promise<void> {
    const child = this.child
    const files = which === 'all' ? ['server.json', 'mariadb.json'] : ['server.json']
    const gone = new Promise((done) => (child && child.exitCode === null ? child.once('exit', done) : done(null)))
    if (which === 'all') child?.kill('SIGKILL')
    for (const file of files.map((f) => join(this.folder, f)).filter((f) => existsSync(f))) {
      const { pid } = JSON.parse(readFileSync(file, 'utf8')) as { pid: number }
      try {
        process.kill(pid, 'SIGKILL')
      } catch {
        // It has ended already.
      }
    }
    await gone
  }
}

export const wait = (ms: number) => new Promise((done) => setTimeout(done, ms))

/** What the API answered: its status and its JSON, or status 0 where nothing came within so many ms. */
export async function ask(url: string, method = 'GET', body?: unknown, patience = 5000) {
  try {
    const response = await fetch(url, {
      method,
      signal: AbortSignal.timeout(patience),
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    })
    const text = await response.text()
    return { status: response.status, body: (text.startsWith('{') ? JSON.parse(text) : {}) as Record<string, unknown> }
  } catch {
    return { status: 0, body: {} as Record<string, unknown> }
  }
}
