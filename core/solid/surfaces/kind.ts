import type { Arc } from '../arc'
import type { Placement } from '../place'

/**
 * A kind of surface that the facets of a face stand for. Flat faces have none. A new kind is a file beside this and a line in the list.
 */
export interface SurfaceKind<S extends { kind: string }> {
  kinds: readonly S['kind'][]
  /** what a person reads */
  called(surface: S): string
  /** the arc that it is cut along at a height (m); null where that is no arc */
  arcAt(surface: S, z: number): Arc | null
  /** whether it is cut along one straight line at every height where it is not cut along an arc */
  ruled(surface: S): boolean
  /** whether it is unrolled into (m along its arc, height); else it is taken storey by storey */
  unrolls(surface: S): boolean
  /** the surface placed with its body */
  placed(surface: S, at: Placement): S
}

/** A circle at a height, m. */
export interface Rim {
  x: number
  y: number
  r: number
  z: number
}
