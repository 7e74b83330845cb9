import { readFile } from 'node:fs/promises'
import type { DataSource } from 'typeorm'
import { readProjectFile } from '@geotome/core/project'
import { ProjectRow } from './db/entities'
import { oneAtATime } from './db/source'
import type { EditLog } from './log/log'

/** Puts the demo project into an empty database. */
export async function seedDemo(source: DataSource, log: EditLog, file: string): Promise<void> {
  await oneAtATime(source, 'demo', async () => {
    if (await source.manager.count(ProjectRow) === 0) await log.create(readProjectFile(new Uint8Array(await readFile(file))))
  })
}
