import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { applyLogged, editOfLog, LOG_FORMAT, projectOfLog } from '@geotome/core/edits'
import { writeProjectText, type Project } from '@geotome/core/project'
import { CheckpointRow, EditRow, ProjectRow } from '../src/db/entities'
import { openDatabase } from '../src/db/source'
import { EditLog, loggedText, type LoggedEdit } from '../src/log/log'
import { startDatabase } from './api'

const folder = mkdtempSync(join(tmpdir(), 'gt-older-'))
let database: Awaited<ReturnType<typeof startDatabase>>
beforeAll(async () => {
  database = await startDatabase(folder)
})
afterAll(async () => {
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
})

it.each(Array.from({ length: LOG_FORMAT }, (_, i) => i + 1))(
  'a log of format %i: windows get its edits as they are written today, and the newest can be taken back',
  async (format) => {
    const golden = JSON.parse(readFileSync(`core/testing/logs/format-${format}.json`, 'utf8')) as {
      start: { id: string; name: string }
      edits: unknown[]
    }
    const source = await openDatabase(database.url)
    const log = new EditLog(source)
    const id = `of-format-${format}`
    const start = { ...golden.start, id }
    const edits = golden.edits.filter((e) => (e as { edit: string }).edit !== 'whole.set')
    // The newest says a layer as its format did.
    const wall = Object.keys(projectOfLog(format, start).buildUps)[0] ?? ''
    const place = format === 1 ? '0' : 'layer-1'
    edits.push({
      edit: 'patch',
      changes: [
        { at: ['buildUps', wall, 'layers', place, 'thickness'], was: { sign: 'as it was then' }, to: { is: 0.2 } },
      ],
    })
    await source.manager.insert(ProjectRow, {
      id,
      name: golden.start.name,
      unit: 'm',
      seq: edits.length,
      changedAt: new Date(),
    })
    await source.manager.insert(CheckpointRow, { projectId: id, seq: 0, data: JSON.stringify(start), format })
    await source.manager.insert(
      EditRow,
      edits.map((edit, i) => ({
        projectId: id,
        seq: i + 1,
        editId: `e${i}`,
        author: 'a',
        label: 'then',
        kind: 'edit' as const,
        ofSeq: null,
        edit: JSON.stringify(edit),
        inverse: JSON.stringify({ edit: 'patch', changes: [] }),
        format,
        at: new Date(),
      })),
    )
    const begun = projectOfLog(format, start)
    const heard = (await log.since(id, 0)).map((row) => JSON.parse(loggedText(row)) as LoggedEdit)
    expect(heard).toHaveLength(edits.length)
    // What a window does with them is what the log means.
    const there = heard.reduce<Project>((p, e) => applyLogged(p, editOfLog(LOG_FORMAT, e.edit)), begun)
    expect(writeProjectText((await log.head(id)).project)).toBe(writeProjectText(there))
    expect(there.buildUps[wall]?.layers[0]).toMatchObject({ id: 'layer-1', thickness: 0.2 })
    if (format < LOG_FORMAT) {
      await log.step(id, 'a', 'back', 'undo')
      const before = heard.slice(0, -1).reduce<Project>((p, e) => applyLogged(p, e.edit), begun)
      expect(writeProjectText((await log.head(id)).project)).toBe(writeProjectText(before))
    }
    await source.destroy()
  },
)
