import type { ExchangeList } from '@geotome/core/exchange'
import type { Edit } from '@geotome/core/edits'
import type { Project, Unit } from '@geotome/core/project'
import type { Sketch } from '@geotome/core/study'

export interface ProjectSummary {
  id: string
  name: string
  unit: Unit
  seq: number
  totalArea: number | null
  totalSeq: number | null
  siteArea: number | null
  changedAt: string
  changedBy: string | null
  /** when it was taken away; null: it is in the list */
  removedAt: string | null
}
/** A named moment of a project's log. */
export interface RestorePoint {
  id: string
  name: string
  seq: number
  at: string
}
export interface History {
  undo: string | null
  redo: string | null
}
export interface LoggedEdit {
  seq: number
  id: string
  author: string
  label: string
  kind: 'edit' | 'undo' | 'redo' | 'pass'
  edit: Edit
  /** when the server got it, ISO 8601 */
  at: string
}

/**
 * What the server refused, in its own sentence; `away` when it could not be reached, or could not do its own part: the same may be asked
 * again.
 */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
  get away(): boolean {
    return this.status === 0 || this.status >= 500
  }
}

export const api = {
  /** what can be written and read */
  exchange: () => call<ExchangeList>('GET', '/api/exchange'),
  projects: (taken = false) => call<ProjectSummary[]>('GET', `/api/projects${taken ? '?taken=away' : ''}`),
  sketch: (id: string, seq: number | null) => call<Sketch>('GET', `/api/projects/${id}/sketch?of=${seq ?? 0}`),
  duplicate: (id: string) => call<{ id: string; name: string }>('POST', `/api/projects/${id}/duplicate`, {}),
  create: (body: { name: string; unit: Unit; siteArea: number | null; starter: string | null }) =>
    call<{ id: string }>('POST', '/api/projects', body),
  remove: (id: string) => call<void>('DELETE', `/api/projects/${id}`),
  endForGood: (id: string) => call<void>('DELETE', `/api/projects/${id}/for-good`),
  restore: (id: string) => call<void>('POST', `/api/projects/${id}/restore`),
  importFile: (file: Blob) => call<{ id: string; mended: string | null }>('POST', '/api/projects/import', file),
  /** stores a picture or a survey by the hash of its content */
  putAsset: (content: Blob | Uint8Array) =>
    call<{ hash: string; type: string; bytes: number }>(
      'POST',
      '/api/assets',
      content instanceof Blob ? content : new Blob([content as BlobPart]),
    ),
  open: (id: string, author: string) =>
    call<{ seq: number; project: Project; history: History; total?: number | null }>(
      'GET',
      `/api/projects/${id}?author=${author}`,
    ),
  edit: (id: string, body: { id: string; author: string; label: string; edit: Edit }) =>
    call<{ seq: number; history: History }>('POST', `/api/projects/${id}/edits`, body),
  step: (id: string, which: 'undo' | 'redo', body: { id: string; author: string; pass: boolean }) =>
    call<{ seq: number; label: string; history: History }>('POST', `/api/projects/${id}/${which}`, body),
  since: (id: string, seq: number) => call<LoggedEdit[]>('GET', `/api/projects/${id}/edits?since=${seq}`),
  restorePoints: (id: string) => call<RestorePoint[]>('GET', `/api/projects/${id}/restore-points`),
  keepPoint: (id: string, body: { id: string; name: string }) =>
    call<{ id: string; seq: number }>('POST', `/api/projects/${id}/restore-points`, body),
  dropPoint: (id: string, point: string) => call<void>('DELETE', `/api/projects/${id}/restore-points/${point}`),
  at: (id: string, seq: number) => call<{ seq: number; project: Project }>('GET', `/api/projects/${id}/at/${seq}`),
  exportUrl: (id: string, format: string, scheme: string, moment: number | null) =>
    `/api/projects/${id}/export/${format}?scheme=${scheme}${moment === null ? '' : `&at=${moment}`}`,
}

export type Api = typeof api

/** Browsers let some 64 kB outlive the page, of all requests together. */
const LASTING = 16_000

/** A small request that is on its way goes on when the page is left. */
async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const raw = body instanceof Blob
  const content = raw || body === undefined ? body : JSON.stringify(body)
  let response: Response
  try {
    response = await fetch(path, {
      method,
      ...(content === undefined
        ? {}
        : {
            body: content,
            headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' },
            keepalive: !(content instanceof Blob) && content.length < LASTING,
          }),
    })
  } catch {
    throw new Problem('The server does not answer. Try again when it is back.', 0)
  }
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T
  const detail = await response.json().then(
    (p: { detail?: string }) => p.detail,
    () => undefined,
  )
  throw new Problem(detail ?? `The server answered ${response.status}. Try again.`, response.status)
}
