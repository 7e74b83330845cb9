import { readFile } from 'node:fs/promises'
import type { DataSource } from 'typeorm'
import { readProjectFile } from '@geotome/core/project'
import { ProjectRow } from './db/entities'
import type { EditLog } from './log/log'

/** Puts the demo project into an empty database. */
export async function seedDemo(source: DataSource, log: EditLog, file: string): Promise<void> {
  if (await source.manager.count(ProjectRow) > 0) return
  await log.create(readProjectFile(new Uint8Array(await readFile(file))))
}
