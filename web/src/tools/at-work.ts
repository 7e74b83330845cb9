import { useSyncExternalStore } from 'react'
import type { Vec2 } from '@geotome/core/solid'
import { selectPresent } from '../app/project-slice'
import { makeEdit, tryEdit, whileTyping } from '../app/session'
import { store } from '../app/store'
import { picked, toolTaken } from '../app/view-slice'
import type { Project, Scheme } from '@geotome/core/project'
import { catchEdges, centresOf } from './catch-edges'
import type { CatchEdge } from './catching'
import type { World } from './kind'
import { createRunner, type Running } from './runner'
import { tellFault } from '../common/tell'

let caught: { scheme: Scheme; project: Project; edges: CatchEdge[]; centres: World['marks'] } | null = null

/** What can be caught of a scheme's masses, worked out once. */
function caughtIn(project: Project, scheme: Scheme) {
  if (caught?.scheme !== scheme || caught.project !== project)
    caught = { scheme, project, edges: catchEdges(project, scheme), centres: centresOf(project, scheme) }
  return caught
}

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
      const pictures = (study?.pictures ?? []).flatMap((laid) =>
        laid.upright === null
          ? laid.marks.map(([x, y]) => ({ point: [x + ox, y + oy] as Vec2, word: 'mark on the picture' }))
          : [],
      )
      return [...caughtIn(project, scheme).centres, ...pictures]
    },
    get edges() {
      return caughtIn(project, scheme).edges
    },
  }
}

/** The page's one runner. */
export const runner = createRunner({
  taken: () => store.getState().view.tool,
  world: worldNow,
  make: makeEdit,
  show: (edit, isTyped) => (isTyped ? whileTyping(() => tryEdit(edit)) : tryEdit(edit)),
  refuse: (say) => tellFault(say),
  leave: () => void store.dispatch(toolTaken(null)),
  take: (next) => void store.dispatch(toolTaken(next)),
  pick: (what) => void store.dispatch(picked(what)),
  follow: (changed) => void store.subscribe(changed),
})

/** The tool at work, or what is asked of it; only a change of that draws anew. */
export function useRunning<T>(ask: (running: Running | null) => T): T {
  return useSyncExternalStore(runner.subscribe, () => ask(runner.running()))
}
