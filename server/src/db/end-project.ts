import type { DataSource } from 'typeorm'
import { Refusal } from '@geotome/core/project'
import { ENTITIES, ProjectRow } from './entities'

/** Ends a removed project for good: its row, its log and all that was read off it. Its assets go when nothing else shows them (assets/unshown.ts). Errors: 'unknown-id', 'in-use'. */
export async function endForGood(source: DataSource, projectId: string): Promise<void> {
  await source.transaction(async (manager) => {
    const row = await manager.findOne(ProjectRow, { where: { id: projectId }, lock: { mode: 'pessimistic_write' } })
    if (!row)
      throw new Refusal('unknown-id', 'There is no project at this address.', 'Go back to the list of projects.')
    if (!row.removedAt)
      throw new Refusal(
        'in-use',
        `"${row.name}" is in the list of projects.`,
        'Take it away first; then it can be ended.',
      )
    for (const entity of ENTITIES) {
      const { columns } = source.getMetadata(entity)
      if (columns.some((c) => c.propertyName === 'projectId')) await manager.delete(entity, { projectId })
    }
    await manager.delete(ProjectRow, { id: projectId })
  })
}
