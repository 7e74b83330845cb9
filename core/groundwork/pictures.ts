import { batch, type Edit } from '../edits'
import { inOrder, refuse, type Id, type KeptMeasure, type Picture, type Project, type Trace } from '../project'

/** What lies on a picture and goes with it: its measures, and what was traced on it. */
export function onPicture(project: Project, id: Id): { measures: KeptMeasure[]; traces: Trace[] } {
  return {
    measures: inOrder(project.measures).filter((m) => m.picture === id),
    traces: inOrder(project.traces).filter((t) => t.picture === id),
  }
}

/** Removes a picture with all that lies on it; measures that were compared with one of those are compared with none. */
export function removePicture(project: Project, id: Id): Edit {
  const { measures, traces } = onPicture(project, id)
  const gone = new Set(measures.map((m) => m.id))
  return batch([
    ...Object.values(project.measures)
      .filter((m) => m.picture !== id && m.same !== null && gone.has(m.same))
      .map((m) => ({ edit: 'measure.change' as const, id: m.id, set: { same: null } })),
    ...measures.map((m) => ({ edit: 'measure.remove' as const, id: m.id })),
    ...traces.map((t) => ({ edit: 'trace.remove' as const, id: t.id })),
    { edit: 'picture.remove' as const, id: pictureOf(project, id).id },
  ])
}

/** Puts a picture one place up (-1) or down (1) in the list; null where it is at the end already. */
export function reorderPicture(project: Project, id: Id, to: number): Edit | null {
  const pictures = inOrder(project.pictures)
  const from = pictures.findIndex((p) => p.id === id)
  if (from < 0 || to < 0 || to >= pictures.length || from === to) return null
  const [moved] = pictures.splice(from, 1)
  if (moved) pictures.splice(to, 0, moved)
  const changed = pictures.flatMap((p, order) =>
    p.order === order ? [] : [{ edit: 'picture.change' as const, id: p.id, set: { order } }],
  )
  return changed.length ? batch(changed) : null
}

const pictureOf = (project: Project, id: Id): Picture =>
  project.pictures[id] ?? refuse('unknown-id', 'That picture is not there any more.', 'Choose another one.')
