import { dependentsOf, removeLevel } from '@geotome/core/levels'
import { selectProject, selectScheme } from '../app/project-slice'
import { makeEdit } from '../app/session'
import { store } from '../app/store'
import { levelShown, picked } from '../app/view-slice'
import { confirmed } from '../common/confirm'

/** Deletes a level; asks only when something hangs on it, and says what. */
export async function deleteLevel(id: string): Promise<void> {
  const project = selectProject(store.getState())
  const scheme = selectScheme(store.getState())
  const level = scheme?.levels[id]
  if (!project || !scheme || !level) return
  const hanging = dependentsOf(scheme, id)
  const standing = hanging.parts.filter((p) => p.base?.level === id)
  const say = [
    hanging.levels.length ? `${hanging.levels.map((l) => l.name).join(', ')} will stand on what it stood on, at the same height.` : '',
    hanging.masses.length ? `${hanging.masses.map((m) => m.name).join(', ')} will stand on the nearest storey, at the same height.` : '',
    standing.length ? `${standing.length} walls and slabs that stand on it go with it.` : '',
  ].filter(Boolean)
  if (say.length && !await confirmed({ title: `Delete ${level.name}?`, say, accept: 'Delete level' })) return
  if (makeEdit(`delete ${level.name}`, () => removeLevel(project, scheme, id))) {
    store.dispatch(levelShown(null))
    store.dispatch(picked({ kind: 'nothing' }))
  }
}
