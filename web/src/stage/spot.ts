/** What of a mass is picked: a face, an edge (by the faces that meet there: two) or a corner (three), by their names. */
export interface Spot {
  kind: 'face' | 'edge' | 'corner'
  mass: string
  faces: string[]
}

export const sameSpot = (a: Spot, b: Spot): boolean =>
  a.kind === b.kind && a.mass === b.mass && a.faces.join() === b.faces.join()
