import { In, type EntityManager } from 'typeorm'
import { Refusal } from '@geotome/core/project'
import { ProjectRow } from './entities'

/** A project's row. Errors: 'unknown-id' where there is none, or where it was taken away. */
export async function rowOf(manager: EntityManager, projectId: string, lock = false): Promise<ProjectRow> {
  const row = await manager.findOne(ProjectRow, {
    where: { id: projectId },
    ...(lock ? { lock: { mode: 'pessimistic_write' as const } } : {}),
  })
  if (!row || row.removedAt)
    throw new Refusal('unknown-id', 'There is no project at this address.', 'Go back to the list of projects.')
  return row
}

/** How far each of these projects has come; null for one that was taken away. */
export async function reached(manager: EntityManager, projectIds: string[]): Promise<Map<string, number | null>> {
  if (projectIds.length === 0) return new Map()
  const rows = await manager.find(ProjectRow, {
    select: { id: true, seq: true, removedAt: true },
    where: { id: In(projectIds) },
  })
  const there = new Map(rows.map((r) => [r.id, r.removedAt ? null : r.seq]))
  return new Map(projectIds.map((id) => [id, there.get(id) ?? null]))
}
