/** All tolerances of the geometry, in metres unless said otherwise. */
export const TOLERANCE = {
  /** heights closer than this are one height: a top at a level ends at it */
  height: 1e-5,
  /** points closer than this are one point */
  point: 1e-6,
  /** what lies closer than this touches: it is made to meet before it is united */
  touch: 1e-4,
  /** what a face may move before a part bonded to it has drifted */
  bond: 1e-4,
  /** what the facets of a curve may lie off it */
  curve: 1e-3,
  /** areas below this (m2) are rounding, not floor */
  area: 1e-4,
} as const
