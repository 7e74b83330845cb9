import { planOf } from '@geotome/core/moves'
import { numbersOf, Refusal, type Mass, type Numbers, type Project, type Scheme } from '@geotome/core/project'
import {
  faceLabel,
  faceName,
  minus,
  placePoint,
  sideTitles,
  spanned,
  type Arc,
  type Outline,
  type Vec2,
} from '@geotome/core/solid'
import type { CatchEdge } from './catching'

/** The edges of all drawn outlines in the world, m: what the pointer can catch. */
export function catchEdges(project: Project, scheme: Scheme): CatchEdge[] {
  const numbers = numbersOf(project, scheme)
  return Object.values(scheme.masses).flatMap((mass): CatchEdge[] => {
    const lines = planOrNone(mass, numbers)
    if (lines.length === 0) return []
    const at = {
      x: numbers.length(mass.place.x),
      y: numbers.length(mass.place.y),
      z: 0,
      turn: numbers.angle(mass.place.turn),
    }
    const of = mass.name
    const titles = sideTitles(
      lines.map(({ points, edges }) => ({ points, names: edges })),
      at.turn,
    )
    return lines.flatMap((line): CatchEdge[] => {
      const seen = new Set<Arc>()
      return line.points.flatMap((p, i): CatchEdge[] => {
        const arc = line.arcs[i]
        if (!arc)
          return [
            {
              kind: 'side',
              of,
              named: faceLabel(faceName('side', line.edges[i] ?? ''), titles),
              a: placePoint(p, at),
              b: placePoint(line.points[(i + 1) % line.points.length] as Vec2, at),
            },
          ]
        if (seen.has(arc)) return []
        seen.add(arc)
        const [x, y] = placePoint([arc.x, arc.y], at)
        return [{ kind: 'arc', of, arc: { ...arc, x, y, from: arc.from + (at.turn * Math.PI) / 180 } }]
      })
    })
  })
}

/** The centres of all drawn masses in the world, m: those of the areas of their plans. */
export function centresOf(project: Project, scheme: Scheme): { point: Vec2; word: string }[] {
  const numbers = numbersOf(project, scheme)
  return Object.values(scheme.masses).flatMap((mass) => {
    const lines = planOrNone(mass, numbers)
    let [x, y, area] = [0, 0, 0]
    const o = lines[0]?.points[0]
    if (!o) return []
    for (const { points } of lines)
      points.forEach((p, i) => {
        const q = points[(i + 1) % points.length] as Vec2
        const cross = spanned(minus(p, o), minus(q, o))
        x += (p[0] + q[0] - 2 * o[0]) * cross
        y += (p[1] + q[1] - 2 * o[1]) * cross
        area += cross
      })
    if (area === 0) return []
    const at = {
      x: numbers.length(mass.place.x),
      y: numbers.length(mass.place.y),
      z: 0,
      turn: numbers.angle(mass.place.turn),
    }
    return [{ point: placePoint([o[0] + x / (3 * area), o[1] + y / (3 * area)], at), word: `centre of ${mass.name}` }]
  })
}

/** The plan of a mass; none while a gesture makes of it what cannot be drawn. */
function planOrNone(mass: Mass, numbers: Numbers): Outline[] {
  try {
    return planOf(mass.recipe, numbers, mass.name)
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return []
  }
}
