import { useSyncExternalStore } from 'react'
import type { Vec2 } from '@geotome/core/solid'
import { toast } from 'sonner'
import { selectPresent } from '../app/project-slice'
import { makeEdit, tryEdit } from '../app/session'
import { store } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'
import { catchEdges } from './catch-edges'
import type { CatchEdge } from './catching'
import type { World } from './kind'
import { createRunner, type Running } from './runner'

let caught: { scheme: object; project: object; edges: CatchEdge[] } | null = null

/** The present as a tool or a handle sees it; null while no project is open. */
export function worldNow(id: World['id'] = () => crypto.randomUUID()): World | null {
  const state = store.getState()
  const present = selectPresent(state)
  if (!present) return null
  const { project, scheme } = present
  return {
    project,
    scheme,
    level: state.view.level ?? '',
    id,
    get marks() {
      const { study } = state.view
      const [ox, oy] = study?.origin ?? [0, 0]
      return (study?.pictures ?? []).flatMap((laid) =>
        laid.upright === null
          ? laid.marks.map(([x, y]) => ({ point: [x + ox, y + oy] as Vec2, word: 'mark on the picture' }))
          : [],
      )
    },
    get edges() {
      if (caught?.scheme !== scheme || caught.project !== project)
        caught = { scheme, project, edges: catchEdges(project, scheme) }
      return caught.edges
    },
  }
}

/** The page's one runner. */
export const runner = createRunner({
  taken: () => store.getState().view.tool,
  world: worldNow,
  make: makeEdit,
  show: tryEdit,
  refuse: (say) => void toast.error(say),
  leave: () => void store.dispatch(toolTaken(null)),
  take: (next) => void store.dispatch(toolTaken(next)),
  pick: (what) => void store.dispatch(picked(what)),
  follow: (changed) => void store.subscribe(changed),
})

/** The tool at work, or what is asked of it; only a change of that draws anew. */
export function useRunning<T>(ask: (running: Running | null) => T): T {
  return useSyncExternalStore(runner.subscribe, () => ask(runner.running()))
}
