/** What the stage shows at a desk, besides what is chosen in Views. */
export interface StageShows {
  /** parts stand for the masses that they were made of */
  fabric: boolean
  /** the envelope is drawn; what lies beyond it always is */
  envelope: boolean
  keptMeasures: boolean
  /** m above the level's floor at which the plan cuts */
  planCut: number
  /** the blade cuts the 3D view, and what is above it throws no shadow */
  blade: boolean
  /** plates have their labels */
  plates: boolean
  /** picked masses can be dragged, and have their handles */
  handles: boolean
}

const PLAIN: StageShows = {
  fabric: false,
  envelope: false,
  keptMeasures: false,
  planCut: 0,
  blade: false,
  plates: false,
  handles: false,
}

export const STAGE = {
  ground: { ...PLAIN, envelope: true, keptMeasures: true },
  form: { ...PLAIN, envelope: true, handles: true },
  slice: { ...PLAIN, blade: true, plates: true },
  fabric: { ...PLAIN, fabric: true, planCut: 1.2 },
  plain: PLAIN,
} satisfies Record<string, StageShows>
