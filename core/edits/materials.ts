import { MaterialSchema, type Material } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type MaterialEdit = CollectionEdit<'material', Material>

export const materialEdits = projectCollection<'material', Material>('material', MaterialSchema, 'materials')
