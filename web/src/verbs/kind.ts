import type { LucideIcon } from 'lucide-react'
import type { Mass, Project, Scheme } from '@geotome/core/project'
import type { AppDispatch } from '../app/store'
import type { ViewState } from '../app/view-slice'

export const DESK_NAMES = ['ground', 'form', 'slice', 'fabric', 'light', 'sheets'] as const
export type DeskName = (typeof DESK_NAMES)[number]

/** What a verb, or a desk, sees of this moment. */
export interface Now {
  project: Project
  scheme: Scheme
  view: ViewState
  /** the picked ones */
  masses: Mass[]
  desk: DeskName
  dispatch: AppDispatch
  /** goes to a desk, and does something once it stands */
  go: (desk: DeskName, then?: () => void) => void
}

/** An action of a person. A new one is an entry of its room's file. */
export interface Verb {
  label: string | ((now: Now) => string)
  icon: LucideIcon
  /** "R", "Delete", "Ctrl Z"; one desk has no key twice */
  key?: string
  /** a second key */
  also?: string
  /** where it is on; 'all': at every desk, and not in the bar */
  desks: readonly DeskName[] | 'all'
  /** whether it is under way */
  on?: (now: Now) => boolean
  /** why it is off; null where it is not */
  off?: (now: Now) => string | null
  /** what the list of shortcuts says of it, where that is not its label; '': it is not listed there */
  help?: string
  /** the verb of the bar that it opens under */
  under?: string
  /** what else opens under it, besides those that say so themselves */
  opens?: (now: Now) => readonly Verb[]
  run: (now: Now) => void
}
