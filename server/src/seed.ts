import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { DataSource } from 'typeorm'
import { readProjectFile } from '@geotome/core/project'
import type { AssetStore } from './assets/store'
import { ProjectRow } from './db/entities'
import { oneAtATime } from './db/source'
import type { EditLog } from './log/log'

/** Puts the demo project, with its pictures and its survey, into an empty database. */
export async function seedDemo(source: DataSource, log: EditLog, assets: AssetStore, folder: string): Promise<void> {
  await oneAtATime(source, 'demo', async () => {
    if ((await source.manager.count(ProjectRow)) > 0) return
    for (const name of await readdir(join(folder, 'assets')).catch(() => []))
      await assets.put(new Uint8Array(await readFile(join(folder, 'assets', name))))
    await log.create(readProjectFile(new Uint8Array(await readFile(join(folder, 'kiln-quay.geotome.json')))))
  })
}
