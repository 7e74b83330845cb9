import * as v from 'valibot'
import { ProjectSchema, refuse, type Project } from '../project'
import type { Family } from './collection'

/** Puts the whole content of a project in place of what is there: what bringing back a restore point does. */
export interface WholeEdit {
  edit: 'whole.set'
  project: Project
}

export const wholeEdits: Family<WholeEdit> = {
  schema: v.strictObject({ edit: v.literal('whole.set'), project: ProjectSchema }),
  apply: (project, edit) => {
    if (edit.project.id !== project.id)
      refuse('edit', 'That is the content of another project.', 'Import it as a project of its own.')
    return edit.project
  },
}
