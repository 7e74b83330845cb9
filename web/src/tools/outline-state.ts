import { bulgeAlong, bulgeThrough, freeCurve, type BulgedLine, type Vec2, gapOf } from '@geotome/core/solid'
import type { DrawnShape, RectangleForm } from '@geotome/core/form'
import { FOOTPRINT_FORMS } from '@geotome/core/moves'
import type { Caught, Direction } from './catching'
import { typedDirection, typedValue } from './typed'
import type { DrawnOn, World } from './kind'

export type DrawKind = 'rectangle' | 'polygon' | 'circle'

/** How the next side of a polygon runs: straight, as an arc through a point, as an arc that goes on from the last side, as a free curve. */
export type SideKind = 'straight' | 'arc' | 'tangent' | 'curve'
export const SIDE_KINDS: readonly SideKind[] = ['straight', 'arc', 'tangent', 'curve']

/** An outline on its way; points in the plane that is drawn on, m. */
export interface DrawState {
  stage: 'outline' | 'height'
  /** which ready form is drawn within the rectangle, or on the circle; '': that itself */
  form: string
  /** of equal sides on the circle */
  sides: number
  points: Vec2[]
  /** for the side behind each point, above zero where it swells to the right of the way */
  bulges: number[]
  /** whether the side behind each point is part of a free curve */
  curved: boolean[]
  side: SideKind
  /** the point that the arc under way goes through */
  through: Vec2 | null
  cursor: Caught | null
  /** where the pointer is */
  raw: Vec2 | null
  /** the direction that the next side keeps to */
  only: Direction | null
  /** what is typed into the live fields; empty: the pointer tells */
  typed: readonly [string, string, string]
  /** m, in the height stage */
  height: number
  /** the level that the height was caught at */
  upTo: { id: string; name: string } | null
  /** where the pointer stood when the height began to be drawn */
  rising: { pane: string; up: number } | null
}

export const CLEAR: DrawState['typed'] = ['', '', '']

export const START: DrawState = {
  stage: 'outline',
  form: '',
  sides: 6,
  points: [],
  bulges: [],
  curved: [],
  side: 'straight',
  through: null,
  cursor: null,
  raw: null,
  only: null,
  typed: CLEAR,
  height: 9,
  upTo: null,
  rising: null,
}

export const round = (v: number) => Math.round(v * 1e9) / 1e9

/** What the second live field measures: the direction of a side, how many sides there are on a circle, else a length. */
export const secondIs = (kind: DrawKind, s: DrawState): 'angle' | 'length' | 'number' =>
  s.points.length === 0
    ? 'length'
    : kind === 'polygon' || (isThree(s) && s.points.length === 1)
      ? 'angle'
      : kind === 'circle'
        ? 'number'
        : 'length'

/** The ways to draw a rectangle besides its two corners, and to say the size of equal sides besides their corners. */
const MIDDLE = 'from its middle'
const THREE = 'by three points'
const FLATS = 'across flats'
const ONE_SIDE = 'by one side'

/** The forms that are drawn within a rectangle, or on a circle, and the ways to draw them, by what they are called. */
export const FORMS: Record<DrawKind, readonly string[]> = {
  rectangle: ['rectangle', MIDDLE, THREE, ...FOOTPRINT_FORMS, 'ellipse', 'by chance'],
  circle: ['circle', 'equal sides', FLATS, ONE_SIDE],
  polygon: [],
}
const isMiddle = (s: DrawState) => s.form === MIDDLE
export const isThree = (s: DrawState) => s.form === THREE

/** How many points an outline is drawn by; a polygon by as many as one likes. */
export const pointsOf = (kind: DrawKind, s: DrawState): number => (kind === 'polygon' ? Infinity : isThree(s) ? 3 : 2)

/** What the size of something on a circle is called, and how often the radius to its corners it is. */
export function sizeOnCircle({ form, sides }: DrawState, n = sides): { label: string; times: number } {
  const half = Math.PI / n
  return form === FLATS
    ? { label: FLATS, times: 2 * Math.cos(half) }
    : form === ONE_SIDE
      ? { label: 'side', times: 2 * Math.sin(half) }
      : { label: 'radius', times: 1 }
}

/** The sides of a rectangle so far: along its first one, and square to it; m, above zero to the left. */
export function sidesOf(s: DrawState, to: Vec2): [number, number] {
  const [a, b] = [s.points[0] as Vec2, s.points[1]]
  if (isThree(s) && b) {
    const [ux, uy] = [(b[0] - a[0]) / (gapOf(a, b) || 1), (b[1] - a[1]) / (gapOf(a, b) || 1)]
    return [gapOf(a, b), ux * (to[1] - a[1]) - uy * (to[0] - a[0])]
  }
  const times = isMiddle(s) ? 2 : 1
  return [(to[0] - a[0]) * times, (to[1] - a[1]) * times]
}

/** The direction in which the side drawn last ends. */
function endDirection({ points, bulges }: DrawState): Vec2 | null {
  const [a, b] = [points.at(-2), points.at(-1)]
  if (!a || !b) return null
  // At its end an arc has turned by half its sweep from its chord: to the left where it swells to the right.
  const turn = 2 * Math.atan(bulges[points.length - 2] ?? 0)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return [c * (b[0] - a[0]) - s * (b[1] - a[1]), s * (b[0] - a[0]) + c * (b[1] - a[1])]
}

/** The point that the next press or Enter sets: what is typed wins over the pointer. */
export function nextPoint(kind: DrawKind, s: DrawState, world: World, on?: DrawnOn): Vec2 | null {
  const last = s.points.at(-1)
  const at = s.cursor?.point ?? null
  const is = secondIs(kind, s)
  const [first, second] = [
    typedValue(s.typed[0], world),
    is === 'angle' ? typedDirection(s.typed[1], world, on) : typedValue(s.typed[1], world, is),
  ]
  if (!last) {
    const [x, y] = [first ?? at?.[0], second ?? at?.[1]]
    return x === undefined || y === undefined ? null : [x, y]
  }
  if (kind === 'circle') {
    const { times } = sizeOnCircle(s, second ?? s.sides)
    const r = first !== null ? first / times : at ? gapOf(at, last) : null
    return r ? [round(last[0] + r), last[1]] : null
  }
  if (kind === 'rectangle' && isThree(s) && s.points.length === 2) {
    const origin = s.points[0] as Vec2
    const depth = at ? sidesOf(s, at)[1] : 1
    const by = first !== null ? first * (depth < 0 ? -1 : 1) : depth
    const long = gapOf(last, origin) || 1
    return [round(last[0] - ((last[1] - origin[1]) / long) * by), round(last[1] + ((last[0] - origin[0]) / long) * by)]
  }
  if (kind === 'rectangle' && !isThree(s)) {
    const half = isMiddle(s) ? 0.5 : 1
    const [dx, dy] = at ? [at[0] - last[0], at[1] - last[1]] : [1, 1]
    const width = first !== null ? first * half : Math.abs(dx)
    const depth = second !== null ? second * half : Math.abs(dy)
    return width && depth ? [last[0] + width * (dx < 0 ? -1 : 1), last[1] + depth * (dy < 0 ? -1 : 1)] : null
  }
  const length = first ?? (at ? gapOf(at, last) : null)
  const angle = second !== null ? (second * Math.PI) / 180 : at ? Math.atan2(at[1] - last[1], at[0] - last[0]) : 0
  if (first === null && second === null) return at
  return length ? [round(last[0] + length * Math.cos(angle)), round(last[1] + length * Math.sin(angle))] : null
}

/** The bulge of the side that leads to a point. */
export function bulgeTo(kind: DrawKind, s: DrawState, to: Vec2, world: World): number {
  const last = s.points.at(-1)
  if (!last || kind !== 'polygon' || s.side === 'straight' || s.side === 'curve') return 0
  const rise = typedValue(s.typed[2], world)
  const chord = gapOf(to, last)
  if (rise !== null && chord > 0) return round((2 * rise) / chord)
  if (s.side === 'arc') return s.through ? round(bulgeThrough(last, s.through, to)) : 0
  const direction = endDirection(s)
  return direction ? round(bulgeAlong(last, direction, to)) : 0
}

/** The sides that are free curves made arcs; `closed`: whether it comes back to its first point. */
export const smoothed = (s: Pick<DrawState, 'points' | 'bulges' | 'curved'>, closed: boolean): BulgedLine =>
  s.curved.some(Boolean)
    ? freeCurve({ points: s.points, bulges: s.bulges }, s.curved, closed)
    : { points: s.points, bulges: s.points.map((_, i) => s.bulges[i] ?? 0) }

/** What was drawn, once it is whole; `open`: a line with two ends. */
export function shapeDrawn(kind: DrawKind, s: DrawState, open = false): DrawnShape {
  const [a, b, c] = [s.points[0] ?? [0, 0], s.points[1] ?? [1, 1], s.points[2]] as [Vec2, Vec2, Vec2 | undefined]
  if (kind === 'rectangle') {
    if (isThree(s)) {
      const [width, depth] = sidesOf(s, c ?? b).map((v) => Math.round(v * 1e7) / 1e7) as [number, number]
      const turn = round((Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI)
      return { kind, from: a, to: [round(a[0] + width), round(a[1] + depth)], turn }
    }
    if (isMiddle(s)) return { kind, from: [round(2 * a[0] - b[0]), round(2 * a[1] - b[1])], to: b }
    const form = FOOTPRINT_FORMS.find((f) => f === s.form) ?? WITHIN[s.form]
    return { kind, from: a, to: b, ...(form ? { form } : {}) }
  }
  if (kind === 'circle') {
    const by = s.form === FLATS ? ('flats' as const) : s.form === ONE_SIDE ? ('side' as const) : ('corners' as const)
    return { kind, centre: a, radius: round(gapOf(b, a)), ...(s.form ? { sides: s.sides, by } : {}) }
  }
  return { kind, ...smoothed(s, !open) }
}

const WITHIN: Record<string, RectangleForm | undefined> = { ellipse: 'ellipse', 'by chance': 'chance' }
