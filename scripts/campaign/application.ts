import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
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
    const env = {
      ...process.env,
      PORT: String(this.port),
      GEOTOME_DATA: this.folder,
      GEOTOME_LOOP_DELAY: this.delays,
      NODE_OPTIONS: `--import ${resolve('scripts/campaign/loop-delay.mjs')}`,
    }
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

  /** ms for which the request loop has stood still at the longest since this was asked last. */
  async loopDelay(): Promise<number> {
    rmSync(this.delays, { force: true })
    process.kill(this.serverPid, 'SIGUSR2')
    for (let tries = 0; !existsSync(this.delays); tries++) {
      if (tries > 1000) throw new Error('The server does not say how long its request loop stood still.')
      await wait(20)
    }
    await wait(20)
    return Number(readFileSync(this.delays, 'utf8'))
  }

  /** MB of memory that the server holds. */
  memory(): number {
    const [, kilobytes = '0'] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${this.serverPid}/status`, 'utf8')) ?? []
    return Math.round(Number(kilobytes) / 1024)
  }

  private get delays(): string {
    return join(this.folder, 'loop-delay')
  }

  private get serverPid(): number {
    return (JSON.parse(readFileSync(join(this.folder, 'server.json'), 'utf8')) as { pid: number }).pid
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
