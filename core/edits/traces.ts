import { TraceSchema, type Trace } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type TraceEdit = CollectionEdit<'trace', Trace>

export const traceEdits = projectCollection<'trace', Trace>('trace', TraceSchema, 'traces')
