import { planOf } from '@geotome/core/moves'
import { numbersOf, type Project, type Scheme } from '@geotome/core/project'
import { placePoint, type Arc, type Vec2 } from '@geotome/core/solid'
import type { CatchEdge } from './catching'

/** The edges of all drawn outlines in the world, m: what the pointer can catch. */
export function catchEdges(project: Project, scheme: Scheme): CatchEdge[] {
  const numbers = numbersOf(project, scheme)
  return Object.values(scheme.masses).flatMap((mass): CatchEdge[] => {
    const lines = planOf(mass.recipe, numbers, mass.name)
    if (lines.length === 0) return []
    const at = {
      x: numbers.length(mass.place.x),
      y: numbers.length(mass.place.y),
      z: 0,
      turn: numbers.angle(mass.place.turn),
    }
    const of = mass.name
    return lines.flatMap((line): CatchEdge[] => {
      const seen = new Set<Arc>()
      return line.points.flatMap((p, i): CatchEdge[] => {
        const arc = line.arcs[i]
        if (!arc)
          return [
            {
              kind: 'side',
              of,
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
