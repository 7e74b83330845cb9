import { applyEdit, batch, singles, type SingleEdit } from '@geotome/core/edits'
import { dependentsOf, removeLevel } from '@geotome/core/levels'
import { selectProject, selectScheme } from '../app/project-slice'
import { makeEdit } from '../app/session'
import { store } from '../app/store'
import { levelShown, picked } from '../app/view-slice'
import { confirmed } from '../common/confirm'

export const deleteLevel = (id: string): Promise<void> => deleteLevels([id])

/** Deletes levels; asks only when something hangs on them, and says what. One gesture, one undo. */
export async function deleteLevels(ids: string[]): Promise<void> {
  const project = selectProject(store.getState())
  const scheme = selectScheme(store.getState())
  const levels = ids.flatMap((id) => scheme?.levels[id] ?? [])
  if (!project || !scheme || levels.length === 0) return
  const hanging = ids.map((id) => ({ id, ...dependentsOf(scheme, id) }))
  const on = [
    ...new Set(
      hanging
        .flatMap((h) => h.levels)
        .filter((l) => !ids.includes(l.id))
        .map((l) => l.name),
    ),
  ]
  const masses = [...new Set(hanging.flatMap((h) => h.masses).map((m) => m.name))]
  const standing = hanging.flatMap((h) => h.parts.filter((p) => p.base?.level === h.id)).length
  const say = [
    on.length ? `${on.join(', ')} will stand on what lies below, at the same height.` : '',
    masses.length ? `${masses.join(', ')} will stand on the nearest storey, at the same height.` : '',
    standing ? `${standing} walls and slabs that stand there go too. Undo brings them back.` : '',
  ].filter(Boolean)
  const what = levels.length === 1 ? (levels[0]?.name ?? '') : `${levels.length} levels`
  if (
    say.length &&
    !(await confirmed({
      title: `Delete ${what}?`,
      say,
      accept: levels.length === 1 ? 'Delete level' : `Delete ${levels.length} levels`,
    }))
  )
    return
  const made = makeEdit(`delete ${what}`, () => {
    const edits: SingleEdit[] = []
    let now = project
    for (const id of ids) {
      const edit = removeLevel(now, now.schemes[scheme.id] ?? scheme, id)
      edits.push(...singles(edit))
      now = applyEdit(now, edit).project
    }
    return batch(edits)
  })
  if (made) {
    store.dispatch(levelShown(null))
    store.dispatch(picked({ kind: 'nothing' }))
  }
}
