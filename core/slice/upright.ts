import type { MassForm } from '../form'
import { cutAt, loopArea, mappedSolid, placeSolid, uniteRegions, type Region, type Vec2, TOLERANCE } from '../solid'

/** An upright plane: looked at from an azimuth (degrees from east, counter-clockwise), `toward` m from the project's zero towards the viewer. */
export interface Upright {
  azimuth: number
  toward: number
}

/** Coordinates in an upright plane: u to the viewer's right, z up; depth towards him. */
export function uprightFrame(azimuth: number): { right: Vec2; toward: Vec2 } {
  const a = (azimuth * Math.PI) / 180
  const exact = (v: number) => (Math.abs(v) < TOLERANCE.zero ? 0 : v)
  return { right: [exact(-Math.sin(a)), exact(Math.cos(a))], toward: [exact(Math.cos(a)), exact(Math.sin(a))] }
}

/** The cut of a placed mass by an upright plane: closed loops in (u, z), m. */
export function sectionOf(form: MassForm, { azimuth, toward }: Upright): Region {
  const { right, toward: out } = uprightFrame(azimuth)
  const turned = mappedSolid(placeSolid(form.body.solid, form.at), (x, y, z) => [
    right[0] * x + right[1] * y,
    z,
    out[0] * x + out[1] * y,
  ])
  const loops = cutAt(turned, toward).map((l) => l.points)
  return loops.length > 1 ? uniteRegions([loops]) : loops
}

/** What a mass covers as it is seen from an azimuth: its outline in (u, z), m. */
export function silhouetteOf(form: MassForm, azimuth: number): Region {
  const { right } = uprightFrame(azimuth)
  const { positions, triangles } = placeSolid(form.body.solid, form.at)
  const at = (v: number): Vec2 => [
    right[0] * (positions[v * 3] ?? 0) + right[1] * (positions[v * 3 + 1] ?? 0),
    positions[v * 3 + 2] ?? 0,
  ]
  const pieces: Region[] = []
  for (let t = 0; t < triangles.length; t += 3) {
    const loop = [at(triangles[t] ?? 0), at(triangles[t + 1] ?? 0), at(triangles[t + 2] ?? 0)]
    // Those that look at the viewer wind counter-clockwise; the others lie behind them.
    if (loopArea(loop) > TOLERANCE.fine) pieces.push([loop])
  }
  return pieces.length ? uniteRegions(pieces) : []
}
