import type { Edit } from '@geotome/core/edits'
import type { Picture, Project, Scheme } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import type { BenchTask } from '../../app/view-slice'

/** A line drawn over the picture, in its pixels. */
export interface BenchLine {
  points: Vec2[]
  closed: boolean
  tone: 'live' | 'kept' | 'faint'
  label?: string
}

/** What a task sees when it answers. Pixels count from the picture's upper left corner, to the right and down. */
export interface BenchWorld {
  project: Project
  scheme: Scheme
  picture: Picture
  mint: () => string
}

/** Every task picks points; what else it needs is its own. */
export interface Picking {
  points: Vec2[]
}

export type BenchEvent<S> =
  /** a point was picked */
  | { kind: 'pick'; at: Vec2 }
  /** Enter; `how`: a way of accepting, where a task has several */
  | { kind: 'accept'; how?: string }
  | { kind: 'key'; key: string }
  /** a field or a choice of the task's panel */
  | { kind: 'change'; set: Partial<S> }

/** What a task answers; null: the event is none of its business. */
export interface BenchAnswer<S> {
  state: S
  /** to be made; the state that follows where it could be made, or the end of the bench */
  made?: { label: string; edit: () => Edit; then: S | 'close' }
  refused?: string
}

/** What is done with a picture: a machine of states without a screen; its panel draws the state and sends events. */
export interface Task<S extends Picking> {
  name: BenchTask
  label: string
  begin: (world: BenchWorld) => S
  answer: (state: S, event: BenchEvent<S>, world: BenchWorld) => BenchAnswer<S> | null
  hint: (state: S, world: BenchWorld) => string
  lines: (state: S, world: BenchWorld) => BenchLine[]
}

/** What a task's panel is given. */
export interface PanelOf<S> {
  picture: Picture
  state: S
  hint: string
  send: (event: BenchEvent<S>) => void
}

/** Labels of edits have an end. */
export const labelled = (what: string, picture: Picture): string => `${what} ${picture.name}`.slice(0, 190)
