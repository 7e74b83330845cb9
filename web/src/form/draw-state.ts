import type { Caught } from './catching'
import type { Vec2 } from '@geotome/core/solid'

export type DrawKind = 'rectangle' | 'polygon' | 'circle'

/** What a drawn outline becomes. */
export type DrawPurpose = 'mass' | 'site' | 'neighbour' | 'wing'

/** How the next side of a polygon runs: straight, as an arc through a point, as an arc that goes on from the last side. */
export type SideKind = 'straight' | 'arc' | 'tangent'
export const SIDE_KINDS: SideKind[] = ['straight', 'arc', 'tangent']
export interface DrawState {
  kind: DrawKind
  stage: 'outline' | 'height'
  points: Vec2[]
  /** for the side behind each point, above zero where it swells to the right of the way */
  bulges: number[]
  side: SideKind
  /** the point that the arc under way goes through */
  through: Vec2 | null
  cursor: Caught | null
  /** what is typed into the live fields; empty: the pointer tells */
  typed: [string, string, string]
  /** m, in the height stage */
  height: number
  /** the level that the height was caught at */
  upTo: { id: string; name: string } | null
}

/** Where the pointer is, and how fine it can tell. */
export interface PointerAt {
  raw: Vec2
  pixel: number
  held: boolean
  /** m the pointer has gone up since the outline was closed */ rise: number
}

export const START: DrawState = {
  kind: 'rectangle',
  stage: 'outline',
  points: [],
  bulges: [],
  side: 'straight',
  through: null,
  cursor: null,
  typed: ['', '', ''],
  height: 9,
  upTo: null,
}

export const CLEAR: DrawState['typed'] = ['', '', '']

/** The direction in which the side drawn last ends. */
export function endDirection({ points, bulges }: DrawState): Vec2 | null {
  const [a, b] = [points.at(-2), points.at(-1)]
  if (!a || !b) return null
  // At its end an arc has turned by half its sweep from its chord: to the left where it swells to the right.
  const turn = 2 * Math.atan(bulges[points.length - 2] ?? 0)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return [c * (b[0] - a[0]) - s * (b[1] - a[1]), s * (b[0] - a[0]) + c * (b[1] - a[1])]
}

export const drawHint = (s: DrawState, hole: string | null, purpose: DrawPurpose = 'mass'): string => {
  const what = hole
    ? `the hole in ${hole}`
    : purpose === 'site'
      ? 'the site'
      : purpose === 'neighbour'
        ? 'the neighbour'
        : purpose === 'wing'
          ? 'the wing'
          : 'the outline'
  if (s.stage === 'height')
    return 'Move up or down for the height (it catches levels), or type it. Enter or a click accepts, Escape goes back'
  if (s.points.length === 0)
    return s.kind === 'circle'
      ? `Click the centre of ${hole ? what : 'the circle'}, or type its place east, Tab, north, Enter`
      : s.kind === 'rectangle'
        ? `Click the first corner of ${hole ? what : 'the rectangle'}, or type its place east, Tab, north, Enter`
        : `Click the first corner of ${what}, or type its place east, Tab, north, Enter`
  if (s.kind === 'circle') return 'Click a point on the circle, or type its radius, Enter'
  if (s.kind === 'rectangle') return 'Click the opposite corner, or type the width, Tab, the depth, Enter'
  if (s.side === 'arc' && !s.through)
    return 'Click a point that the arc passes, then its end; or type its rise. A changes to the next kind of side'
  if (s.side === 'arc') return 'Click where the arc ends'
  if (s.side === 'tangent')
    return 'Click where the arc ends that goes on from the last side. A changes to the next kind of side'
  return s.points.length < 3
    ? 'Click the next corner, or type a length (Tab: direction), Enter. A draws an arc, Shift holds to an axis'
    : 'Click the next corner; Enter or a click on the first corner closes the outline. A draws an arc'
}

/** What the second live field measures: the direction of a polygon's side, else a length. */
export const secondIs = (s: DrawState): 'angle' | 'length' =>
  s.kind === 'polygon' && s.points.length > 0 ? 'angle' : 'length'
export const round = (v: number) => Math.round(v * 1e9) / 1e9
