import { corner } from './corner'
import { height } from './height'
import type { MassHandle } from './kind'
import { LEVEL_HELP } from './level'
import { PLACE_HELP } from './place'
import { SECTION_HELP } from './section'
import { turn } from './turn'

/** The handles of a picked mass. */
export const MASS_HANDLES: readonly MassHandle[] = [corner, height, turn]

/** What can be dragged, for the list of shortcuts. */
export const HANDLE_HELP: readonly (readonly [string, string])[] = [
  ...PLACE_HELP,
  ...MASS_HANDLES.map((h) => h.help),
  ...LEVEL_HELP,
  ...SECTION_HELP,
]
