import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { LogFile } from './log-file'

const folder = mkdtempSync(join(tmpdir(), 'gt-log-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const line = (n: number) => `${JSON.stringify({ n })}\n`

it('a file that has grown is put aside, and none of the last lines is lost', async () => {
  const file = join(folder, 'server.log')
  const log = new LogFile(file, 400)
  for (let n = 0; n < 100; n++) {
    log.write(line(n))
    await log.flushed()
  }
  expect(statSync(file).size).toBeLessThanOrEqual(400)
  const kept = (readFileSync(`${file}.old`, 'utf8') + readFileSync(file, 'utf8')).trim().split('\n')
  const last = kept.map((l) => (JSON.parse(l) as { n: number }).n)
  expect(last).toEqual(Array.from({ length: last.length }, (_, i) => 100 - last.length + i))
})

it('where nothing can be written lines are left out, nobody waits, and it goes on when it can be', async () => {
  // Every write to it fails as on a full disk.
  const full = new LogFile('/dev/full', 1e9, 0)
  for (let n = 0; n < 5; n++) {
    full.write(line(n))
    await full.flushed()
  }
  const file = join(folder, 'gone', 'server.log')
  const log = new LogFile(file, 1e9, 0)
  log.write(line(1))
  await log.flushed()
  const { mkdirSync } = await import('node:fs')
  mkdirSync(join(folder, 'gone'))
  log.write(line(2))
  await log.flushed()
  expect(readFileSync(file, 'utf8')).toMatch(/"n":2[\s\S]*1 lines were left out/)
})
