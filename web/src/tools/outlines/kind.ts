import type { Edit } from '@geotome/core/edits'
import type { DrawnShape } from '@geotome/core/form'
import type { Num } from '@geotome/core/project'
import type { Taken, World } from '../kind'

/** How high something drawn is raised: so many m, or up to a level. */
export interface Raised {
  height: Num
  upTo: string | null
}

/** What a drawn outline becomes. A new one is a file, and a line in `list.ts`. */
export interface OutlineUse {
  name: string
  /** "the outline", "the hole in Tower": said in the hints */
  what: (world: World, taken: Taken) => string
  /** whether it says its own name where a rectangle or circle would do */
  isNamed: boolean
  /** drawn at the level that is looked at, on the ground at zero, or on a plane of its own */
  on: 'level' | 'ground' | 'plane'
  /** whether a height follows the outline; `raised` is null where none does */
  rises: boolean
  /** what that height is called where it is none, and what it begins with, m; below zero is allowed then */
  depth?: { label: string; begins: number; hint: string; towards: 1 | -1 }
  /** what is drawn is a line with two ends, by its corners */
  isOpen?: true
  /** it ends by itself with so many corners */
  ends?: number
  make: (
    shape: DrawnShape,
    raised: Raised | null,
    world: World,
    taken: Taken,
  ) => { label: string; edit: () => Edit; picks?: { kind: 'mass'; ids: string[] } }
}
