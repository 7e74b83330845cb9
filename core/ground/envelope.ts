import { areaOf, gapOf, sideNames, type Allowed, type Region, type Vec2 } from '../solid'
import { tidy, type Numbers } from '../values'
import type { Site } from './schema'
import { buildable } from './setbacks'

import { orderedRing, siteRing } from './site'
import { slopesOf, type SlopeLimit } from './slopes'

/** The room that setbacks, the permitted height and slopes leave above the datum. */
export interface Envelope {
  ring: Vec2[]
  /** the kept corner that each side of `ring` begins at */
  side: number[]
  /** of the sides as they are listed: "south side" */
  names: string[]
  setbacks: number[]
  region: Region
  area: number
  limit: number | null
  slopes: SlopeLimit[]
}

/** The envelope of a site. Lengths in m, slopes in degrees. Errors: as its numbers'. */
export function envelopeOf(site: Site, numbers: Numbers): Envelope {
  const { ring, side } = orderedRing(site, numbers)
  const setbacks = side.map((k) => numbers.length(site.corners[k]?.setback ?? 0))
  const region = buildable(ring, setbacks)
  return {
    ring,
    side,
    names: sideNames(siteRing(site, numbers)),
    setbacks,
    region,
    area: areaOf(region),
    limit: site.limit === null ? null : numbers.length(site.limit),
    slopes: slopesOf(
      ring,
      side.map((k) => site.corners[k]),
      numbers,
    ),
  }
}

/** The envelope as a room up to a height (m), where no lower one is permitted. */
export const roomOf = (envelope: Envelope, top: number): Allowed => ({
  region: envelope.region,
  from: 0,
  to: envelope.limit ?? Math.max(1, top),
  planes: envelope.slopes.map(({ plane, within }) => ({ ...plane, within })),
})

/**
 * The vector (m) that brings a mass to a distance from a side, given how far it is from it now. Sides are counted as they are listed,
 * from 0.
 */
export function towardSide(
  envelope: Pick<Envelope, 'ring' | 'side'>,
  side: number,
  now: number,
  distance: number,
): Vec2 {
  const i = Math.max(0, envelope.side.indexOf(side))
  const [a, b] = [envelope.ring[i] as Vec2, envelope.ring[(i + 1) % envelope.ring.length] as Vec2]
  const long = gapOf(b, a)
  const by = distance - now
  return [tidy((-(b[1] - a[1]) / long) * by), tidy(((b[0] - a[0]) / long) * by)]
}
