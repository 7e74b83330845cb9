import { UseSchema, type Use } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type UseEdit = CollectionEdit<'use', Use>

export const useEdits = projectCollection<'use', Use>('use', UseSchema, 'uses')
