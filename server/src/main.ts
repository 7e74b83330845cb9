import { createServer } from 'node:http'
import type { RequestHandler } from 'express'
import { Refusal } from '@geotome/core/project'
import { openApp } from './app'
import { readEnvironment } from './environment'
import { serverLog } from './http/request-log'
import { isLoopback } from './http/strangers'

/** Starts the server as its environment says; --dev serves the client through Vite. */
const environment = readEnvironment(process.env)
if (typeof environment === 'string') fail(environment)
const {
  PORT: port,
  HOST: host,
  DATABASE_URL: url,
  GEOTOME_OPEN: open,
  GEOTOME_HOSTS: hosts,
  GEOTOME_FOLDER: folder,
} = environment
if (!isLoopback(host) && !open)
  fail(
    `HOST is ${host}: everybody who reaches this machine could read, change and delete all projects, as there is no sign-in yet. Leave HOST out to listen on this machine only, or set GEOTOME_OPEN=1 if that is what you want.`,
  )
if (!isLoopback(host) && hosts.length === 0)
  fail(
    `HOST is ${host}, and GEOTOME_HOSTS names no host: a page of any name could be pointed at this server and use it. Name those by which people reach it, for example GEOTOME_HOSTS=geotome.office.lan,192.168.0.10.`,
  )
if (!isLoopback(host))
  process.stdout.write(
    `GEOTOME_OPEN=1: whoever reaches ${host} can read, change and delete all projects; there is no sign-in yet.\n`,
  )

const http = createServer()
// Longer than a browser or a proxy keeps an idle connection (300 s and 60 s): the one that asks ends it, never the server in
// the moment in which it is asked. With Node's 5 s a request fell into that gap now and then, and was lost.
http.keepAliveTimeout = 310_000
const client = process.argv.includes('--dev') ? await developing() : undefined
const running = await openApp(url, {
  ...(client ? { client } : {}),
  hosts,
  folder,
  logger: serverLog(folder, environment.GEOTOME_LOG),
}).catch((e: NodeJS.ErrnoException) => fail(sentence(e)))
http.on('request', running.app)
http.on('error', (e: NodeJS.ErrnoException) => fail(sentence(e)))
http.listen(port, host, () => {
  process.stdout.write(
    `Geotome is ready at http://${host.includes(':') ? `[${host}]` : host === '127.0.0.1' ? 'localhost' : host}:${port}\n`,
  )
  process.send?.('ready')
})

let closing = false
const close = () => {
  if (closing) return
  closing = true
  http.close()
  http.closeAllConnections()
  // Whatever is under way then: the database keeps what was acknowledged.
  setTimeout(() => process.exit(0), 2500).unref()
  void running.close().finally(() => process.exit(0))
}
process.on('SIGTERM', close)
process.on('SIGINT', close)
process.on('disconnect', close)

async function developing(): Promise<RequestHandler> {
  const { createServer: createVite } = await import('vite')
  const vite = await createVite({
    root: new URL('../../web', import.meta.url).pathname,
    server: { middlewareMode: { server: http }, hmr: { server: http } },
    appType: 'spa',
  })
  return vite.middlewares
}

function sentence(e: NodeJS.ErrnoException): string {
  if (e instanceof Refusal) return e.message
  switch (e.code) {
    case 'EADDRINUSE':
      return `Port ${port} is taken by another program. Stop it, or choose another port: PORT=${port + 1} npm start`
    case 'EACCES':
      return `Port ${port} may not be opened by this user. Choose one above 1023: PORT=4180 npm start`
    case 'ECONNREFUSED':
      return 'The database does not answer at DATABASE_URL. Start it, or leave DATABASE_URL out to use the private one.'
    case 'ER_ACCESS_DENIED_ERROR':
      return 'The database refuses the user or password in DATABASE_URL. Correct them.'
    case 'ER_BAD_DB_ERROR':
      return 'The database named in DATABASE_URL does not exist. Create it, or name another one.'
    case 'ENOSPC':
      return 'The disk is full. Free some space and start again.'
    default:
      return `Geotome could not start: ${e.message}`
  }
}

function fail(message: string): never {
  process.stderr.write(`${message}\n`)
  process.exit(1)
}
