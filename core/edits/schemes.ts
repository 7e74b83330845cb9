import { SchemeSchema, type Scheme } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type SchemeEdit = CollectionEdit<'scheme', Scheme>

export const schemeEdits = projectCollection<'scheme', Scheme>('scheme', SchemeSchema, 'schemes')
