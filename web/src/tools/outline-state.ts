import { bulgeAlong, bulgeThrough, type Vec2, gapOf } from '@geotome/core/solid'
import type { DrawnShape } from '@geotome/core/form'
import { FOOTPRINT_FORMS } from '@geotome/core/moves'
import type { Caught } from './catching'
import { typedValue } from './typed'
import type { World } from './kind'

export type DrawKind = 'rectangle' | 'polygon' | 'circle'

/** How the next side of a polygon runs: straight, as an arc through a point, as an arc that goes on from the last side. */
export type SideKind = 'straight' | 'arc' | 'tangent'
export const SIDE_KINDS: readonly SideKind[] = ['straight', 'arc', 'tangent']

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
  side: SideKind
  /** the point that the arc under way goes through */
  through: Vec2 | null
  cursor: Caught | null
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
  side: 'straight',
  through: null,
  cursor: null,
  typed: CLEAR,
  height: 9,
  upTo: null,
  rising: null,
}

export const round = (v: number) => Math.round(v * 1e9) / 1e9

/** What the second live field measures: the direction of a polygon's side, how many sides there are on a circle, else a length. */
export const secondIs = (kind: DrawKind, s: DrawState): 'angle' | 'length' | 'number' =>
  s.points.length === 0 ? 'length' : kind === 'polygon' ? 'angle' : kind === 'circle' ? 'number' : 'length'

/** The forms that are drawn within a rectangle, or on a circle, by what they are called. */
export const FORMS: Record<DrawKind, readonly string[]> = {
  rectangle: ['rectangle', ...FOOTPRINT_FORMS],
  circle: ['circle', 'equal sides'],
  polygon: [],
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
export function nextPoint(kind: DrawKind, s: DrawState, world: World): Vec2 | null {
  const last = s.points.at(-1)
  const at = s.cursor?.point ?? null
  const [first, second] = [typedValue(s.typed[0], world), typedValue(s.typed[1], world, secondIs(kind, s))]
  if (!last) {
    const [x, y] = [first ?? at?.[0], second ?? at?.[1]]
    return x === undefined || y === undefined ? null : [x, y]
  }
  if (kind === 'circle') {
    const r = first ?? (at ? gapOf(at, last) : null)
    return r ? [round(last[0] + r), last[1]] : null
  }
  if (kind === 'rectangle') {
    const [dx, dy] = at ? [at[0] - last[0], at[1] - last[1]] : [1, 1]
    const width = first ?? Math.abs(dx)
    const depth = second ?? Math.abs(dy)
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
  if (!last || kind !== 'polygon' || s.side === 'straight') return 0
  const rise = typedValue(s.typed[2], world)
  const chord = gapOf(to, last)
  if (rise !== null && chord > 0) return round((2 * rise) / chord)
  if (s.side === 'arc') return s.through ? round(bulgeThrough(last, s.through, to)) : 0
  const direction = endDirection(s)
  return direction ? round(bulgeAlong(last, direction, to)) : 0
}

/** What was drawn, once it is whole. */
export function shapeDrawn(kind: DrawKind, s: DrawState): DrawnShape {
  const [a, b] = [s.points[0] ?? [0, 0], s.points[1] ?? [1, 1]] as [Vec2, Vec2]
  if (kind === 'rectangle') {
    const form = FOOTPRINT_FORMS.find((f) => f === s.form)
    return { kind, from: a, to: b, ...(form ? { form } : {}) }
  }
  if (kind === 'circle')
    return { kind, centre: a, radius: round(gapOf(b, a)), ...(s.form === 'equal sides' ? { sides: s.sides } : {}) }
  return { kind, points: s.points, bulges: s.points.map((_, i) => s.bulges[i] ?? 0) }
}
