import { ViewSchema, type KeptView } from '../project'
import { schemeCollection, type SchemeEdit } from './collection'

export type ViewEdit = SchemeEdit<'view', KeptView>

export const viewEdits = schemeCollection<'view', KeptView>('view', ViewSchema, 'views')
