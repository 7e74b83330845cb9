import { placePoint, turnOf, type Placement, type Vec2 } from './place'

/**
 * Carries the level cuts of a body by their height, each as it is: turned and scaled about an upright axis, and shifted. How far it has
 * gone at a height runs from 0 to 1, evenly over the ranges (m) and not at all between and beyond them.
 */
export interface Carry {
  /** the axis, m */
  x: number
  y: number
  /** from the lowest up, apart from one another */
  ranges: [from: number, to: number][]
  /** degrees at the end */
  turn: number
  /** at the end; above zero */
  scale: number
  /** m at the end */
  shift: Vec2
  /** whether the shift follows an arc that begins upright, and not a straight line */
  bows: boolean
  /** degrees that an arc has leant over at its end */
  bend: number
}

export const STILL: Omit<Carry, 'x' | 'y' | 'ranges'> = { turn: 0, scale: 1, shift: [0, 0], bows: false, bend: 0 }

/** How far it has gone at a height (m): 0 to 1. */
export function progressAt(ranges: Carry['ranges'], z: number): number {
  let [done, all] = [0, 0]
  for (const [from, to] of ranges) {
    done += Math.min(to, Math.max(from, z)) - from
    all += to - from
  }
  return all === 0 ? 0 : done / all
}

/** What is done to the cut at a height (m): a number of times as large, turned by so many radians, and moved. */
export function similarityAt(by: Carry, z: number): { scale: number; turn: number; move: (p: Vec2) => Vec2 } {
  const t = progressAt(by.ranges, z)
  const scale = 1 + (by.scale - 1) * t
  const turn = ((by.turn * Math.PI) / 180) * t
  const [c, s] = [Math.cos(turn) * scale, Math.sin(turn) * scale]
  const along = by.bows ? bowed(t, (by.bend * Math.PI) / 180) : t
  const [dx, dy] = [by.x + by.shift[0] * along, by.y + by.shift[1] * along]
  return { scale, turn, move: ([x, y]) => [dx + c * (x - by.x) - s * (y - by.y), dy + s * (x - by.x) + c * (y - by.y)] }
}

/** Writes where the corner whose coordinates (m) begin at a place of a list is carried to, at the same place of another list. */
export type Carrier = (corners: ArrayLike<number>, at: number, into: number[] | Float64Array) => void

/** The same as `similarityAt`, for many corners: what is done at a height is worked out once while it is the same. */
export function carrierOf(by: Carry): Carrier {
  let [z, c, s, dx, dy] = [NaN, 1, 0, 0, 0]
  return (corners, at, into) => {
    const height = corners[at + 2] as number
    if (height !== z) {
      z = height
      const t = progressAt(by.ranges, z)
      const scale = 1 + (by.scale - 1) * t
      const turn = ((by.turn * Math.PI) / 180) * t
      const along = by.bows ? bowed(t, (by.bend * Math.PI) / 180) : t
      c = Math.cos(turn) * scale
      s = Math.sin(turn) * scale
      dx = by.x + by.shift[0] * along
      dy = by.y + by.shift[1] * along
    }
    const [x, y] = [(corners[at] as number) - by.x, (corners[at + 1] as number) - by.y]
    into[at] = dx + c * x - s * y
    into[at + 1] = dy + s * x + c * y
    into[at + 2] = z
  }
}

/** The part of its shift that an arc has made at a part of its height: upright at its foot, leant over by the angle at its head. */
function bowed(t: number, angle: number): number {
  const rise = Math.sin(Math.abs(angle))
  return (1 - Math.sqrt(1 - (t * rise) ** 2)) / (1 - Math.cos(angle))
}

/** The same of a body that is placed. */
export function carryPlaced(by: Carry, at: Placement): Carry {
  const [x, y] = placePoint([by.x, by.y], at)
  const { c, s } = turnOf(at.turn)
  const [dx, dy] = by.shift
  return {
    ...by,
    x,
    y,
    ranges: by.ranges.map(([from, to]) => [from + at.z, to + at.z]),
    shift: [c * dx - s * dy, s * dx + c * dy],
  }
}
