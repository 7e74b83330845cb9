import type { AssetBytes } from '@geotome/core/project'
import type { LoggedEdit } from './log'

/** What a thread of the log is told when it starts. */
export interface LogThreadTold {
  url: string
  connections: number
  /** so many heads of projects it holds */
  heads: number
}

/** What a thread of the log is asked. Projects and edits are bytes of JSON: the request loop passes them on without a look. */
export type LogAsk =
  | { task: 'create'; id: string; project: Uint8Array; assets: AssetBytes }
  | { task: 'duplicate'; of: string; id: string }
  | { task: 'append'; id: string; body: Uint8Array }
  | { task: 'step'; id: string; author: string; step: string; which: 'undo' | 'redo'; pass: boolean }
  | { task: 'open'; id: string; author: string }
  | { task: 'at'; id: string; seq: number }
  | { task: 'project'; id: string; at: number | null; withAssets: boolean }
  | { task: 'since'; id: string; seq: number; as: 'list' | 'events' }
  | { task: 'put-asset'; bytes: Uint8Array }
  | { task: 'free-assets' }

export interface Acknowledged {
  seq: number
  label: string
  history: { undo: string | null; redo: string | null }
}
export interface ProjectBytes {
  seq: number
  name: string
  project: Uint8Array
  assets: AssetBytes
}
export interface EditsSince {
  text: Uint8Array
  /** the last one's sequence number */
  seq: LoggedEdit['seq']
  count: number
}
