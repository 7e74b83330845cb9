import { exchangeList } from '@geotome/core/exchange'
import compression from 'compression'
import pino, { type Logger } from 'pino'
import express, { type Express, type RequestHandler } from 'express'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { AssetStore } from './assets/store'
import { openDatabase } from './db/source'
import { assetRoutes } from './http/assets'
import { EventStreams } from './http/events'
import { notFound, problems } from './http/problems'
import { requestLog } from './http/request-log'
import { projectRoutes } from './http/projects'
import { onlyOurHosts, onlyOurPages, onlyOurTypes, PAGE_POLICY, roomOnDisk, WORKER_POLICY } from './http/strangers'
import { JobRunner } from './jobs/runner'
import { StudyPool } from './jobs/study-pool'
import { reached } from './db/rows'
import { LogThreads } from './log/log-threads'
import { seedDemo } from './seed'
import { standInRoutes } from './stand-ins/routes'

const root = resolve(import.meta.dirname ?? '.', '../..')
export const VERSION = (JSON.parse(readFileSync(resolve(root, 'package.json'), 'utf8')) as { version: string }).version

export interface Running {
  app: Express
  close(): Promise<void>
}

/** How the application meets its surroundings: the client as middleware while developing; who may ask; where the private database keeps its data. */
export interface Surroundings {
  client?: RequestHandler
  /** names of hosts that it answers to besides this machine's; see GEOTOME_HOSTS */
  hosts?: readonly string[]
  folder?: string | null
  logger?: Logger
}

const MINUTE = 60_000
/** ms in which the database says that it is there */
const HEALTH_PATIENCE = 700

/** The whole application on a database: API, events, jobs, and the client. */
export async function openApp(
  databaseUrl: string,
  { client, hosts = [], folder = null, logger = pino({ level: 'silent' }) }: Surroundings = {},
): Promise<Running> {
  const source = await openDatabase(databaseUrl)
  const log: LogThreads = new LogThreads(source, databaseUrl, (id) => streams.changed(id))
  const streams = new EventStreams({
    since: (id, seq) => log.since(id, seq, 'events'),
    reached: (ids) => reached(source.manager, ids),
  })
  const pool = new StudyPool()
  const runner = new JobRunner(source, log, pool, logger)
  await seedDemo(source, log, resolve(root, 'demo'))
  runner.start()
  const tidy = () =>
    void log.freeAssets().catch((e: unknown) => logger.warn(e, 'assets that nothing shows were not freed'))
  const timers = [setTimeout(tidy, MINUTE), setInterval(tidy, 24 * 60 * MINUTE)].map((t) => t.unref())

  const app = express()
  app.disable('x-powered-by')
  app.use((_request, response, next) => {
    response.set({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      'cross-origin-resource-policy': 'same-origin',
      ...(client ? {} : { 'content-security-policy': PAGE_POLICY }),
    })
    next()
  })
  app.use(onlyOurHosts(hosts), onlyOurPages)
  app.use(
    compression({
      filter: (request, response) => !request.path.endsWith('/events') && compression.filter(request, response),
    }),
  )
  app.get('/api/exchange', (_request, response) => void response.json(exchangeList()))
  app.get('/api/health', async (_request, response) => {
    const answers = source.query('SELECT 1').then(
      () => true,
      () => false,
    )
    const tooLate = new Promise<boolean>((late) => setTimeout(() => late(false), HEALTH_PATIENCE).unref())
    const up = await Promise.race([answers, tooLate])
    response.status(up ? 200 : 503).json({ server: 'up', database: up ? 'up' : 'down', version: VERSION })
  })
  app.use('/api', requestLog(logger), onlyOurTypes, roomOnDisk(folder))
  app.use('/api/projects', projectRoutes(source, log, streams, pool))
  app.use('/api/assets', assetRoutes(new AssetStore(source), log))
  app.use('/api/stand-ins', standInRoutes())
  app.use('/api', notFound)
  app.use(client ?? builtClient())
  app.use(problems)
  return {
    app,
    close: async () => {
      for (const timer of timers) clearInterval(timer)
      streams.close()
      // The threads first: a long study is not waited for.
      await Promise.all([pool.close(), log.close()])
      await runner.stop()
      await source.destroy()
    },
  }
}

/** The built client; files with a hash in their names are kept by browsers for ever, the page itself never. */
function builtClient(): RequestHandler {
  const dist = resolve(root, 'web/dist')
  const files = express.static(dist, {
    index: false,
    setHeaders: (response, path) => {
      response.set('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache')
      if (/study-worker-[^/]*\.js$/.test(path)) response.set('content-security-policy', WORKER_POLICY)
    },
  })
  return (request, response, next) =>
    files(request, response, (error: unknown) => {
      if (error || request.method !== 'GET' || request.path.startsWith('/assets/')) {
        next(error)
        return
      }
      response.set('cache-control', 'no-cache').sendFile(resolve(dist, 'index.html'), (failed) => {
        if (failed) next(failed)
      })
    })
}
