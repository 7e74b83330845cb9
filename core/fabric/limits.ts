/** The rules by which faces become fabric, in one place; the preview states them. */
export const LIMITS = {
  /** degrees: a face within this of upright becomes a wall; what leans more becomes a roof (looking up) or is a soffit */
  upright: 0.5,
  /** m: a floor under slopes that spring lower than this above it is roof space, and a top thinner than this is no storey: no walls stand there, the wall below runs up */
  leastUpright: 1,
  /** m: a piece of face that begins above its floor and is lower than this within the storey is no wall: the slab above takes its place */
  leastPiece: 0.5,
} as const
