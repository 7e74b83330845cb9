import { chromium, type Page } from '@playwright/test'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { addStoreys, desk, details, newProject, openedVerb, settled } from '../../e2e/page'
import { Application, ask, wait } from './application'
import type { Campaign } from './kind'

/** Whether a process was started by this one, or by one that this one has started. */
function isOurs(pid: string): boolean {
  for (let at = pid; at !== '0' && at !== '1';) {
    if (at === String(process.pid)) return true
    at = /PPid:\s+(\d+)/.exec(readFileSync(`/proc/${at}/status`, 'utf8'))?.[1] ?? '0'
  }
  return false
}

/** MB of the processes that draw our page. */
function pageMemory(): number {
  let total = 0
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer') || !isOurs(pid)) continue
      total += Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0)
    } catch {
      // It has ended meanwhile.
    }
  return Math.round(total / 1024)
}

/** Somebody who draws a dial of a rule back and forth. */
async function draws(page: Page, isGoing: () => boolean): Promise<number> {
  const range = details(page).getByRole('slider', { name: 'draw inset' })
  let moves = 0
  while (isGoing()) {
    const box = await range.boundingBox()
    if (!box) throw new Error('The dial of the rule is gone.')
    const y = box.y + box.height / 2
    await page.mouse.move(box.x + box.width * 0.3, y)
    await page.mouse.down()
    for (let i = 0; i < 60 && isGoing(); i++, moves++)
      await page.mouse.move(box.x + box.width * (0.3 + 0.3 * Math.abs(Math.sin(moves / 11 + Math.random()))), y)
    await page.mouse.up()
    await settled(page)
  }
  return moves
}

/** Somebody else who edits and exports without a pause; the ms of each acknowledgement. */
async function edits(url: string, project: string, isGoing: () => boolean): Promise<number[]> {
  const waits: number[] = []
  for (let i = 0; isGoing(); i++) {
    const began = performance.now()
    const edit = { edit: 'project.change', set: { name: `Name ${i}` } }
    const body = { id: `s${i}`, author: 's', label: 'x', edit }
    const { status } = await ask(`${url}/api/projects/${project}/edits`, 'POST', body, 60_000)
    if (status !== 201) throw new Error(`The edit ${i} was answered with ${status}.`)
    waits.push(performance.now() - began)
    if (i % 50 === 0) await fetch(`${url}/api/projects/${project}/export/csv`).then((r) => r.arrayBuffer())
    await wait(5)
  }
  return waits
}

const middle = (list: number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0
const mean = (list: number[]) => list.reduce((sum, v) => sum + v, 0) / Math.max(1, list.length)

/** MB that count as no growth */
const MORE = 30

/** Memory is flat where its last quarter is hardly more than its second. */
function needFlat(what: string, samples: number[], patience: number): string {
  const quarter = Math.floor(samples.length / 4)
  const [before, after] = [mean(samples.slice(quarter, 2 * quarter)), mean(samples.slice(-quarter))]
  const line = `${what}: ${before.toFixed(0)} MB in the second quarter, ${after.toFixed(0)} MB in the last`
  if (after > before * 1.1 + MORE * patience) throw new Error(`${line}: it grows`)
  return line
}

export const soak: Campaign = {
  says: 'so many minutes of a dial being drawn in the page while another edits and exports: memory and answers stay as they are',
  async run(times, tell, patience) {
    const folder = mkdtempSync(join(tmpdir(), 'gt-soak-'))
    const app = new Application(folder, 4219)
    if (!(await app.start())) throw new Error(`It did not start: ${app.said}`)
    const browser = await chromium.launch({
      executablePath: '/usr/bin/chromium-headless-shell',
      args: ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader'],
    })
    try {
      const page = await browser.newPage({ baseURL: app.url, viewport: { width: 1280, height: 800 } })
      await newProject(page, 'Soak')
      await addStoreys(page, '30', '3.5')
      await desk(page, 'Form')
      await openedVerb(page, 'Rule', 'Tower cluster')
      await settled(page)
      const other = String(
        (await ask(`${app.url}/api/projects`, 'POST', { name: 'O', unit: 'm', siteArea: 9 })).body.id,
      )
      const ends = Date.now() + times * 60_000
      const isGoing = () => Date.now() < ends
      const [drawing, editing] = [draws(page, isGoing), edits(app.url, other, isGoing)]
      const [pages, servers]: [number[], number[]] = [[], []]
      while (isGoing()) {
        await Promise.race([wait((times * 60_000) / 40), drawing, editing])
        pages.push(pageMemory())
        servers.push(app.memory())
        if (pages.length % 4 === 0) tell(`page ${pages.at(-1)} MB, server ${servers.at(-1)} MB`)
      }
      const [moves, waits] = [await drawing, await editing]
      const [first, last] = [middle(waits.slice(20, 220)), middle(waits.slice(-200))]
      return [
        `${moves} moves of a dial, ${waits.length} edits`,
        needFlat('page', pages, patience),
        needFlat('server', servers, patience),
        `an edit is acknowledged in ${first.toFixed(1)} ms at first, in ${last.toFixed(1)} ms after ${waits.length}; the longest wait was ${waits.reduce((most, w) => Math.max(most, w), 0).toFixed(0)} ms`,
      ]
    } finally {
      await browser.close()
      await app.stop()
      rmSync(folder, { recursive: true, force: true })
    }
  },
}
