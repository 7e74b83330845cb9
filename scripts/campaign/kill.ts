import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Application, ask, wait } from './application'
import type { Campaign } from './kind'

const AUTHORS = ['ann', 'ben', 'cleo']

interface Logged {
  seq: number
  id: string
  author: string
}

/** The whole log of a project. */
async function logOf(url: string, project: string): Promise<Logged[]> {
  const all: Logged[] = []
  for (;;) {
    const response = await fetch(`${url}/api/projects/${project}/edits?since=${all.length}`)
    if (!response.ok) throw new Error(`The log was answered with ${response.status}.`)
    const more = (await response.json()) as Logged[]
    if (more.length === 0) return all
    all.push(...more)
  }
}

/** People edit at once while the server, or all that was started, is killed at some moment; what was acknowledged must be there, once and in order. */
export const kill: Campaign = {
  says: 'the server, or all of it, is killed while three people edit: all that was acknowledged must be there, once',
  async run(times, tell) {
    const folder = mkdtempSync(join(tmpdir(), 'gt-kill-'))
    const app = new Application(folder, 4218)
    const acknowledged = new Map<string, number>()
    let n = 0
    let unanswered = 0
    try {
      if (!(await app.start())) throw new Error(`It did not start: ${app.said}`)
      const { body } = await ask(`${app.url}/api/projects`, 'POST', { name: 'Killed', unit: 'm', siteArea: 100 })
      const project = String(body.id)
      for (let time = 0; time < times; time++) {
        let isGoing = true
        const people = AUTHORS.map(async (author) => {
          while (isGoing) {
            const id = `k${++n}`
            const edit = { edit: 'project.change', set: { name: `Name ${n}` } }
            const answer = await ask(`${app.url}/api/projects/${project}/edits`, 'POST', {
              id,
              author,
              label: 'x',
              edit,
            })
            if (answer.status === 201) acknowledged.set(id, Number(answer.body.seq))
            else unanswered++
          }
        })
        await wait(200 + 1500 * Math.random())
        await app.kill(time % 2 ? 'all' : 'server')
        isGoing = false
        await Promise.all(people)
        if (!(await app.start())) throw new Error(`It does not start after it was killed: ${app.said}`)
        const log = await logOf(app.url, project)
        const at = new Map(log.map((e) => [e.id, e.seq]))
        if (at.size !== log.length) throw new Error('An edit stands in the log twice.')
        if (log.some((e, i) => e.seq !== i + 1)) throw new Error('The log has a gap.')
        for (const [id, seq] of acknowledged)
          if (at.get(id) !== seq)
            throw new Error(`The edit ${id}, acknowledged as ${seq}, stands at ${String(at.get(id))}.`)
        if (time % 10 === 9) tell(`${time + 1} kills, ${acknowledged.size} edits`)
      }
    } finally {
      await app.stop()
      rmSync(folder, { recursive: true, force: true })
    }
    return [
      `${times} kills: ${acknowledged.size} acknowledged edits are there, once and in order; ${unanswered} had no answer`,
    ]
  },
}
