import type { Project } from '../project'
import { batch, singles, type Edit } from './apply'
import { foundOf } from './difference'
import { get } from './say-place'

/** The same edit, made again on the present project: its changes expect the present values. */
export const madeAnew = (project: Project, edit: Edit): Edit =>
  batch(
    singles(edit).map((single) =>
      single.edit === 'patch'
        ? {
            ...single,
            changes: single.changes.map((c) => ('order' in c ? c : { ...c, was: foundOf(valueAt(project, c.at)) })),
          }
        : single,
    ),
  )

function valueAt(project: Project, at: string[]): unknown {
  let here: unknown = project
  for (const key of at) here = typeof here === 'object' && here !== null ? get(here as never, key) : undefined
  return here
}
