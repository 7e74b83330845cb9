import { MassSchema, type Mass } from '../project'
import { schemeCollection, type SchemeEdit } from './collection'

export type MassEdit = SchemeEdit<'mass', Mass>

export const massEdits = schemeCollection<'mass', Mass>('mass', MassSchema, 'masses')
