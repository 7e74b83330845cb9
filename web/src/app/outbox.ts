import { createStore, del, entries, set, type UseStore } from 'idb-keyval'
import { editOfLog, LOG_FORMAT, type Edit } from '@geotome/core/edits'
import { Refusal } from '@geotome/core/project'
import type { PendingEdit } from './project-slice'

/**
 * Edits that the server has not acknowledged, kept in the browser: they survive leaving the page, a crash of the browser, and a server that is
 * away. Each stands under its project and its place in the order in which they were made. Where the browser keeps nothing, they live in the window only.
 */
interface Kept extends PendingEdit {
  project: string
  author: string
  /** what it is written in: a newer page may find what an older one has left; none: the first format */
  format?: number
  /** the server's sentence, where it did not take it: kept to be tried again when the person says so */
  why?: string
}

let store: UseStore | null | undefined
function storeOf(): UseStore | null {
  if (store === undefined)
    try {
      store = createStore('geotome', 'outbox')
    } catch {
      store = null
    }
  return store
}

/** Whether this browser keeps edits. */
export const keepsEdits = (): boolean => storeOf() !== null

let last = 0
/** Keys sort by the time at which edits were made; two of one moment by a counter. */
const keyOf = (project: string): string => {
  last = Math.max(last + 1, Date.now() * 1000)
  return `${project} ${String(last).padStart(20, '0')}`
}
const keys = new Map<string, Promise<string | null>>()

/** Keeps an edit until it is acknowledged. */
export function keep(project: string, author: string, edit: PendingEdit & { why?: string }): void {
  const kept = storeOf()
  if (!kept) return
  const key = keyOf(project)
  keys.set(
    edit.id,
    set(key, { ...edit, project, author, format: LOG_FORMAT } satisfies Kept, kept).then(
      () => key,
      () => null,
    ),
  )
}

/** The edit is in the log, or was refused: it need not be kept. */
export async function forget(id: string): Promise<void> {
  const kept = storeOf()
  const key = await keys.get(id)
  keys.delete(id)
  if (kept && key) await del(key, kept).catch(() => undefined)
}

/** What was left of a project, in order. */
export async function leftOf(project: string): Promise<(PendingEdit & { author: string; why?: string })[]> {
  return (await all())
    .filter((k) => k.edit.project === project)
    .map(({ key, edit }) => {
      keys.set(edit.id, Promise.resolve(key))
      return { ...edit, edit: asToday(edit) }
    })
}

/** One that cannot be read any more stays as it is, for the server to refuse. */
function asToday({ edit, format = 1 }: Kept): Edit {
  try {
    return format === LOG_FORMAT ? edit : editOfLog(format, edit)
  } catch (e) {
    if (e instanceof Refusal) return edit
    throw e
  }
}

/** How many edits wait, by project. */
export async function waiting(): Promise<Map<string, number>> {
  const count = new Map<string, number>()
  for (const { edit } of await all())
    if (edit.why === undefined) count.set(edit.project, (count.get(edit.project) ?? 0) + 1)
  return count
}

async function all(): Promise<{ key: string; edit: Kept }[]> {
  const kept = storeOf()
  if (!kept) return []
  const found = await entries<string, Kept>(kept).catch(() => [])
  return found.map(([key, edit]) => ({ key: String(key), edit })).sort((a, b) => (a.key < b.key ? -1 : 1))
}

/** What a session asks of the store of unsent edits. */
export interface Outbox {
  keep: typeof keep
  forget: typeof forget
  leftOf: typeof leftOf
  waiting: typeof waiting
  keepsEdits: typeof keepsEdits
}
