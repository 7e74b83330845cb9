import type { MassForm } from '../form'
import {
  fromPixel,
  inOrder,
  lay,
  refuse,
  scalingOf,
  worldOf,
  type Attempts,
  type Id,
  type Laid,
  type Model,
  type Numbers,
  type Project,
} from '../project'
import { arcBetween, arcPoints, loopArea, type Vec2, type Vec3 } from '../solid'
import { standingPlan } from './ground'

export interface PictureStudy {
  id: Id
  laid: Laid[]
}

/** What pictures are tied to: the places of masses, their corners, and the axes of circles, m. */
export function modelOf(
  project: Project,
  forms: MassForm[],
  numbers: Numbers,
  heights: ReadonlyMap<Id, number>,
): Model {
  const byId = new Map(forms.map((f) => [f.id, f]))
  return {
    numbers,
    pictures: project.pictures,
    measures: project.measures,
    height: (id) => heights.get(id) ?? null,
    mass: (id) => {
      const form = byId.get(id)
      if (!form) return null
      const corners = [...standingPlan(form)].sort((a, b) => loopArea(b) - loopArea(a))[0] ?? []
      return { corners, base: form.base, centre: middleOf(corners) }
    },
  }
}

/** Each picture, laid at each of its stands; world coordinates, m. */
export const studyPictures = (project: Project, model: Model, attempts: Attempts): PictureStudy[] =>
  inOrder(project.pictures).flatMap((p) =>
    attempts.run<PictureStudy[]>(
      { what: 'place', id: p.id, name: p.name },
      () => [{ id: p.id, laid: p.stands.map((stand) => lay(p, stand, model)) }],
      () => [],
    ),
  )

/** The middle of an outline's area. */
function middleOf(loop: Vec2[]): Vec2 {
  let [x, y, six] = [0, 0, 0]
  const o = loop[0] ?? [0, 0]
  loop.forEach((p, i) => {
    const q = loop[(i + 1) % loop.length] as Vec2
    const cross = (p[0] - o[0]) * (q[1] - o[1]) - (q[0] - o[0]) * (p[1] - o[1])
    x += (p[0] + q[0] - 2 * o[0]) * cross
    y += (p[1] + q[1] - 2 * o[1]) * cross
    six += 3 * cross
  })
  return six ? [o[0] + x / six, o[1] + y / six] : o
}

/** The lines of a trace in metres, in its picture's own plane (right and up from its upper left corner), arcs in their facets. */
export function traceLines(project: Project, numbers: Numbers, id: Id): { lines: Vec2[][]; closed: boolean } {
  const trace = project.traces[id] ?? refuse('unknown-id', 'That trace is not there any more.', 'Choose another one.')
  const picture =
    project.pictures[trace.picture] ??
    refuse('unknown-id', `The picture of "${trace.name}" is not there.`, 'Bring it back, or trace another one.')
  const scaling = scalingOf(picture, numbers)
  return {
    closed: trace.closed,
    lines: trace.loops.map(({ points, bulges }) =>
      points.flatMap((p, i): Vec2[] => {
        const q = points[i + 1] ?? (trace.closed ? points[0] : undefined)
        // Pixels count down: seen the other way up, an arc swells to the other side.
        const [a, b] = [fromPixel(scaling, p), q && fromPixel(scaling, q)]
        const arc = b && arcBetween(a, b, -(bulges[i] ?? 0))
        return arc ? arcPoints(arc).slice(0, -1) : [a]
      }),
    ),
  }
}

/** The points that are marked on a picture where it lies: ends of pairs, points of measures, corners of traces; world coordinates, m. */
export function marksOf(project: Project, laid: Laid, id: Id, numbers: Numbers): Vec3[] {
  const picture = project.pictures[id]
  if (!picture) return []
  const scaling = scalingOf(picture, numbers)
  const pixels = [
    ...picture.pairs.flatMap((p): (readonly number[])[] => [p.a, p.b]),
    ...Object.values(project.measures).flatMap((m) => (m.picture === id ? m.points : [])),
    ...Object.values(project.traces).flatMap((t) => (t.picture === id ? t.loops.flatMap((l) => l.points) : [])),
  ]
  return pixels.map((p) => worldOf(laid, scaling, p))
}
