import { randomUUID } from 'node:crypto'
import express, { Router } from 'express'
import { IsNull, Not, type DataSource } from 'typeorm'
import * as v from 'valibot'
import { parseEdit } from '@geotome/core/edits'
import { formatNamed } from '@geotome/core/exchange'
import { starterNamed, STARTERS } from '@geotome/core/groundwork'
import { blankProject, freeName, NameSchema, Refusal, sayMended, UnitSchema, type Project } from '@geotome/core/project'
import type { AssetStore } from '../assets/store'
import { ProjectRow } from '../db/entities'
import { oneAtATime } from '../db/source'
import type { StudyPool } from '../jobs/study-pool'
import type { EditLog } from '../log/log'
import type { EventStreams } from './events'
import { checked } from './problems'
import { restorePointRoutes } from './restore-points'

const Id = v.pipe(v.string(), v.regex(/^[0-9a-zA-Z-]{1,64}$/, 'an id is made of letters, digits and dashes'))
const NewProject = v.strictObject({
  name: NameSchema,
  unit: UnitSchema,
  siteArea: v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0.01, 'the site area is above zero'))),
  /** what it starts with besides a storey at the datum */
  starter: v.optional(v.nullable(v.picklist(STARTERS.map((s) => s.id))), null),
})
const NewEdit = v.strictObject({ id: Id, author: Id, label: v.pipe(v.string(), v.maxLength(200)), edit: v.unknown() })
const Step = v.strictObject({ id: Id, author: Id, pass: v.optional(v.boolean(), false) })
const Seq = v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'a sequence number is a whole number'), v.transform(Number))

/** /api/projects: the list, new and imported projects, their edits, events and exports. */
export function projectRoutes(
  source: DataSource,
  log: EditLog,
  streams: EventStreams,
  pool: StudyPool,
  assets: AssetStore,
): Router {
  const routes = Router()
  const json = express.json({ limit: '64mb' })
  // An id that none could be names no project; the database need not be asked.
  routes.param('id', (_request, _response, next, id: string) => {
    next(
      v.is(Id, id)
        ? undefined
        : new Refusal('unknown-id', 'There is no project at this address.', 'Go back to the list of projects.'),
    )
  })

  routes.get('/', async (request, response) => {
    const { taken } = checked(v.object({ taken: v.optional(v.literal('away')) }), request.query)
    const rows = await source.manager.find(ProjectRow, {
      where: { removedAt: taken ? Not(IsNull()) : IsNull() },
      order: taken ? { removedAt: 'DESC' } : { changedAt: 'DESC' },
      ...(taken ? { take: 50 } : {}),
    })
    response.json(
      rows.map((r) => ({
        id: r.id,
        name: r.name,
        unit: r.unit,
        seq: r.seq,
        totalArea: r.totalArea,
        totalSeq: r.totalSeq,
        siteArea: r.siteArea,
        changedAt: r.changedAt.toISOString(),
        changedBy: r.changedBy,
      })),
    )
  })

  routes.post('/', json, async (request, response) => {
    const { name, unit, siteArea, starter } = checked(NewProject, request.body)
    const blank = blankProject(randomUUID, name, unit, siteArea)
    const project = starter ? starterNamed(starter).build(blank, randomUUID) : blank
    await log.create(project)
    response.status(201).json({ id: project.id })
  })

  routes.post('/import', express.raw({ type: () => true, limit: '150mb' }), async (request, response) => {
    // Unpacked and checked away from the request loop; an imported project gets an id of its own, so that importing twice overwrites nothing.
    const {
      project: read,
      assets: along,
      mended,
    } = await pool.read(new Uint8Array(Buffer.isBuffer(request.body) ? request.body : []))
    const project: Project = { ...read, id: randomUUID() }
    await assets.putAll(along)
    await log.create(project)
    response.status(201).json({ id: project.id, mended: sayMended(mended) })
  })

  /** A copy with an id of its own, as it is now; its log begins anew. */
  routes.post('/:id/duplicate', json, async (request, response) => {
    const { project } = await log.head(request.params.id)
    // One after the other, also of several servers: two that are made at one moment get two names.
    const copy = await oneAtATime(source, 'duplicate', async () => {
      const names = await source.manager.find(ProjectRow, { select: { name: true }, where: { removedAt: IsNull() } })
      const name = freeName(
        `${project.name}, 2`.slice(0, 120),
        names.map((n) => n.name),
        (_, n) => `${project.name.slice(0, 110)}, ${n + 1}`,
      )
      const named: Project = { ...project, id: randomUUID(), name }
      await log.create(named)
      return named
    })
    response.status(201).json({ id: copy.id, name: copy.name })
  })

  /** The small picture that the list shows. */
  routes.get('/:id/sketch', async (request, response) => {
    const row = await source.manager.findOne(ProjectRow, {
      select: { id: true, sketch: true },
      where: { id: request.params.id },
    })
    response.set('cache-control', 'private, max-age=600')
    response.type('json').send(row?.sketch ?? '{"shapes":[]}')
  })

  routes.get('/:id', async (request, response) => {
    const author = checked(v.optional(Id, 'nobody'), request.query.author)
    const { seq, project } = await log.head(request.params.id)
    response.json({ seq, project, history: await log.history(request.params.id, author) })
  })

  routes.delete('/:id', async (request, response) => {
    await log.head(request.params.id)
    await source.manager.update(ProjectRow, { id: request.params.id }, { removedAt: new Date() })
    streams.changed(request.params.id)
    response.status(204).end()
  })

  /** Takes the removal of a project back. */
  routes.post('/:id/restore', async (request, response) => {
    await source.manager.update(ProjectRow, { id: request.params.id }, { removedAt: null })
    await log.head(request.params.id)
    response.status(204).end()
  })

  routes.get('/:id/edits', async (request, response) => {
    await log.head(request.params.id)
    response.json(await log.since(request.params.id, checked(v.optional(Seq, '0'), request.query.since)))
  })

  routes.post('/:id/edits', json, async (request, response) => {
    const { id, author, label, edit } = checked(NewEdit, request.body)
    const logged = await log.append(request.params.id as string, { id, author, label, edit: parseEdit(edit) })
    response.status(201).json({ seq: logged.seq, history: await log.history(request.params.id as string, author) })
  })

  for (const which of ['undo', 'redo'] as const) {
    routes.post(`/:id/${which}`, json, async (request, response) => {
      const { id, author, pass } = checked(Step, request.body)
      const projectId = (request.params as { id: string }).id
      const logged = await log.step(projectId, author, id, which, pass)
      response.status(201).json({ seq: logged.seq, label: logged.label, history: await log.history(projectId, author) })
    })
  }

  restorePointRoutes(routes, source, log)

  routes.get('/:id/events', async (request, response) => {
    await log.head(request.params.id)
    const resumed = request.headers['last-event-id']
    streams.open(request, response, request.params.id, checked(v.optional(Seq, '0'), resumed ?? request.query.since))
  })

  routes.get('/:id/export/:format', async (request, response) => {
    const format = formatNamed(request.params.format)
    // The present, or the project as it was at a moment of its log.
    const at = checked(v.optional(Seq), request.query.at)
    const project = at === undefined ? (await log.head(request.params.id)).project : await log.at(request.params.id, at)
    const content = await pool.export(
      project,
      checked(v.optional(v.nullable(Id), null), request.query.scheme),
      format.id,
      format.id === 'geotome' ? await assets.of(project) : {},
    )
    response
      .type(format.type)
      .attachment(`${project.name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'project'}.${format.extension}`)
    response.send(typeof content === 'string' ? content : Buffer.from(content))
  })
  return routes
}
