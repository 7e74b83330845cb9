/** Makes lines sides of a triangulation. */
/** Edges that are to be looked at again, by number. */
export interface Edges {
  add(edge: number): this
  delete(edge: number): this
  set(edge: number, is: boolean): boolean
  has(edge: number): boolean
  forEach(each: (edge: number) => void): this
}

export default class Constrainautor {
  flips: Edges
  constructor(triangulation: object)
  constrainOne(from: number, to: number): number
  delaunify(deep?: boolean): this
}
