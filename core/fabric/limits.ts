/** The rules by which faces become fabric, besides the project's two limits of slope; the preview states them. */
export const LIMITS = {
  /** m: a floor under slopes that spring lower than this above it is roof space, and a top thinner than this is no storey: no walls stand there, the wall below runs up */
  leastUpright: 1,
  /** m: a piece of face that begins above its floor and is lower than this within the storey is no wall: the slab above takes its place */
  leastPiece: 0.5,
  /** m: what stands on the foot of a mass and is lower than this is no wall */
  leastHigh: 0.05,
} as const
