import { execFile } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { afterAll, expect, it } from 'vitest'
import { openApp, type Running } from '../src/app'
import { EditLog } from '../src/log/log'
import { openDatabase } from '../src/db/source'
import { startDatabase } from './api'
import { blankProject } from '@geotome/core/project'

const folder = mkdtempSync(join(tmpdir(), 'gt-backup-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const backup = (what: 'save' | 'restore', file: string, url: string) =>
  promisify(execFile)('node', ['scripts/backup.mjs', what, file], { env: { ...process.env, DATABASE_URL: url } }).then(
    ({ stdout }) => stdout,
    (e: { stderr: string }) => e.stderr,
  )

/** All that a database holds, table by table. */
async function contentOf(url: string): Promise<Record<string, unknown[]>> {
  const source = await openDatabase(url)
  const tables = ((await source.query('SHOW TABLES')) as object[]).map((t) => String(Object.values(t)[0]))
  const content: Record<string, unknown[]> = {}
  for (const table of tables) content[table] = (await source.query(`SELECT * FROM ${table}`)) as unknown[]
  await source.destroy()
  return content
}

it('a backup that is made while a server works is restored elsewhere: projects, logs, figures and pictures are the same', async () => {
  const [from, to] = [await startDatabase(join(folder, 'from')), await startDatabase(join(folder, 'to'))]
  const file = join(folder, 'all.backup')
  // With the demo: it has pictures and a survey.
  const running: Running = await openApp(from.url)
  const source = await openDatabase(from.url)
  const log = new EditLog(source)
  let n = 0
  const project = blankProject(() => `id-${++n}`, 'Quay "one" \\ ü', 'ft', 12.345678901234567)
  await log.create(project)
  for (let i = 0; i < 60; i++)
    await log.append(project.id, {
      id: `e${i}`,
      author: 'a',
      label: 'headroom',
      edit: { edit: 'project.change', set: { headroom: 2 + i / 7 } },
    })
  await running.close()
  expect(await backup('save', file, from.url)).toMatch(/^2 projects are kept/m)
  const cut = join(folder, 'cut.backup')
  writeFileSync(cut, readFileSync(file).subarray(0, 50_000))
  expect(await backup('restore', cut, to.url)).toMatch(/damaged .*nothing was changed/)
  expect(await backup('restore', file, from.url)).toMatch(/holds something already, and was not touched/)
  expect(await backup('save', file, from.url)).toMatch(/There is a file .* already/)
  expect(await backup('restore', file, to.url)).toMatch(/rows are back/)
  const [was, is] = [await contentOf(from.url), await contentOf(to.url)]
  expect(Object.keys(is)).toEqual(Object.keys(was))
  for (const [table, rows] of Object.entries(was)) {
    expect(is[table]?.length, table).toBe(rows.length)
    expect(JSON.stringify(is[table]) === JSON.stringify(rows), table).toBe(true)
  }
  expect(was.asset_piece?.length).toBeGreaterThan(0)
  await source.destroy()
  await Promise.all([from.stop(), to.stop()])
})
