import 'reflect-metadata'
import { DataSource } from 'typeorm'
import { LOG_FORMAT } from '@geotome/core/edits'
import { Refusal } from '@geotome/core/project'
import { ENTITIES } from './entities'
import { First1764000000000 } from './migrations/1-first'
import { RestorePoints1764100000000 } from './migrations/2-restore-points'
import { Assets1764200000000 } from './migrations/3-assets'
import { LogFormat1764300000000 } from './migrations/4-log-format'
import { ListFigures1764400000000 } from './migrations/5-list-figures'

/**
 * All migrations, oldest first. MariaDB commits each statement that changes a table by itself, so that a server may be killed between two
 * of them: each statement must be one that can be run again.
 */
export const MIGRATIONS = [
  First1764000000000,
  RestorePoints1764100000000,
  Assets1764200000000,
  LogFormat1764300000000,
  ListFigures1764400000000,
]

/** seconds */
const LONGEST_QUERY = 30

/** Connects to the database of a mysql:// address, over so many connections at most. */
export async function connect(url: string, connections: number): Promise<DataSource> {
  const source = new DataSource({
    type: 'mariadb',
    url,
    entities: ENTITIES,
    migrations: MIGRATIONS,
    synchronize: false,
    timezone: 'Z',
    charset: 'utf8mb4',
    extra: { connectionLimit: connections, maxIdle: connections },
  })
  await source.initialize()
  // A query that takes longer is ended, and said; mysql2's pool hands every new connection over here.
  const { pool } = source.driver as unknown as {
    pool: { on(event: 'connection', take: (c: { query(sql: string): void }) => void): void }
  }
  pool.on('connection', (connection) =>
    connection.query(`SET SESSION max_statement_time = ${LONGEST_QUERY}, innodb_lock_wait_timeout = ${LONGEST_QUERY}`),
  )
  return source
}

/** Connects, and brings the tables up to date. */
export async function openDatabase(url: string): Promise<DataSource> {
  const source = await connect(url, 8)
  await oneAtATime(source, 'migrations', async () => {
    await refuseNewer(source)
    await source.runMigrations()
  }).catch(async (e: unknown) => {
    await source.destroy()
    throw e
  })
  return source
}

/** Data that a newer Geotome has brought up to date is refused as a whole: this one would open some of it, and write what is not understood. */
async function refuseNewer(source: DataSource): Promise<void> {
  const runner = source.createQueryRunner()
  try {
    const has = async (table: string) => (await runner.query('SHOW TABLES LIKE ?', [table])).length > 0
    const known = new Set(MIGRATIONS.map((m) => new m().name))
    const done = (await has('migrations'))
      ? ((await runner.query('SELECT name FROM migrations')) as { name: string }[])
      : []
    const formats = (
      await Promise.all(
        ['edit', 'checkpoint'].map(async (table) =>
          (await has(table)) && (await runner.hasColumn(table, 'format'))
            ? ((await runner.query(`SELECT MAX(format) AS most FROM ${table}`)) as { most: number | null }[])
            : [],
        ),
      )
    ).flat()
    const isNewer = done.some((m) => !known.has(m.name)) || formats.some((f) => (f.most ?? 0) > LOG_FORMAT)
    if (isNewer)
      throw new Refusal(
        'newer-file',
        'A newer Geotome has worked on this data; nothing of it was touched.',
        'Start that version, or restore a backup from before the upgrade (docs/deploy.md).',
      )
  } finally {
    await runner.release()
  }
}

/** Does a piece of work while no other server does the same: two may start at one moment. */
export async function oneAtATime<T>(source: DataSource, what: string, work: () => Promise<T>): Promise<T> {
  const runner = source.createQueryRunner()
  try {
    const [got] = (await runner.query('SELECT GET_LOCK(?, 60) AS it', [`geotome-${what}`])) as { it: string | null }[]
    if (Number(got?.it) !== 1) throw new Error(`Another server has been busy with "${what}" for a minute.`)
    return await work()
  } finally {
    await runner.query('SELECT RELEASE_LOCK(?)', [`geotome-${what}`])
    await runner.release()
  }
}
