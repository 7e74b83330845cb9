import { corners as cornersOf, polygonOf, raisedBy, type Move } from '@geotome/core/moves'
import { heightsOf, numbersOf, standingNumbers, tidy } from '@geotome/core/project'
import { placePoint, type Placement, type Vec2 } from '@geotome/core/solid'
import { toPane } from '../../stage/camera'
import type { OnMass } from './kind'

type Outline = Extract<Move, { move: 'outline' }>
type Raise = Extract<Move, { move: 'raise' }>

/** How a mass that was drawn and raised stands in a pane; null for other forms. Lengths from the view's origin, m. */
export interface Standing {
  outline: Outline
  raise: Raise
  place: Placement
  /** the corners in the mass's own frame, and their ids; a circle has one, on its rim */
  local: Vec2[]
  ids: string[]
  middle: Vec2
  height: number
  numbers: ReturnType<typeof numbersOf>
  px: (p: Vec2, z: number) => Vec2
}

export function standing({ mass, world: { project, scheme }, study, view, size }: OnMass): Standing | null {
  const outline = mass.recipe.find((m): m is Outline => m.move === 'outline')
  const raise = mass.recipe.find((m): m is Raise => m.move === 'raise')
  if (!outline || !raise) return null
  const numbers = numbersOf(project, scheme)
  const place = {
    x: numbers.length(mass.place.x) - study.origin[0],
    y: numbers.length(mass.place.y) - study.origin[1],
    z: 0,
    turn: numbers.angle(mass.place.turn),
  }
  const { shape } = outline
  const round = shape.kind === 'circle'
  const local: Vec2[] = round ? [[numbers.length(shape.radius), 0]] : cornersOf(shape, numbers)
  const middle = round
    ? ([0, 0] as Vec2)
    : local.reduce<Vec2>((s, p) => [s[0] + p[0] / local.length, s[1] + p[1] / local.length], [0, 0])
  return {
    outline,
    raise,
    place,
    local,
    ids: round ? ['round'] : polygonOf(shape, numbers).map((c) => c.id),
    middle: placePoint(middle, place),
    height: raisedBy(raise, standingNumbers(mass, numbers, heightsOf(scheme, numbers), scheme.masses)),
    numbers,
    px: (p, z) => toPane(view, size, [p[0], p[1], z]),
  }
}

export const byStride = (v: number, stride: number) => tidy(Math.round(v / stride) * stride)

/** Where something stands that is dragged by `by` from `was`: on a stride; as it was, however odd, while that is less than half of one. */
export const stridden = (was: number, by: number, stride: number) =>
  Math.abs(by) < stride / 2 ? was : byStride(was + by, stride)
