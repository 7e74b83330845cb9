import type { Mass } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import type { StoredView } from '../../stage/geometry-store'
import type { Spot as PickedSpot } from '../../stage/spot'
import type { View } from '../../stage/camera'
import type { Grip } from '../hand'
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
  /** the faces, edges or corners that are picked of it, and the storeys that are chosen for them */
  spots: readonly PickedSpot[]
  storeys: readonly string[]
  /** px of the pane's corner in the window */
  corner: Vec2
}

export type Glyph = 'dot' | 'hidden-dot' | 'up' | 'round' | 'arrow'

/** One place at which a handle can be held: px in the pane. */
export interface Spot {
  key: string
  at: Vec2
  glyph: Glyph
  /** px that an arrow leads to from there */
  toward?: Vec2
}

/** A handle that hangs on a picked mass. A new one is a file, and a line in `list.ts`. */
export interface MassHandle {
  name: string
  help: readonly [string, string]
  spots: (on: OnMass) => Spot[]
  begin: (on: OnMass, spot: number, from: Vec2) => Grip
}
