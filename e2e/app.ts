import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

/** A whole application as a person starts it, with a data folder of its own. */
export class App {
  private child: ChildProcess | null = null
  readonly folder: string
  constructor(
    readonly port: number,
    folder?: string,
  ) {
    this.folder = folder ?? mkdtempSync(join(tmpdir(), 'gt-e2e-'))
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start(): Promise<void> {
    const env = { ...process.env, PORT: String(this.port), GEOTOME_DATA: this.folder }
    const child = spawn('node', [resolve('scripts/start.mjs')], { env, stdio: ['ignore', 'pipe', 'pipe'] })
    this.child = child
    let said = ''
    await new Promise<void>((done, failed) => {
      const listen = (chunk: Buffer) => {
        said += String(chunk)
        if (said.includes('ready at')) done()
      }
      child.stdout.on('data', listen)
      child.stderr.on('data', listen)
      child.once('exit', () => failed(new Error(`The application did not start: ${said}`)))
    })
  }

  /** Ctrl-C. */
  async stop(): Promise<void> {
    const child = this.child
    if (!child || child.exitCode !== null) return
    child.kill('SIGINT')
    await new Promise((done) => child.once('exit', done))
    rmSync(this.folder, { recursive: true, force: true })
  }

  /** kill -9 of the starter, the server and the database at once. */
  async killAll(): Promise<void> {
    const pids = ['server.json', 'mariadb.json']
      .map((f) => join(this.folder, f))
      .filter((f) => existsSync(f))
      .map((f) => (JSON.parse(readFileSync(f, 'utf8')) as { pid: number }).pid)
    const child = this.child
    const gone = new Promise((done) => child?.once('exit', done))
    child?.kill('SIGKILL')
    for (const pid of pids) process.kill(pid, 'SIGKILL')
    await gone
  }
}
