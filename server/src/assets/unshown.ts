import { LessThan, type DataSource } from 'typeorm'
import { AssetPieceRow, AssetRow, CheckpointRow, EditRow, ProjectRow } from '../db/entities'

/** days for which an asset is kept that nothing shows: it may be on its way into a project */
const KEPT_DAYS = 30
/** asks the database for rows that may name an asset; their texts are read after */
const NAMES_ASSET = '[0-9a-f]{64}'

/**
 * Frees the pictures and surveys that no project shows or ever showed, of those too that were removed and can be brought back; undo and moments of
 * the past find theirs. Gives how many were freed.
 */
export async function freeUnshown(source: DataSource, now = new Date()): Promise<number> {
  const { manager } = source
  const cutoff = new Date(now.getTime() - KEPT_DAYS * 24 * 60 * 60 * 1000)
  const old = await manager.find(AssetRow, { select: { hash: true }, where: { at: LessThan(cutoff) } })
  const unshown = new Set(old.map((a) => a.hash))
  for (const { id } of await manager.find(ProjectRow, { select: { id: true } })) {
    if (unshown.size === 0) break
    for (const text of await textsWithAssets(source, id))
      for (const [hash] of text.matchAll(/[0-9a-f]{64}/g)) unshown.delete(hash)
  }
  let freed = 0
  for (const hash of unshown)
    freed += await source.transaction(async (work) => {
      // One that was sent again meanwhile stays.
      const { affected } = await work.delete(AssetRow, { hash, at: LessThan(cutoff) })
      if (affected) await work.delete(AssetPieceRow, { hash })
      return affected ?? 0
    })
  return freed
}

async function textsWithAssets(source: DataSource, projectId: string): Promise<string[]> {
  const checkpoints = await source.manager
    .createQueryBuilder(CheckpointRow, 'c')
    .where('c.projectId = :projectId AND c.data REGEXP :what', { projectId, what: NAMES_ASSET })
    .getMany()
  const edits = await source.manager
    .createQueryBuilder(EditRow, 'e')
    .where('e.projectId = :projectId AND (e.edit REGEXP :what OR e.inverse REGEXP :what)', {
      projectId,
      what: NAMES_ASSET,
    })
    .getMany()
  return [...checkpoints.map((c) => c.data), ...edits.flatMap((e) => [e.edit, e.inverse])]
}
