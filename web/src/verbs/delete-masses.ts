import { batch, singles } from '@geotome/core/edits'
import { removeMass } from '@geotome/core/form'
import { selectScheme } from '../app/project-slice'
import { makeEdit } from '../app/session'
import { store } from '../app/store'
import { picked } from '../app/view-slice'
import { confirmed } from '../common/confirm'

/** Deletes masses; asks only when fabric stands on them. */
export async function deleteMasses(ids: string[]): Promise<void> {
  const scheme = selectScheme(store.getState())
  if (!scheme || ids.length === 0) return
  const names = ids.map((id) => scheme.masses[id]?.name ?? '').join(', ')
  const parts = Object.values(scheme.parts).filter((p) => ids.includes(p.host.mass)).length
  if (
    parts &&
    !(await confirmed({
      title: `Delete ${names}?`,
      say: [`${parts} walls, slabs and roofs stand on it and go with it. Undo brings all of it back.`],
      accept: 'Delete mass and parts',
    }))
  )
    return
  if (makeEdit(`delete ${names}`, () => batch(ids.flatMap((id) => singles(removeMass(scheme, id, true))))))
    store.dispatch(picked({ kind: 'nothing' }))
}
