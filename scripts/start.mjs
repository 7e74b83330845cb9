import { fork } from 'node:child_process'
import { createHash } from 'node:crypto'
import { realpathSync } from 'node:fs'
import { createServer } from 'node:net'
import { resolve } from 'node:path'
import { lastWords, startMariadb, writeWhole } from './lib/mariadb.mjs'
import { fail, needBuild, needFolder, needNpm, say } from './lib/packages.mjs'

// From an empty machine to the running application: packages, build, database, server. Ctrl-C stops all it started.
const root = resolve(import.meta.dirname, '..')
const dev = process.argv.includes('--dev')
const port = Number(process.env.PORT ?? 4180)
const major = Number(process.versions.node.split('.')[0])
if (major < 20) fail(`Node.js ${process.versions.node} is too old. Install version 20 or newer.`)
if (!Number.isInteger(port) || port < 1 || port > 65535)
  fail(`PORT is "${process.env.PORT}". Give a whole number from 1 to 65535.`)

const folder = resolve(process.env.GEOTOME_DATA ?? resolve(root, '.data'))
needFolder(folder)
await needAlone(folder)
await needPort(port)
needNpm(root)
if (!dev) await needBuild(root)
/** ms that the server has to end; what it acknowledged is stored by then */
const SERVER_ENDS = 3000
let stopping = false
let database = null
// Whatever database and server write from here on (data, logs, passwords) is for their owner only.
process.umask(0o077)
if (!process.env.DATABASE_URL) {
  say('Starting the database ...')
  database = await startMariadb(folder)
  void watch()
}
say('Starting the server ...')
const server = fork(resolve(root, dev ? 'server/src/main.ts' : 'server/dist/main.mjs'), dev ? ['--dev'] : [], {
  cwd: root,
  execArgv: dev ? ['--import', 'tsx'] : ['--enable-source-maps'],
  env: {
    ...process.env,
    PORT: String(port),
    DATABASE_URL: process.env.DATABASE_URL ?? database.url,
    ...(database ? { GEOTOME_FOLDER: folder } : {}),
  },
  detached: true,
})
writeWhole(resolve(folder, 'server.json'), JSON.stringify({ pid: server.pid, port }))
server.on('message', () => {
  if (process.send) process.send('ready')
})

const stop = () => {
  if (stopping) return
  stopping = true
  server.kill('SIGTERM')
  setTimeout(() => server.kill('SIGKILL'), SERVER_ENDS).unref()
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)
server.on('exit', async (code) => {
  await database?.stop()
  process.exit(stopping ? 0 : (code ?? 1))
})

/** Looks after the database: when it dies it is started again on its port, up to five times in ten minutes; then all ends, with the reason. */
async function watch() {
  const deaths = []
  while (!stopping) {
    await new Promise((done) => setTimeout(done, 500))
    if (stopping || database.running()) continue
    deaths.push(Date.now())
    const reason = lastWords(folder)
    if (deaths.filter((at) => at > Date.now() - 600_000).length > 5) {
      process.stderr.write(
        `The database died again and again, and is not started any more. Its last words: ${reason}\n`,
      )
      stop()
      return
    }
    say(`The database died (${reason}); starting it again ...`)
    try {
      database = await startMariadb(folder, true)
    } catch (e) {
      process.stderr.write(`${e.message}\n`)
      stop()
      return
    }
  }
}

/**
 * One application for each data folder: a second one would use the first one's database, and take it along when it ends. The name is given back by
 * the kernel however this process ends.
 */
function needAlone(path) {
  const name = createHash('sha256').update(realpathSync(path)).digest('hex').slice(0, 32)
  return new Promise((done) => {
    const mark = createServer()
    mark.unref()
    mark.once('error', (e) => {
      if (e.code !== 'EADDRINUSE') return done()
      fail(`Geotome runs on the folder ${path} already. Stop that one first, or name another folder with GEOTOME_DATA.`)
    })
    mark.listen(`\0geotome-${name}`, done)
  })
}

/** A busy port is said before anything is installed or started. */
function needPort(wanted) {
  return new Promise((done) => {
    const probe = createServer()
    probe.once('error', (e) => {
      if (e.code === 'EADDRINUSE')
        return fail(
          `Port ${wanted} is taken by another program. Stop it, or choose another port: PORT=${wanted + 1} npm start`,
        )
      fail(`Port ${wanted} may not be opened by this user (${e.code}). Choose one above 1023: PORT=4180 npm start`)
    })
    probe.listen(wanted, process.env.HOST ?? '127.0.0.1', () => probe.close(() => done()))
  })
}
