import 'reflect-metadata'
import { workerData } from 'node:worker_threads'
import { IsNull, type DataSource } from 'typeorm'
import * as v from 'valibot'
import { parseEdit } from '@geotome/core/edits'
import { assetsIn, freeName, needBounds, type Project } from '@geotome/core/project'
import { AssetStore } from '../assets/store'
import { freeUnshown } from '../assets/unshown'
import { ProjectRow } from '../db/entities'
import { rowOf } from '../db/rows'
import { connect, oneAtATime } from '../db/source'
import { checked, Id } from '../http/problems'
import { answering, jsonBytes, type Given } from '../threads/answering'
import type { LogAsk, LogThreadTold, ProjectBytes } from './asks'
import { EditLog, loggedText } from './log'

/** A thread that reads and writes the log: whatever a request brings is parsed, checked and stored here, away from the request loop. */
const told = workerData as LogThreadTold
type Opened = { source: DataSource; log: EditLog; assets: AssetStore }
let opened: Promise<Opened> | null = null
answering<LogAsk, unknown>(async (ask) => {
  const { source, log, assets } = await (opened ??= open())
  return answer(source, log, assets, ask)
})

/** A database that is away now is asked again at the next question. */
async function open(): Promise<Opened> {
  try {
    const source = await connect(told.url, told.connections)
    return { source, log: new EditLog(source, told.heads), assets: new AssetStore(source) }
  } catch (e) {
    opened = null
    throw e
  }
}

const NewEdit = v.strictObject({ id: Id, author: Id, label: v.pipe(v.string(), v.maxLength(200)), edit: v.unknown() })

async function answer(source: DataSource, log: EditLog, assets: AssetStore, ask: LogAsk): Promise<Given<unknown>> {
  switch (ask.task) {
    case 'create': {
      await assets.putAll(ask.assets)
      await log.create({ ...(parsed(ask.project) as Project), id: ask.id })
      return { result: null }
    }
    case 'duplicate':
      return { result: await duplicate(source, log, ask) }
    case 'append': {
      const { id, author, label, edit } = checked(NewEdit, parsed(ask.body))
      const { seq } = await log.append(ask.id, { id, author, label, edit: parseEdit(edit) })
      return { result: { seq, label, history: await log.history(ask.id, author) } }
    }
    case 'step': {
      const { seq, label } = await log.step(ask.id, ask.author, ask.step, ask.which, ask.pass)
      return { result: { seq, label, history: await log.history(ask.id, ask.author) } }
    }
    case 'open': {
      const { totalArea, totalSeq } = await rowOf(source.manager, ask.id)
      const { seq, project } = await log.head(ask.id)
      const history = await log.history(ask.id, ask.author)
      return moved(jsonBytes({ seq, project, history, total: totalSeq === seq ? totalArea : null }))
    }
    case 'at':
      return moved(jsonBytes({ seq: ask.seq, project: await log.at(ask.id, ask.seq) }))
    case 'project':
      return projectBytes(log, assets, ask)
    case 'since': {
      const rows = await log.since(ask.id, ask.seq, ask.as === 'list' ? 500 : 50)
      const texts = rows.map((row) =>
        ask.as === 'list' ? loggedText(row) : `id: ${row.seq}\nevent: edit\ndata: ${loggedText(row)}\n\n`,
      )
      const text = new TextEncoder().encode(ask.as === 'list' ? `[${texts.join(',')}]` : texts.join(''))
      return { result: { text, seq: rows.at(-1)?.seq ?? ask.seq, count: rows.length }, move: [text] }
    }
    case 'put-asset':
      return { result: await assets.put(ask.bytes) }
    case 'free-assets':
      return { result: await oneAtATime(source, 'free-assets', () => freeUnshown(source)) }
  }
}

const moved = (result: Uint8Array): Given<Uint8Array> => ({ result, move: [result] })

/** Errors: status 400 for what is no JSON, 'size' for what nests deeper or holds more than any edit. */
function parsed(bytes: Uint8Array): unknown {
  const text = new TextDecoder().decode(bytes)
  needBounds(text)
  try {
    return JSON.parse(text)
  } catch {
    throw Object.assign(new Error('What was sent is no JSON. Send JSON with the type application/json.'), {
      status: 400,
    })
  }
}

/** A copy with an id of its own, as it is now; its log begins anew. Two that are made at one moment get two names, also of several servers. */
function duplicate(source: DataSource, log: EditLog, { of, id }: { of: string; id: string }) {
  return oneAtATime(source, 'duplicate', async () => {
    const { project } = await log.head(of)
    const names = await source.manager.find(ProjectRow, { select: { name: true }, where: { removedAt: IsNull() } })
    const name = freeName(
      `${project.name}, 2`.slice(0, 120),
      names.map((n) => n.name),
      (_, n) => `${project.name.slice(0, 110)}, ${n + 1}`,
    )
    await log.create({ ...project, id, name })
    return { id, name }
  })
}

async function projectBytes(
  log: EditLog,
  assets: AssetStore,
  { id, at, withAssets }: { id: string; at: number | null; withAssets: boolean },
): Promise<Given<ProjectBytes>> {
  const { seq, project } = at === null ? await log.head(id) : { seq: at, project: await log.at(id, at) }
  const along = withAssets ? await assets.all(assetsIn(project)) : {}
  const bytes = jsonBytes(project)
  return { result: { seq, name: project.name, project: bytes, assets: along }, move: [bytes, ...Object.values(along)] }
}
