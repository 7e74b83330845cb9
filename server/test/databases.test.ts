import { createConnection, type RowDataPacket } from 'mysql2/promise'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { startDatabase } from './api'

it('a database that is made while another works takes nothing of it away', async () => {
  const folders = ['one', 'two'].map((name) => mkdtempSync(join(tmpdir(), `gt-${name}-`)))
  const first = await startDatabase(folders[0] ?? '')
  const asked = await createConnection(first.url)
  await asked.query('CREATE TEMPORARY TABLE kept (n INT) ENGINE=Aria')
  await asked.query('INSERT INTO kept VALUES (7)')
  const second = await startDatabase(folders[1] ?? '')
  expect((await asked.query<RowDataPacket[]>('SELECT n FROM kept'))[0]).toEqual([{ n: 7 }])
  await asked.query('ALTER TABLE kept ADD COLUMN m INT')
  await asked.query('DROP TEMPORARY TABLE kept')
  await asked.end()
  await Promise.all([first.stop(), second.stop()])
  for (const folder of folders) rmSync(folder, { recursive: true, force: true })
})
