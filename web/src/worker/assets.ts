import type { Project } from '@geotome/core/project'

/** Surveys that a study reads, fetched once by their hash; null while one is not to be had. */
const kept = new Map<string, Uint8Array | null>()
const tried = new Map<string, number>()
const AGAIN = 5000

export const assetAt = (hash: string): Uint8Array | null => kept.get(hash) ?? null

/** Sees to it that the terrain of a project is here; one that was not to be had is tried again after a while. */
export async function needAssets(project: Project): Promise<void> {
  if (project.terrain?.kind !== 'survey') return
  const hash = project.terrain.asset
  if (kept.get(hash) || Date.now() - (tried.get(hash) ?? -AGAIN) < AGAIN) return
  tried.set(hash, Date.now())
  try {
    const response = await fetch(`/api/assets/${hash}`)
    kept.set(hash, response.ok ? new Uint8Array(await response.arrayBuffer()) : null)
  } catch {
    kept.set(hash, null)
  }
}
