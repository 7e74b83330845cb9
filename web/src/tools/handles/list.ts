import { cage } from './cage'
import { corner } from './corner'
import { face } from './face'
import { height } from './height'
import { joint } from './joint'
import type { MassHandle } from './kind'
import { LEVEL_HELP } from './level'
import { PLACE_HELP } from './place'
import { SECTION_HELP } from './section'
import { turn } from './turn'

/** The handles of a picked mass. */
export const MASS_HANDLES: readonly MassHandle[] = [corner, cage, height, turn]

/** The handles of a picked face, edge or corner; while one is picked those of its mass step back. */
export const SPOT_HANDLES: readonly MassHandle[] = [face, cage, joint]

/** What can be dragged, for the list of shortcuts. */
export const HANDLE_HELP: readonly (readonly [string, string])[] = [
  ...PLACE_HELP,
  ...[...new Set([...MASS_HANDLES, ...SPOT_HANDLES])].map((h) => h.help),
  ...LEVEL_HELP,
  ...SECTION_HELP,
]
