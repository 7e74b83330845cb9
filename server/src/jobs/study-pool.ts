import type { AssetBytes } from '@geotome/core/project'
import { ThreadPool } from '../threads/pool'

/** Projects come as the bytes of their JSON: the request loop passes them on without a look. */
export type StudyAsk =
  | { task: 'total'; project: Uint8Array }
  | { task: 'export'; project: Uint8Array; scheme: string | null; format: string; stamp: string; assets: AssetBytes }
  | { task: 'read'; bytes: Uint8Array }
/** What the list of projects shows of one. */
export interface ListFigures {
  area: number
  site: number | null
  sketch: string
}
/** A project file, unpacked and checked: the project as the bytes of its JSON. */
export interface FileRead {
  project: Uint8Array
  assets: AssetBytes
  mended: string[]
}
export type StudyResult = ListFigures | Uint8Array | FileRead

/** s that each kind of work may take */
const SECONDS = { total: 120, export: 180, read: 60 }
/** MB of a thread; the kernel's memory comes on top */
const MEMORY = 2000

/** Studies, exports and files to be read, in several threads; one of them may be long without keeping the others. */
export class StudyPool {
  private readonly pool = new ThreadPool<StudyAsk>({
    script: new URL('./study-thread.mjs', import.meta.url),
    threads: 3,
    atOnce: 1,
    ofEach: 1,
    memory: MEMORY,
    canEnd: true,
  })

  /** The figures of the list; `id` is the project whose turn it takes, as everywhere here. */
  total(id: string, project: Uint8Array): Promise<ListFigures> {
    return this.pool.ask({ task: 'total', project }, wish(id, 'The total', SECONDS.total, [project]))
  }

  export(
    id: string,
    of: { project: Uint8Array; scheme: string | null; format: string; assets: AssetBytes },
    gone?: AbortSignal,
  ): Promise<Uint8Array> {
    return this.pool.ask(
      { task: 'export', stamp: new Date().toISOString(), ...of },
      wish(id, 'The export', SECONDS.export, [of.project], gone),
    )
  }

  /** Unpacks and checks a project file. Errors: 'file'. */
  read(asker: string, bytes: Uint8Array, gone?: AbortSignal): Promise<FileRead> {
    return this.pool.ask({ task: 'read', bytes }, wish(asker, 'Reading the file', SECONDS.read, [bytes], gone))
  }

  close(): Promise<void> {
    return this.pool.close()
  }
}

const wish = (project: string, what: string, seconds: number, move: Uint8Array[], gone?: AbortSignal) => ({
  project,
  what,
  seconds,
  move,
  gone,
})
