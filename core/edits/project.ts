import * as v from 'valibot'
import { ProjectSchema, type Project } from '../project'
import type { Family } from './collection'

type Settings = Partial<
  Omit<
    Project,
    'id' | 'uses' | 'dials' | 'buildUps' | 'materials' | 'neighbours' | 'pictures' | 'measures' | 'traces' | 'schemes'
  >
>
export interface ProjectEdit {
  edit: 'project.change'
  set: Settings
}

/** Changes of the project's own fields: name, unit, site area, headroom and the like. */
export const projectEdits: Family<ProjectEdit> = {
  schema: v.strictObject({
    edit: v.literal('project.change'),
    set: v.partial(
      v.omit(ProjectSchema, [
        'id',
        'uses',
        'dials',
        'buildUps',
        'materials',
        'neighbours',
        'pictures',
        'measures',
        'traces',
        'schemes',
      ]),
    ),
  }) as v.GenericSchema<unknown, ProjectEdit>,
  apply: (project, edit) => ({ ...project, ...edit.set }),
  place: () => [],
}
