import { randomUUID } from 'node:crypto'
import express, { Router } from 'express'
import { IsNull, Not, type DataSource } from 'typeorm'
import * as v from 'valibot'
import { formatNamed } from '@geotome/core/exchange'
import { starterNamed, STARTERS } from '@geotome/core/groundwork'
import { blankProject, NameSchema, Refusal, sayMended, UnitSchema } from '@geotome/core/project'
import { endForGood } from '../db/end-project'
import { ProjectRow } from '../db/entities'
import { rowOf } from '../db/rows'
import type { StudyPool } from '../jobs/study-pool'
import type { LogThreads } from '../log/log-threads'
import { jsonBytes } from '../threads/answering'
import { asBytes, askerOf, bodyOf, goneOf, sendBytes } from './bodies'
import type { EventStreams } from './events'
import { checked, Id, Seq } from './problems'
import { restorePointRoutes } from './restore-points'

const NewProject = v.strictObject({
  name: NameSchema,
  unit: UnitSchema,
  siteArea: v.nullable(v.pipe(v.number(), v.finite(), v.minValue(0.01, 'the site area is above zero'))),
  /** what it starts with besides a storey at the datum */
  starter: v.optional(v.nullable(v.picklist(STARTERS.map((s) => s.id))), null),
})
const Step = v.strictObject({ id: Id, author: Id, pass: v.optional(v.boolean(), false) })

/** /api/projects: the list, new and imported projects, their edits, events and exports. */
export function projectRoutes(source: DataSource, log: LogThreads, streams: EventStreams, pool: StudyPool): Router {
  const routes = Router()
  const json = express.json()
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
        removedAt: r.removedAt?.toISOString() ?? null,
      })),
    )
  })

  routes.post('/', json, async (request, response) => {
    const { name, unit, siteArea, starter } = checked(NewProject, request.body)
    const blank = blankProject(randomUUID, name, unit, siteArea)
    const project = starter ? starterNamed(starter).build(blank, randomUUID) : blank
    response.status(201).json({ id: await log.create(jsonBytes(project)) })
  })

  routes.post('/import', asBytes('150mb'), async (request, response) => {
    // An imported project gets an id of its own, so that importing twice overwrites nothing.
    const { project, assets, mended } = await pool.read(askerOf(request), bodyOf(request), goneOf(response))
    response.status(201).json({ id: await log.create(project, assets), mended: sayMended(mended) })
  })

  routes.post('/:id/duplicate', async (request, response) => {
    response.status(201).json(await log.duplicate(request.params.id))
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
    sendBytes(response, await log.open(request.params.id, author))
  })

  routes.delete('/:id', async (request, response) => {
    await rowOf(source.manager, request.params.id)
    await source.manager.update(ProjectRow, { id: request.params.id }, { removedAt: new Date() })
    streams.changed(request.params.id)
    response.status(204).end()
  })

  /** Ends a project for good that was removed before. */
  routes.delete('/:id/for-good', async (request, response) => {
    await endForGood(source, request.params.id)
    response.status(204).end()
  })

  /** Takes the removal of a project back. */
  routes.post('/:id/restore', async (request, response) => {
    await source.manager.update(ProjectRow, { id: request.params.id }, { removedAt: null })
    await rowOf(source.manager, request.params.id)
    response.status(204).end()
  })

  routes.get('/:id/edits', async (request, response) => {
    const since = checked(v.optional(Seq, '0'), request.query.since)
    await rowOf(source.manager, request.params.id)
    sendBytes(response, (await log.since(request.params.id, since, 'list')).text)
  })

  routes.post('/:id/edits', asBytes('64mb'), async (request, response) => {
    const { seq, history } = await log.append(request.params.id as string, bodyOf(request))
    response.status(201).json({ seq, history })
  })

  for (const which of ['undo', 'redo'] as const) {
    routes.post(`/:id/${which}`, json, async (request, response) => {
      const { id, author, pass } = checked(Step, request.body)
      response
        .status(201)
        .json(await log.step((request.params as { id: string }).id, { author, step: id, which, pass }))
    })
  }

  restorePointRoutes(routes, source, log)

  routes.get('/:id/events', async (request, response) => {
    await rowOf(source.manager, request.params.id)
    const resumed = request.headers['last-event-id']
    streams.open(request, response, request.params.id, checked(v.optional(Seq, '0'), resumed ?? request.query.since))
  })

  routes.get('/:id/export/:format', async (request, response) => {
    const format = formatNamed(request.params.format)
    // The present, or the project as it was at a moment of its log.
    const at = checked(v.optional(Seq), request.query.at)
    const scheme = checked(v.optional(v.nullable(Id), null), request.query.scheme)
    const { id } = request.params
    const { project, name, assets } = await log.project(id, at ?? null, format.id === 'geotome')
    const content = await pool.export(id, { project, scheme, format: format.id, assets }, goneOf(response))
    response
      .type(format.type)
      .attachment(`${name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'project'}.${format.extension}`)
    sendBytes(response, content)
  })
  return routes
}
