import type { Edit } from '@geotome/core/edits'
import type { Project } from '@geotome/core/project'

/** What the worker has checked and computed last while it was tried: made as it is, it need not be checked on the page once more. */
let well: { project: Project; edit: Edit } | null = null

export const noteTriedWell = (project: Project, edit: Edit): void => {
  well = { project, edit }
}

/** Whether just this edit of just this project was tried, and could be made. */
export const wasTriedWell = (project: Project, edit: Edit): boolean =>
  well?.project === project && JSON.stringify(well.edit) === JSON.stringify(edit)
