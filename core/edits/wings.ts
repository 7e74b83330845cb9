import { WingSchema, type Wing } from '../project'
import { schemeCollection, type SchemeEdit } from './collection'

export type WingEdit = SchemeEdit<'wing', Wing>

export const wingEdits = schemeCollection<'wing', Wing>('wing', WingSchema, 'wings')
