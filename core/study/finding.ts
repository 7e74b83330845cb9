import type { Edit } from '../edits'
import type { Region } from '../solid'
import type { Id } from '../values'

/** Something the checks found: the place, the reason and a remedy. */
export interface Finding {
  /** the same for the same thing from study to study */
  key: string
  kind: string
  say: string
  remedy: string
  level: string | null
  masses: string[]
  parts: string[]
  /** m2, where it is one of area */
  area: number | null
  /** where it is on several levels: how much on each, m2 */
  levels: { level: string; area: number }[]
  region: Region
  /** what mends it in one action, where there is such a thing; the edit is made when it is asked for */
  fix: { label: string; edit(mint: () => Id): Edit } | null
}

/** A finding on nothing in particular, with what is told of it in `more`. `id` tells it from others of its kind, from study to study. */
export const finding = (
  kind: string,
  id: string,
  say: string,
  remedy: string,
  more: Partial<Finding> = {},
): Finding => ({
  key: `${kind}:${id}`,
  kind,
  say,
  remedy,
  level: null,
  masses: [],
  parts: [],
  area: null,
  levels: [],
  region: [],
  fix: null,
  ...more,
})
