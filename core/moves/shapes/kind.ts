import type * as v from 'valibot'
import type { Arc, Vec2 } from '../../solid'
import type { Num, Numbers, Quantity } from '../../values'

/** A corner of a shape, m: its id names the edge from it to the next, `bulge` the arc that the edge is (see outline). */
export interface CornerAt {
  id: string
  at: Vec2
  bulge: number
}

/** A kind of shape that an outline can have. A new one is a file beside this, and a line in the list. */
export interface ShapeKind<S extends { kind: string }> {
  kind: S['kind']
  schema: v.GenericSchema<unknown, S>
  /** all its numbers in a fixed order: their values are the key to the form */
  numbers(shape: S): [Num, Quantity][]
  /** its corners in turn, in the mass's own frame; none where it is one circle */
  corners(shape: S, numbers: Numbers): CornerAt[]
  /** what it encloses and is not of it, where there is such a thing: closed lines with an id each, in either sense */
  inner?(shape: S, numbers: Numbers): { id: string; corners: CornerAt[] }[]
  /** the circle that it is, where it is one */
  circle?(shape: S, numbers: Numbers): Pick<Arc, 'x' | 'y' | 'r'>
  /** refuses what cannot be drawn; `name` says whose outline it is. That it does not cross itself is looked at for all kinds alike. */
  check(shape: S, name: string, numbers: Numbers): void
}
