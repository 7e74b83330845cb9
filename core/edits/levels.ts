import { LevelSchema, type Level } from '../project'
import { schemeCollection, type SchemeEdit } from './collection'

export type LevelEdit = SchemeEdit<'level', Level>

export const levelEdits = schemeCollection<'level', Level>('level', LevelSchema, 'levels')
