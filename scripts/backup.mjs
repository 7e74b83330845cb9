import { createReadStream, createWriteStream, existsSync, renameSync } from 'node:fs'
import { resolve } from 'node:path'
import { createInterface } from 'node:readline'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import { createGunzip, createGzip } from 'node:zlib'
import { startMariadb } from './lib/mariadb.mjs'
import { fail, needFolder, needNpm, say } from './lib/packages.mjs'

// All projects with their logs and pictures in one file, and back: node scripts/backup.mjs save FILE | restore FILE. A backup may be made
// while people work: it is the state of one moment.
const root = resolve(import.meta.dirname, '..')
const [what, path] = process.argv.slice(2)
if (!['save', 'restore'].includes(what) || !path)
  fail('Say what to do: npm run backup -- FILE, or npm run restore -- FILE.')
const file = resolve(path)
if (what === 'save' && existsSync(file)) fail(`There is a file ${file} already. Name another one.`)
if (what === 'restore' && !existsSync(file)) fail(`There is no file ${file}.`)
needNpm(root)

const folder = resolve(process.env.GEOTOME_DATA ?? resolve(root, '.data'))
let database = null
if (!process.env.DATABASE_URL) {
  needFolder(folder)
  database = await startMariadb(folder)
}
const { createConnection } = await import('mysql2/promise')
const connection = await createConnection({ uri: process.env.DATABASE_URL ?? database.url, dateStrings: true })
try {
  say(what === 'save' ? await save() : await restore())
} catch (e) {
  process.exitCode = 1
  process.stderr.write(`The ${what === 'save' ? 'backup' : 'restore'} failed: ${e.message}\n`)
} finally {
  await connection.end()
  if (database && !database.adopted) await database.stop()
}

async function save() {
  await connection.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ')
  await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT')
  const beside = `${file}.${process.pid}`
  await pipeline(Readable.from(linesOfAll()), createGzip({ level: 6 }), createWriteStream(beside, { mode: 0o600 }))
  renameSync(beside, file)
  const [[{ n }]] = await connection.query('SELECT COUNT(*) AS n FROM project')
  return `${n} projects are kept in ${file}.`
}

/** The head, each table with how it is made, its rows, and the end: a file without it is not whole. */
async function* linesOfAll() {
  yield `${JSON.stringify({ backup: 'geotome', version: 1 })}\n`
  const [tables] = await connection.query('SHOW TABLES')
  for (const [table] of tables.map(Object.values)) {
    const [[made]] = await connection.query(`SHOW CREATE TABLE \`${table}\``)
    yield `${JSON.stringify({ table, make: made['Create Table'] })}\n`
    const rows = connection.connection.query(`SELECT * FROM \`${table}\``).stream({ highWaterMark: 8 })
    for await (const row of rows)
      yield `${JSON.stringify({ row: Object.fromEntries(Object.entries(row).map(([k, v]) => [k, Buffer.isBuffer(v) ? { base64: v.toString('base64') } : v])) })}\n`
  }
  yield `${JSON.stringify({ end: true })}\n`
}

async function restore() {
  await needWhole()
  const [there] = await connection.query('SHOW TABLES')
  if (there.length)
    throw new Error(
      'the database holds something already, and was not touched. Name an empty data folder with GEOTOME_DATA, or move the old one elsewhere.',
    )
  let table = null
  let rows = 0
  await connection.query('SET FOREIGN_KEY_CHECKS = 0')
  for await (const line of lines()) {
    const entry = JSON.parse(line)
    if (entry.make) {
      if (table) await connection.query('COMMIT')
      table = entry.table
      await connection.query(entry.make)
      await connection.query('START TRANSACTION')
    } else if (entry.row) {
      const values = Object.entries(entry.row).map(([k, v]) => [
        k,
        v?.base64 === undefined ? v : Buffer.from(v.base64, 'base64'),
      ])
      await connection.query(
        `INSERT INTO \`${table}\` (${values.map(([k]) => `\`${k}\``)}) VALUES (${values.map(() => '?')})`,
        values.map(([, v]) => v),
      )
      rows++
    }
  }
  await connection.query('COMMIT')
  return `${rows} rows are back. Start with npm start.`
}

function lines() {
  return createInterface({ input: createReadStream(file).pipe(createGunzip()), crlfDelay: Infinity })
}

/** Before anything is written: whether the file is a backup, and whole. */
async function needWhole() {
  let [first, last] = [null, null]
  try {
    await pipeline(createReadStream(file), createGunzip(), async (source) => {
      for await (const line of createInterface({ input: Readable.from(source) })) {
        first ??= line
        last = line
      }
    })
  } catch (e) {
    throw new Error(`the file is damaged (${e.message}); nothing was changed.`)
  }
  if (!first?.includes('"backup":"geotome"') || !last?.includes('"end":true'))
    throw new Error('the file is no backup of Geotome, or not a whole one; nothing was changed.')
}
