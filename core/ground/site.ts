import { outlineFault } from '../moves'
import { loopArea, sideNames, type Vec2, TOLERANCE, gapOf } from '../solid'
import { refuse, tidy, type Numbers } from '../values'
import type { Site } from './schema'

/** The site's corners as points, m, in the order in which they are kept. */
export const siteRing = (site: Site, numbers: Numbers): Vec2[] =>
  site.corners.map((c): Vec2 => [numbers.length(c.x), numbers.length(c.y)])

/** A side: its length (m), its bearing (degrees clockwise from project north), and the angle inside the site at its first corner (degrees). */
export interface SideFigures {
  length: number
  bearing: number
  angle: number
}
export interface SiteFigures {
  area: number
  perimeter: number
  sides: SideFigures[]
}

/** Area (m2), perimeter, sides and angles of a closed outline, whichever way round it goes. */
export function siteFigures(ring: Vec2[]): SiteFigures {
  const turn = Math.sign(loopArea(ring)) || 1
  const sides = ring.map((p, i): SideFigures => {
    const [before, next] = [ring[(i + ring.length - 1) % ring.length] as Vec2, ring[(i + 1) % ring.length] as Vec2]
    const [inX, inY, outX, outY] = [p[0] - before[0], p[1] - before[1], next[0] - p[0], next[1] - p[1]]
    const bend = (Math.atan2(inX * outY - inY * outX, inX * outX + inY * outY) * 180) / Math.PI
    return { length: Math.hypot(outX, outY), bearing: bearingOf(outX, outY), angle: tidy(180 - turn * bend) }
  })
  return { area: Math.abs(loopArea(ring)), perimeter: sides.reduce((sum, s) => sum + s.length, 0), sides }
}

/** Degrees clockwise from project north, 0 to 360. */
export const bearingOf = (dx: number, dy: number): number =>
  tidy(((((Math.atan2(dx, dy) * 180) / Math.PI) % 360) + 360) % 360)

/** Errors: 'outline' with what is wrong: too few corners, two at one place, sides that cross. */
export function checkSite(site: Site, numbers: Numbers): void {
  const ring = siteRing(site, numbers)
  if (ring.length < 3) refuse('outline', 'A site needs at least three corners.', 'Add the missing corners.')
  ring.forEach((p, i) => {
    const k = ring.findIndex((q, n) => n > i && gapOf(p, q) < TOLERANCE.touch)
    if (k >= 0)
      refuse(
        'outline',
        `Corners ${i + 1} and ${k + 1} of the site lie at one place (${p[0]}, ${p[1]}).`,
        'Move or remove one of the two.',
      )
  })
  const fault = outlineFault(ring)
  if (fault)
    refuse(
      'outline',
      `The site ${fault.what}.`,
      fault.what.startsWith('crosses')
        ? 'Put its corners in the order in which one would walk around it.'
        : fault.remedy,
    )
  const names = sideNames(ring)
  for (const [i, c] of site.corners.entries()) {
    if (numbers.length(c.setback) < 0)
      refuse('size', `The setback of the ${names[i]} is below zero.`, 'Type zero or more.')
    if (c.slope) {
      const angle = numbers.angle(c.slope.angle)
      numbers.length(c.slope.from)
      if (!(angle > 0 && angle < 90))
        refuse(
          'size',
          `The sloping limit of the ${names[i]} rises at ${angle} degrees.`,
          'Type an angle above 0 and below 90 degrees.',
        )
    }
  }
  if (site.limit !== null) numbers.length(site.limit)
}

/** The outline counter-clockwise, with the index of the kept corner that each side begins at: what a side carries goes along. */
export function orderedRing(site: Site, numbers: Numbers): { ring: Vec2[]; side: number[] } {
  const ring = siteRing(site, numbers)
  if (loopArea(ring) >= 0) return { ring, side: ring.map((_, i) => i) }
  // Gone round the other way, the side from a corner is the one that led to it.
  const n = ring.length
  return { ring: [...ring].reverse(), side: ring.map((_, i) => (2 * n - 2 - i) % n) }
}
