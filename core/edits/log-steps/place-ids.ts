import { isDict, LAYERS, OWN_FACTS, placeId, withAllPlaceIds, withIdsIn, withPlaceIds } from '../../project'
import type { LogStep } from './step'

/** Log format 1 to 2: layers of build-ups and own facts have ids; a change says which of them it means by id, no longer by place. */
export const placeIds: LogStep = { project: withAllPlaceIds, edit: withIds }

function withIds(edit: unknown): unknown {
  if (!isDict(edit)) return edit
  switch (edit.edit) {
    case 'batch':
      return Array.isArray(edit.edits) ? { ...edit, edits: edit.edits.map(withIds) } : edit
    case 'patch':
      return Array.isArray(edit.changes) ? { ...edit, changes: edit.changes.map(changeWithIds) } : edit
    case 'whole.set':
      return { ...edit, project: withAllPlaceIds(edit.project) }
    case 'build-up.add':
      return { ...edit, thing: withIdsIn(edit.thing, LAYERS) }
    case 'build-up.change':
      return { ...edit, set: withIdsIn(edit.set, LAYERS) }
    case 'project.change':
      return isDict(edit.set) && 'facts' in edit.set
        ? { ...edit, set: { ...edit.set, facts: withIdsIn(edit.set.facts, OWN_FACTS) } }
        : edit
    default:
      return edit
  }
}

/** A change of one leaf: at a build-up or the facts, at the list in it, or at something in the list. */
function changeWithIds(change: unknown): unknown {
  if (!isDict(change) || !Array.isArray(change.at)) return change
  const at: unknown[] = change.at
  const [list, depth] = at[0] === 'buildUps' ? [LAYERS, 2] : at[0] === 'facts' ? [OWN_FACTS, 1] : [null, 0]
  if (!list || at.length < depth || (at.length > depth && at[depth] !== list.key)) return change
  const named = at.map((step, i) =>
    i === depth + 1 && /^\d+$/.test(String(step)) ? placeId(list.word, Number(step)) : step,
  )
  if (!isDict(change.to)) return { ...change, at: named }
  const { is } = change.to
  const to = at.length === depth ? withIdsIn(is, list) : at.length === depth + 1 ? withPlaceIds(is, list.word) : is
  return { ...change, at: named, to: { is: to } }
}
