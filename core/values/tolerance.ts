/** All tolerances of the geometry, in metres unless said otherwise. No other file has any (held by the linter). */
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
  /** volumes below this (m3) are rounding */
  volume: 1e-4,
  /** what is shorter, narrower or lower than this is no thing of its own */
  least: 1e-3,
  /** the part of a face's normal (without unit) below which it does not lean, or lies level */
  slope: 1e-6,
  /** the part of its normal (without unit) by which a face leans enough to be taken as a roof, or a soffit */
  lean: 1e-3,
  /** a tenth of a point: what kernel and core may differ by at one and the same corner */
  fine: 1e-7,
  /** how near a value that is sought is rounded to: no figure that is shown tells it from the exact one */
  sought: 2e-5,
  /** what the same length, worked out in two ways in doubles, may differ by at the size of a site */
  rounding: 1e-9,
  /** what numbers of the size of one, worked out in two ways in doubles, may differ by: below it a divisor is zero */
  zero: 1e-12,
} as const
