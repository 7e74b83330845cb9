import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { Application, ask, wait } from './application'
import { ATTACKS } from './attacks'
import type { Campaign } from './kind'

/** ms for which no request may keep the request loop; in which another person's edit must be acknowledged, 99 of 100 times; and their export be there */
const MOST_DELAY = 100
const MOST_WAIT = 1000
const MOST_EXPORT = 10_000

/** Another person at work meanwhile: an edit and a look at the health after the other; the ms that each edit took. */
function atWork(url: string, project: string): { stop: () => Promise<number[]> } {
  const waits: number[] = []
  let isGoing = true
  const going = (async () => {
    for (let i = 0; isGoing; i++) {
      const started = performance.now()
      const edit = { edit: 'project.change', set: { name: `At work ${i}` } }
      const body = { id: `w-${started}-${i}`.replace('.', '-'), author: 'w', label: 'name', edit }
      const { status } = await ask(`${url}/api/projects/${project}/edits`, 'POST', body, 60_000)
      if (status !== 201) throw new Error(`Another person's edit was answered with ${status}.`)
      waits.push(performance.now() - started)
      await wait(20)
    }
  })()
  return {
    stop: async () => {
      isGoing = false
      await going
      return waits
    },
  }
}

/** Another person exports a small project again and again; the ms that the longest took. */
function exporting(url: string, project: string): { stop: () => Promise<number> } {
  let [isGoing, longest] = [true, 0]
  const going = (async () => {
    while (isGoing) {
      const started = performance.now()
      const response = await fetch(`${url}/api/projects/${project}/export/csv`, {
        signal: AbortSignal.timeout(280_000),
      })
      if (response.status !== 200) throw new Error(`Another person's export was answered with ${response.status}.`)
      await response.arrayBuffer()
      longest = Math.max(longest, performance.now() - started)
      await wait(300)
    }
  })()
  return {
    stop: async () => {
      isGoing = false
      await going
      return longest
    },
  }
}

/** Sends an attack from a thread of its own, so that what it costs to make it is not counted. */
function attack(which: number, url: string, project: string): Promise<{ status: number; detail?: string }> {
  return new Promise((done, failed) => {
    const worker = new Worker(new URL('./attack-thread.mjs', import.meta.url), { workerData: { which, url, project } })
    worker.once('message', done)
    worker.once('error', failed)
  })
}

const made = async (url: string, name: string) =>
  String((await ask(`${url}/api/projects`, 'POST', { name, unit: 'm', siteArea: 100 })).body.id)

export const hostile: Campaign = {
  says: 'huge and hostile requests, each while another person works: how long the request loop stands still, and how long that person waits',
  async run(times, tell, patience) {
    const folder = mkdtempSync(join(tmpdir(), 'gt-hostile-'))
    const app = new Application(folder, 4217)
    const lines: string[] = []
    const broken: string[] = []
    if (!(await app.start())) throw new Error(`It did not start: ${app.said}`)
    try {
      const [worker, exported] = [await made(app.url, 'At work'), await made(app.url, 'Exported')]
      await wait(2000)
      for (const [which, { what, right }] of ATTACKS.entries()) {
        if (which >= times) break
        const target = await made(app.url, 'Target')
        const [person, other] = [atWork(app.url, worker), exporting(app.url, exported)]
        await wait(300)
        await app.loopDelay()
        const started = performance.now()
        const { status, detail = '' } = await attack(which, app.url, target)
        const took = performance.now() - started
        const delay = await app.loopDelay()
        const longest = await other.stop()
        const waits = (await person.stop()).sort((a, b) => a - b)
        const p99 = waits[Math.floor(waits.length * 0.99)] ?? 0
        const line = `${what}: ${status} after ${(took / 1000).toFixed(1)} s; loop ${delay} ms; another's edits ${p99.toFixed(0)} ms (p99 of ${waits.length}), exports within ${longest.toFixed(0)} ms; ${app.memory()} MB ${detail.slice(0, 120)}`
        tell(line)
        lines.push(line)
        if (
          !right.includes(status) ||
          delay > MOST_DELAY * patience ||
          p99 > MOST_WAIT * patience ||
          longest > MOST_EXPORT * patience
        )
          broken.push(line)
      }
    } finally {
      await app.stop()
      rmSync(folder, { recursive: true, force: true })
    }
    if (broken.length) throw new Error(`Not held:\n${broken.join('\n')}`)
    return lines
  },
}
