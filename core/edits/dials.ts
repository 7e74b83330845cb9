import { DialSchema, type Dial } from '../project'
import { projectCollection, schemeCollection, type CollectionEdit, type SchemeEdit } from './collection'

/** Dials of the project, known in all its schemes. */
export type ProjectDialEdit = CollectionEdit<'project-dial', Dial>
export const projectDialEdits = projectCollection<'project-dial', Dial>('project-dial', DialSchema, 'dials')

/** Dials of one scheme; they come before those of the project. */
export type DialEdit = SchemeEdit<'dial', Dial>
export const dialEdits = schemeCollection<'dial', Dial>('dial', DialSchema, 'dials')
