import { MaterialSchema, type Material } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type MaterialEdit = CollectionEdit<'material', Material>

export const materialEdits = projectCollection<'material', Material>('material', MaterialSchema, {
  read: (project) => project.materials,
  write: (project, materials) => ({ ...project, materials }),
})
