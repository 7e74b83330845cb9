import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DataSource, type QueryRunner } from 'typeorm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { LOG_FORMAT } from '@geotome/core/edits'
import { MIGRATIONS, openDatabase } from '../src/db/source'
import { EditLog } from '../src/log/log'
import { startDatabase } from './api'

const folder = mkdtempSync(join(tmpdir(), 'gt-upgrade-'))
let database: Awaited<ReturnType<typeof startDatabase>>
beforeAll(async () => {
  database = await startDatabase(folder)
})
afterAll(async () => {
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
})

const golden = JSON.parse(readFileSync('core/testing/logs/format-1.json', 'utf8')) as { start: { id: string } }

/** A database that a Geotome of so many migrations has left, with a project in it; the connection that made it. */
async function left(versions: number): Promise<DataSource> {
  const source = new DataSource({ type: 'mariadb', url: database.url, migrations: MIGRATIONS.slice(0, versions) })
  await source.initialize()
  await source.query('DROP DATABASE geotome')
  await source.query('CREATE DATABASE geotome CHARACTER SET utf8mb4')
  await source.query('USE geotome')
  await source.destroy()
  await source.initialize()
  if (versions === 0) return source
  await source.runMigrations()
  await source.query(
    "INSERT INTO project (id, name, unit, seq, changedAt) VALUES ('then', 'Then', 'm', 0, '2026-01-05 09:00:00')",
  )
  await source.query("INSERT INTO checkpoint (projectId, seq, data) VALUES ('then', 0, ?)", [
    JSON.stringify({ ...golden.start, id: 'then' }),
  ])
  return source
}

/** A runner that is killed after so many statements. */
const killedAfter = (statements: number, source: DataSource): QueryRunner => {
  let run = 0
  return {
    query: (sql: string) => {
      if (run++ >= statements) throw new Error('killed')
      return source.query(sql)
    },
  } as unknown as QueryRunner
}

describe('an upgrade', () => {
  for (const [versions, Migration] of MIGRATIONS.entries())
    it(`of a database of ${versions} migrations goes on wherever the server was killed in it`, async () => {
      for (let statements = 0; ; statements++) {
        const source = await left(versions)
        const isWhole = await new Migration().up(killedAfter(statements, source)).then(
          () => true,
          () => false,
        )
        await source.destroy()
        const healed = await openDatabase(database.url)
        if (versions > 0) {
          const { project } = await new EditLog(healed).head('then')
          expect(Object.values(project.buildUps)[0]?.layers[0]?.id).toBe('layer-1')
        }
        await healed.destroy()
        // Killed behind its last statement, before it is noted as done: that is a place too.
        if (isWhole) break
      }
    })

  it.each([
    ['a migration', "INSERT INTO migrations (timestamp, name) VALUES (1, 'Later1999999999999')"],
    ['a log format', `UPDATE checkpoint SET format = ${LOG_FORMAT + 1}`],
  ])('that a newer Geotome has made, by %s, is refused as a whole', async (_, later) => {
    const source = await left(MIGRATIONS.length)
    await source.query(later)
    await expect(openDatabase(database.url)).rejects.toThrow(/A newer Geotome has worked on this data/)
    await source.destroy()
  })
})
