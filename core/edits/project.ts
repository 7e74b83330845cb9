import * as v from 'valibot'
import { keysOf, PROJECT_COLLECTIONS, ProjectSchema, type Project, type ProjectCollections } from '../project'
import type { Family } from './collection'

export interface ProjectEdit {
  edit: 'project.change'
  set: Partial<Omit<Project, 'id' | 'schemes' | keyof ProjectCollections>>
}

/** Changes of the project's own fields: name, unit, site area, headroom and the like. */
export const projectEdits: Family<ProjectEdit> = {
  schema: v.strictObject({
    edit: v.literal('project.change'),
    set: v.partial(v.omit(ProjectSchema, ['id', 'schemes', ...keysOf(PROJECT_COLLECTIONS)])),
  }) as v.GenericSchema<unknown, ProjectEdit>,
  apply: (project, edit) => ({ ...project, ...edit.set }),
  place: () => [],
}
