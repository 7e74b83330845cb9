import { doneBetween, type Done } from '@geotome/core/form'
import { selectProject, selectSchemeId } from './project-slice'
import { store } from './store'

let last: Done | null = null

/** What was done last to a mass in this window, to be done again. */
export const lastDone = (): Done | null => last

/** Follows what is made here. */
export function startLastDone(): () => void {
  let [was, before] = [store.getState().project.pending.at(-1)?.id, selectProject(store.getState())]
  return store.subscribe(() => {
    const state = store.getState()
    const [pending, project] = [state.project.pending.at(-1)?.id, selectProject(state)]
    const id = selectSchemeId(state)
    if (pending && pending !== was && project && before && id) {
      const [a, b] = [before.schemes[id], project.schemes[id]]
      if (a && b) last = doneBetween(project, a, b) ?? last
    }
    ;[was, before] = [pending ?? was, project]
  })
}
