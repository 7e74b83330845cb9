import { TOLERANCE } from '../values'
import type { Vec2 } from './place'
import { loopArea } from './solid'
import { gapOf, spanned } from './vec2'

const WINDS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const

/** The wind that a bearing (degrees clockwise from north) is nearest to. */
export const windOf = (bearing: number): string =>
  WINDS[Math.round((((bearing % 360) + 360) % 360) / 45 - TOLERANCE.rounding) % 8] as string

/** A side: where it looks, its middle (m), and its prefix: '' for an outline, else "court, " or "court 2, ". */
interface Side {
  wind: string
  middle: Vec2
  of: string
}

/**
 * The names of a closed outline's sides, by where they look: "south side". Where several look the same way they are counted from the left
 * as one stands before them, looking at the site: "south side 1" lies farthest west. In the order of the corners that they begin at,
 * whichever way round it goes.
 */
export function sideNames(ring: readonly Vec2[]): string[] {
  const sense = loopArea(ring as Vec2[]) < 0 ? -1 : 1
  return counted(
    ring.map((a, i) => {
      const b = ring[(i + 1) % ring.length] as Vec2
      return { wind: lookOf([(b[0] - a[0]) * sense, (b[1] - a[1]) * sense]), middle: middleOf(a, b), of: '' }
    }),
  )
}

/**
 * The names of the sides of a form by where they look, keyed by what its edges are called: those of its outline as the sides of a site
 * are, "south side 2", those of its courts as "court, looking south". Outer loops run counter-clockwise, those of courts clockwise; m.
 * `turn`: degrees from the frame of the loops to the site's. A circle has no side.
 */
export function sideTitles(
  loops: readonly { points: Vec2[]; names: readonly string[] }[],
  turn = 0,
): Map<string, string> {
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const courts = loops.filter(({ points }) => loopArea(points) < 0)
  const sides = loops.flatMap((loop) => {
    const court = courts.indexOf(loop)
    const of = court < 0 ? '' : courts.length === 1 ? 'court, ' : `court ${court + 1}, `
    const points = loop.points.map(([x, y]): Vec2 => [c * x - s * y, s * x + c * y])
    return runsOf(points, loop.names).map((run) => ({ name: run.name, wind: lookOf(run.way), middle: run.middle, of }))
  })
  const titles = counted(sides)
  return new Map(sides.map(({ name }, i) => [name, titles[i] as string]))
}

/** The edges of one name in a closed loop: their way from end to end, and their middle. None where one name goes all round. */
function runsOf(points: Vec2[], names: readonly string[]): { name: string; way: Vec2; middle: Vec2 }[] {
  const runs = new Map<string, { way: Vec2; sum: Vec2; long: number }>()
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length] as Vec2
    const run = runs.get(names[i] as string) ?? { way: [0, 0], sum: [0, 0], long: 0 }
    const long = gapOf(a, b)
    const [x, y] = middleOf(a, b)
    runs.set(names[i] as string, {
      way: [run.way[0] + b[0] - a[0], run.way[1] + b[1] - a[1]],
      sum: [run.sum[0] + x * long, run.sum[1] + y * long],
      long: run.long + long,
    })
  })
  return [...runs].flatMap(([name, { way, sum, long }]) =>
    Math.hypot(...way) < TOLERANCE.least ? [] : [{ name, way, middle: [sum[0] / long, sum[1] / long] }],
  )
}

/** Where a side that runs a way, with what it belongs to at its left, looks. */
const lookOf = ([dx, dy]: Vec2): string => windOf((Math.atan2(dy, -dx) * 180) / Math.PI)

const middleOf = (a: Vec2, b: Vec2): Vec2 => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]

/** The names of sides, those that look alike counted from the left of whoever looks at them, and behind one another from the nearest on. */
function counted(sides: readonly Side[]): string[] {
  return sides.map((side) => {
    const alike = sides.filter((other) => other.wind === side.wind && other.of === side.of)
    const plain = side.of ? `${side.of}looking ${side.wind}` : `${side.wind} side`
    return alike.length === 1 ? plain : `${plain} ${alike.filter((other) => isBefore(other, side)).length + 1}`
  })
}

function isBefore(a: Side, b: Side): boolean {
  const angle = (WINDS.indexOf(a.wind as (typeof WINDS)[number]) * Math.PI) / 4
  const out: Vec2 = [Math.sin(angle), Math.cos(angle)]
  const way: Vec2 = [b.middle[0] - a.middle[0], b.middle[1] - a.middle[1]]
  const along = spanned(out, way)
  return Math.abs(along) > TOLERANCE.touch ? along > 0 : out[0] * way[0] + out[1] * way[1] < -TOLERANCE.touch
}
