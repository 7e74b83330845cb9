import type { Edit } from '@geotome/core/edits'
import type { DrawnShape } from '@geotome/core/form'
import type { Num } from '@geotome/core/project'
import type { World } from '../kind'

/** How high something drawn is raised: so many m, or up to a level. */
export interface Raised {
  height: Num
  upTo: string | null
}

/** What a drawn outline becomes. A new one is a file, and a line in `list.ts`. */
export interface OutlineUse {
  name: string
  /** "the outline", "the hole in Tower": said in the hints */
  what: (world: World, of: string | undefined) => string
  /** whether it says its own name where a rectangle or circle would do */
  isNamed: boolean
  /** drawn at the level that is looked at, or on the ground at zero */
  on: 'level' | 'ground'
  /** whether a height follows the outline; `raised` is null where none does */
  rises: boolean
  make: (
    shape: DrawnShape,
    raised: Raised | null,
    world: World,
    of: string | undefined,
  ) => { label: string; edit: () => Edit; picks?: { kind: 'mass'; ids: string[] } }
}
