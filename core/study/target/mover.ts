import type { Edit } from '../../edits'
import type { Id, Project, Quantity, Scheme } from '../../project'

/** One number of a scheme that may be moved so that a figure comes out. Values are SI units. */
export interface Mover {
  /** the same from study to study */
  key: string
  /** what a person calls it */
  label: string
  quantity: Quantity
  whole: boolean
  now: number
  from: number
  to: number
  /** the edit that sets it; the very one of now changes nothing */
  edit(project: Project, scheme: Scheme, value: number, mint: () => Id): Edit
}
