/** Makes lines sides of a triangulation. */
export default class Constrainautor {
  constructor(triangulation: object)
  constrainOne(from: number, to: number): number
  delaunify(deep?: boolean): this
}
