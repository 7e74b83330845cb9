import { KeptMeasureSchema, type KeptMeasure } from '../project'
import { projectCollection, type CollectionEdit } from './collection'

export type MeasureEdit = CollectionEdit<'measure', KeptMeasure>

export const measureEdits = projectCollection<'measure', KeptMeasure>('measure', KeptMeasureSchema, 'measures')
