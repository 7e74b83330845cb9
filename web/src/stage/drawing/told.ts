import type { Lit, Panes, Picked, Shows } from '../../app/view-slice'
import type { Dress } from '../colours'
import type { CutBy } from '../cuts'
import type { Part } from '../sights'
import type { StageShows } from '../shows'
import type { Spot } from '../spot'
import type { Palette } from '../theme'
import type { View } from '../camera'
import type { PaneName } from '../views'

/** What of the model is told apart from the rest: picked, pointed at, lit up, or laid under the plan. */
export interface Marked {
  picked: Picked
  hover: string | null
  spots: readonly Spot[]
  hoverSpot: Spot | null
  lit: Lit | null
  /** the level whose plan lies under the one that is worked on */ behind: string | null
}

/** A stored picture, as it is drawn: its asset, and how strong. */
export type Shades = Record<string, { asset: string; opacity: number }>

/** All that the stage's picture is made from, besides the results of the study. */
export interface Told {
  /** whether a project is shown at all */ on: boolean
  at: StageShows
  palette: Palette
  shows: Shows
  hidden: readonly string[]
  level: string | null
  marked: Marked
  dress: Dress | null
  pictures: Shades
  panes: Panes
  cutBy: CutBy
  views: Record<PaneName, View>
  /** px of each pane on the canvas, and of the canvas; px of the screen to each */
  parts: Partial<Record<PaneName, Part>>
  size: readonly [number, number]
  dpr: number
  /** something is held or tried: what is drawn may be rough */ tried: boolean
}

/** What the drawing worker says to the page: it lives, and holds its lock; or the browser gives it nothing to draw with. */
export type FromDrawing = 'alive' | 'cannot'

/**
 * What the page sends to the drawing worker: the canvas and what it is told first, what changes, that the figures of a result are there, and
 * the door to the results.
 */
export type ToDrawing =
  { canvas: OffscreenCanvas; told: Told } | { told: Partial<Told> } | { figures: 'shown' } | { results: MessagePort }
