import { TOLERANCE } from '../values'
export type Vec2 = [number, number]

/** Where a local body stands: turned about z by `turn` degrees, then moved. */
export interface Placement {
  x: number
  y: number
  z: number
  turn: number
}

/** The turn as a cosine and sine, exact for right angles. */
export function turnOf(degrees: number): { c: number; s: number } {
  const quarter = (((degrees / 90) % 4) + 4) % 4
  if (Math.abs(quarter - Math.round(quarter)) < TOLERANCE.zero) {
    const q = Math.round(quarter) % 4
    return { c: [1, 0, -1, 0][q] ?? 1, s: [0, 1, 0, -1][q] ?? 0 }
  }
  return { c: Math.cos((degrees * Math.PI) / 180), s: Math.sin((degrees * Math.PI) / 180) }
}

/** A turn as the shorter one of the two that lead there: from -180 to under 180 degrees. */
export const shorterTurn = (degrees: number): number => ((((degrees + 180) % 360) + 360) % 360) - 180

/** A point of a body where the body stands: turned, then moved. */
export function placePoint(p: Vec2, at: Placement): Vec2 {
  const { c, s } = turnOf(at.turn)
  return [at.x + c * p[0] - s * p[1], at.y + s * p[0] + c * p[1]]
}
