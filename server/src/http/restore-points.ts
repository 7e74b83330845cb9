import express, { type Router } from 'express'
import type { DataSource } from 'typeorm'
import * as v from 'valibot'
import { NameSchema, Refusal } from '@geotome/core/project'
import { RestorePointRow } from '../db/entities'
import { rowOf } from '../db/rows'
import type { LogThreads } from '../log/log-threads'
import { sendBytes } from './bodies'
import { checked, Id, Seq } from './problems'

const NewPoint = v.strictObject({ id: Id, name: NameSchema })

/** Named moments of a project's log: the list, a new one for the present, and the project as it was at one. */
export function restorePointRoutes(routes: Router, source: DataSource, log: LogThreads): void {
  routes.get('/:id/restore-points', async (request, response) => {
    await rowOf(source.manager, request.params.id)
    const rows = await source.manager.find(RestorePointRow, {
      where: { projectId: request.params.id },
      order: { seq: 'DESC', at: 'DESC' },
    })
    response.json(rows.map((r) => ({ id: r.id, name: r.name, seq: r.seq, at: r.at.toISOString() })))
  })

  routes.post('/:id/restore-points', express.json(), async (request, response) => {
    const projectId = (request.params as { id: string }).id
    const { id, name } = checked(NewPoint, request.body)
    const { seq } = await rowOf(source.manager, projectId)
    // One that is sent twice keeps the moment at which it came first.
    await source.manager
      .createQueryBuilder()
      .insert()
      .orIgnore()
      .into(RestorePointRow)
      .values({ projectId, id, name, seq, at: new Date() })
      .execute()
    const kept = await source.manager.findOneByOrFail(RestorePointRow, { projectId, id })
    if (kept.name !== name)
      throw new Refusal('id-taken', 'Another restore point has this id; nothing was stored.', 'Send it under a new id.')
    response.status(201).json({ id, seq: kept.seq })
  })

  routes.delete('/:id/restore-points/:point', async (request, response) => {
    await source.manager.delete(RestorePointRow, { projectId: request.params.id, id: request.params.point })
    response.status(204).end()
  })

  routes.get('/:id/at/:seq', async (request, response) => {
    const seq = checked(Seq, request.params.seq)
    sendBytes(response, await log.at(request.params.id, seq))
  })
}
