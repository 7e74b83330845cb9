import { readFile, readdir } from 'node:fs/promises'
import { join } from 'node:path'
import type { DataSource } from 'typeorm'
import { readProjectFile } from '@geotome/core/project'
import { ProjectRow } from './db/entities'
import { oneAtATime } from './db/source'
import type { LogThreads } from './log/log-threads'
import { jsonBytes } from './threads/answering'

/** Puts the demo project, with its pictures and its survey, into an empty database. */
export async function seedDemo(source: DataSource, log: LogThreads, folder: string): Promise<void> {
  await oneAtATime(source, 'demo', async () => {
    if ((await source.manager.count(ProjectRow)) > 0) return
    for (const name of await readdir(join(folder, 'assets')).catch(() => []))
      await log.putAsset('demo', new Uint8Array(await readFile(join(folder, 'assets', name))))
    const demo = readProjectFile(new Uint8Array(await readFile(join(folder, 'kiln-quay.geotome.json'))))
    await log.create(jsonBytes(demo), {}, demo.id)
  })
}
