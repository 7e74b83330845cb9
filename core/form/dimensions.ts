import { kindOfMove, planOf, type Move } from '../moves'
import { inOrder, numbersOf, type Project, type Scheme } from '../project'
import { faceLabel, faceName, gapOf, sideTitles, TOLERANCE, type Vec2 } from '../solid'
import type { Id } from '../values'

/** A length that a mass is drawn with, m; `off`: whether it is no whole number of strides. */
export interface Dimension {
  mass: Id
  name: string
  what: string
  value: number
  off: boolean
}

/** Whether a length is no whole number of strides (both m). */
export const isOffStride = (value: number, stride: number): boolean =>
  Math.abs(value / stride - Math.round(value / stride)) * stride > TOLERANCE.point

/** All dimensions of the masses of a scheme: the sides of their outlines, and every length that their moves are given. */
export function dimensionsOf(project: Project, scheme: Scheme): Dimension[] {
  const numbers = numbersOf(project, scheme)
  const stride = project.stride.length
  return inOrder(scheme.masses).flatMap(({ id, name, recipe, place }) => {
    const dimension = (what: string, value: number): Dimension => ({
      mass: id,
      name,
      what,
      value,
      off: isOffStride(value, stride),
    })
    const lines = planOf(recipe, numbers, name)
    const titles = sideTitles(
      lines.map(({ points, edges }) => ({ points, names: edges })),
      numbers.angle(place.turn),
    )
    const sides = lines.flatMap((line) =>
      line.points.flatMap((p, i) =>
        line.arcs[i]
          ? []
          : [
              dimension(
                faceLabel(faceName('side', line.edges[i] ?? ''), titles),
                gapOf(p, line.points[(i + 1) % line.points.length] as Vec2),
              ),
            ],
      ),
    )
    return [
      ...sides,
      ...recipe
        .filter((m) => m.on && m.move !== 'outline')
        .flatMap((m) => lengthsOf(m).map(([what, num]) => dimension(what, numbers.length(num)))),
    ]
  })
}

/** The lengths of a move that a person typed or dragged, with what they are called. */
function lengthsOf(move: Move): [string, Parameters<ReturnType<typeof numbersOf>['length']>[0]][] {
  const kind = kindOfMove(move)
  if (move.move === 'raise') return move.upTo ? [] : [['height', move.height]]
  return Object.entries(kind.fields).flatMap(([key, field]) => {
    const num = (move as unknown as Record<string, unknown>)[key]
    return field.is === 'number' && field.quantity === 'length' && num !== null && num !== undefined
      ? [[`${kind.called.replace(/^an? /, '')}, ${field.label}`, num as never] as [string, never]]
      : []
  })
}
