import { MuteSchema, type Mute } from '../project'
import { schemeCollection, type SchemeEdit } from './collection'

export type MuteEdit = SchemeEdit<'mute', Mute>

export const muteEdits = schemeCollection<'mute', Mute>('mute', MuteSchema, 'mutes')
