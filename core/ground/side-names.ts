import { loopArea, type Vec2 } from '../solid'

const WINDS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const

/** The wind that a bearing (degrees clockwise from north) is nearest to. */
export const windOf = (bearing: number): string => WINDS[Math.round((((bearing % 360) + 360) % 360) / 45) % 8] as string

/**
 * The names of a closed outline's sides, by where they look: "south side". Where several look the same way they are counted from the left
 * as one stands before them, looking at the site: "south side 1" lies farthest west. In the order of the corners that they begin at, whichever way round it goes.
 */
export function sideNames(ring: readonly Vec2[]): string[] {
  const sense = loopArea(ring as Vec2[]) < 0 ? -1 : 1
  const sides = ring.map((a, i) => {
    const b = ring[(i + 1) % ring.length] as Vec2
    const [dx, dy] = [(b[0] - a[0]) * sense, (b[1] - a[1]) * sense]
    // Outwards is to the right of the way round.
    const wind = windOf((Math.atan2(dy, -dx) * 180) / Math.PI)
    return { wind, middle: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as Vec2 }
  })
  return sides.map(({ wind, middle }) => {
    const alike = sides.filter((s) => s.wind === wind)
    if (alike.length === 1) return `${wind} side`
    const angle = (WINDS.indexOf(wind as (typeof WINDS)[number]) * Math.PI) / 4
    // Along the side, from the left of whoever looks at it from outside.
    const along = ([x, y]: Vec2) => -x * Math.cos(angle) + y * Math.sin(angle)
    const before = alike.filter((s) => along(s.middle) < along(middle)).length
    return `${wind} side ${before + 1}`
  })
}
