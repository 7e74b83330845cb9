import type { Edges } from './constrain.js'

/**
 * Edges to be looked at again, in the order of their numbers. The package's own set has a bit for each edge that there is and walks over
 * all of them for each line; while lines are put in, only few are in it.
 */
export class FewEdges implements Edges {
  private readonly edges = new Set<number>()

  add(edge: number): this {
    this.edges.add(edge)
    return this
  }
  delete(edge: number): this {
    this.edges.delete(edge)
    return this
  }
  set(edge: number, is: boolean): boolean {
    if (is) this.edges.add(edge)
    else this.edges.delete(edge)
    return is
  }
  has(edge: number): boolean {
    return this.edges.has(edge)
  }
  /** What is taken out meanwhile does not come; what is put in meanwhile comes next time. */
  forEach(each: (edge: number) => void): this {
    for (const edge of [...this.edges].sort((a, b) => a - b)) if (this.edges.has(edge)) each(edge)
    return this
  }
}
