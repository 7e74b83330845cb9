import type { Mass } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import type { StoredView } from '../../stage/geometry-store'
import type { View } from '../../stage/camera'
import type { Grip } from '../hold'
import type { World } from '../kind'

/** A picked mass in a pane that looks down on it, as handles hang on it. */
export interface OnMass {
  mass: Mass
  world: World
  study: StoredView
  /** where it stands and ends, from the view's origin */
  shown: StoredView['masses'][number]
  view: View
  size: Vec2
  /** px of the pane's corner in the window */
  corner: Vec2
}

export type Glyph = 'dot' | 'hidden-dot' | 'up' | 'round'

/** One place at which a handle can be held: px in the pane. */
export interface Spot {
  key: string
  at: Vec2
  glyph: Glyph
}

/** A handle that hangs on a picked mass. A new one is a file, and a line in `list.ts`. */
export interface MassHandle {
  name: string
  help: readonly [string, string]
  spots: (on: OnMass) => Spot[]
  begin: (on: OnMass, spot: number, from: Vec2) => Grip
}
