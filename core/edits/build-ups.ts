import { BuildUpSchema, type BuildUp } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type BuildUpEdit = CollectionEdit<'build-up', BuildUp>

export const buildUpEdits = projectCollection<'build-up', BuildUp>('build-up', BuildUpSchema, 'buildUps')
