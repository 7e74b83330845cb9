import { PartSchema, type Part } from '../project'
import { schemeCollection, type SchemeEdit } from './collection'

export type PartEdit = SchemeEdit<'part', Part>

export const partEdits = schemeCollection<'part', Part>('part', PartSchema, 'parts')
