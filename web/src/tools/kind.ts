import type { Edit } from '@geotome/core/edits'
import type { UprightPlane } from '@geotome/core/form'
import type { Project, Scheme } from '@geotome/core/project'
import type { Frame, Region, Vec2, Vec3 } from '@geotome/core/solid'
import type { CatchEdge } from './catching'

/** What a tool sees when it answers: the project without the gesture under way. Lengths in m, in world coordinates. */
export interface World {
  project: Project
  scheme: Scheme
  /** the level that is looked at, by its id */
  level: string
  /** edges of what is there, for the pointer to catch */
  edges: CatchEdge[]
  /** centres of masses, and points that are marked on pictures laid in plan */
  marks: readonly { point: Vec2; word: string }[]
  /** the n-th id of what is being made: the same at each call until it is made */
  id: (n: number) => string
}

/** A plane that is drawn on besides the levels: a face of a mass, or an upright one. */
export type DrawnOn =
  | { kind: 'face'; mass: string; face: string; label: string; frame: Frame; region: Region }
  | { kind: 'upright'; plane: UprightPlane; frame: Frame }

/** The tool that is taken up: its name, what a drawn outline becomes, and the thing that it belongs to (the mass of a hole, the wing). */
export interface Taken {
  tool: string
  becomes?: string
  of?: string
  /** the plane that it draws on, where that is not the level that is looked at */
  on?: DrawnOn
}

/** Where the pointer is, and how fine it can tell. */
export interface PointerAt {
  /** the point under it in the plane that is drawn on */
  raw: Vec2
  /** the point of the model under it, and whether that is a corner; only for tools that aim in space */
  spot: { point: Vec3; isCorner: boolean } | null
  /** m to a pixel */
  pixel: number
  /** Shift is held */
  held: boolean
  pane: string
  /** m that it is above the pane's upper edge, measured up: only differences mean something */
  up: number
  /** m along the normal of the plane that is drawn on: only differences mean something */
  out: number
}

export type ToolEvent =
  | { kind: 'move'; at: PointerAt }
  /** the pointer was pressed and let go on one spot */
  | { kind: 'press' }
  | { kind: 'type'; field: number; text: string }
  /** one of the tool's choices */
  | { kind: 'choose'; choice: string }
  /** Enter */
  | { kind: 'accept' }
  /** Escape: one step back */
  | { kind: 'back' }
  /** keeps to the direction that is caught, or to none any more */
  | { kind: 'hold' }
  /** takes the size of what lies under the pointer into the first field */
  | { kind: 'size' }

/** What a tool answers. What is not said stays as it is. */
export interface Answer<S> {
  state: S
  /** shown on the stage as if it were made; null: no longer */
  tried?: (() => Edit) | null
  /** to be made; what follows where it could be made: the end of the tool, or its next state */
  made?: { label: string; edit: () => Edit; then: 'end' | S; picks?: { kind: 'mass'; ids: string[] } }
  refused?: string
  /** the tool to be taken up next */
  next?: Taken
  end?: true
}

export interface LiveField {
  label: string
  /** what the pointer tells, while nothing is typed */
  live: string
  typed: string
}

/** Ways to go on that stand beside the pointer, or over the bar of verbs. `key` goes to the next one. */
export interface Choices {
  label: string
  options: readonly string[]
  chosen: string
  key: string | null
  where: 'pointer' | 'bar'
}

/** What a tool draws over the stage; points in world coordinates, m. */
export type Mark =
  | { kind: 'path'; points: Vec3[]; closed: boolean; filled: boolean }
  | { kind: 'guide'; from: Vec3; to: Vec3 }
  | { kind: 'dot'; at: Vec3 }
  | { kind: 'ring'; at: Vec3; word: string | null }
  | { kind: 'figure'; at: Vec3; text: string }

/** A tool: a machine of states without a screen. A new one is a file, and a line in `list.ts`. */
export interface Tool<S> {
  name: string
  /** whether it wants a point of the plane that is drawn on, in panes that do not look along it, or of the model under the pointer */
  aims: 'plane' | 'space'
  /** keys of its own, for the list of shortcuts */
  help: readonly (readonly [string, string])[]
  /** the plane that is drawn on, in world coordinates */
  plane: (taken: Taken, world: World) => Frame
  begin: (taken: Taken) => S
  answer: (state: S, event: ToolEvent, world: World, taken: Taken) => Answer<S>
  hint: (state: S, world: World, taken: Taken) => string
  /** changes whenever the typing begins anew */
  step: (state: S) => string
  fields: (state: S, world: World, taken: Taken) => LiveField[]
  choices: (state: S, taken: Taken) => Choices | null
  marks: (state: S, world: World, plane: Frame, taken: Taken) => Mark[]
}
