import type { MassForm } from '../form'
import {
  compareLine,
  fromPixel,
  inOrder,
  lay,
  refuse,
  scalingOf,
  worldOf,
  type Comparison,
  type Id,
  type Laid,
  type Model,
  type Numbers,
  type Project,
} from '../project'
import { arcBetween, arcPoints, loopArea, uniteRegions, type Region, type Vec2 } from '../solid'
import { silhouetteOf } from '../slice'
import { planOf } from './ground'
import type { Study } from './types'

export interface PictureStudy {
  id: Id
  laid: Laid[]
}

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
      const corners = [...planOf(form)].sort((a, b) => loopArea(b) - loopArea(a))[0] ?? []
      return { corners, base: form.base, centre: middleOf(corners) }
    },
  }
}

export const studyPictures = (project: Project, model: Model): PictureStudy[] =>
  inOrder(project.pictures).map((p) => ({ id: p.id, laid: p.stands.map((stand) => lay(p, stand, model)) }))

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

/**
 * How far a trace lies off the model's outline in the view that its picture is laid in: in plan the plans of all masses (or the cut of the level that
 * it lies at), upright their outline as it is seen. `stand` is the place in the picture's stands. Errors: 'unknown-id', 'geometry'.
 */
export function compareTrace(study: Study, trace: Id, stand = 0): Comparison & { view: string } {
  const { project, context, forms } = study
  const kept = project.traces[trace] ?? refuse('unknown-id', 'That trace is not there any more.', 'Choose another one.')
  const laid =
    study.pictures.find((p) => p.id === kept.picture)?.laid[stand] ??
    refuse(
      'geometry',
      'The picture is not laid in any view.',
      'Lay it in plan, or let it stand in an elevation, first.',
    )
  const { lines, closed } = traceLines(project, context.numbers, trace)
  const { lies } = laid.stand
  if (forms.length === 0) refuse('geometry', 'There is no mass to compare with.', 'Draw one first.')
  if (lies.kind === 'plan') {
    const floor = study.floors.find((f) => f.level.id === lies.level)
    const outline: Region = floor?.plates.length
      ? uniteRegions(floor.plates.map((p) => p.region))
      : uniteRegions(forms.map(planOf))
    const world = lines.map((line) => line.map(([u, w]): Vec2 => [laid.corner[0] + u, laid.corner[1] + w]))
    return {
      ...(compareLine(world, closed, outline) ??
        refuse(
          'geometry',
          'There is nothing to compare with at that level.',
          'Lay the picture at a level with a floor.',
        )),
      view: floor ? `the floor of ${floor.level.name}` : 'the plans of all masses',
    }
  }
  const azimuth = context.numbers.angle(lies.azimuth)
  const along = laid.right[0] * laid.corner[0] + laid.right[1] * laid.corner[1]
  const seen = lines.map((line) => line.map(([u, w]): Vec2 => [along + u, laid.corner[2] + w]))
  return {
    ...(compareLine(seen, closed, uniteRegions(forms.map((f) => silhouetteOf(f, azimuth)))) ??
      refuse('geometry', 'There is nothing to compare with in that view.', 'Draw a mass first.')),
    view: `the outline seen from ${azimuth} degrees`,
  }
}

/** A trace in plan, in world coordinates (m), as it is laid first: what outlines and masses are made of. Errors: 'geometry' where its picture stands upright. */
export function tracedPlan(study: Study, trace: Id): { points: Vec2[]; bulges: number[] }[] {
  const { project, context } = study
  const kept = project.traces[trace] ?? refuse('unknown-id', 'That trace is not there any more.', 'Choose another one.')
  const picture =
    project.pictures[kept.picture] ?? refuse('unknown-id', 'The picture of that trace is not there.', 'Bring it back.')
  const laid =
    study.pictures.find((p) => p.id === kept.picture)?.laid.find((l) => l.stand.lies.kind === 'plan') ??
    refuse('geometry', `"${picture.name}" is not laid in plan.`, 'Lay it in plan at a level first.')
  const scaling = scalingOf(picture, context.numbers)
  return kept.loops.map(({ points, bulges }) => ({
    points: points.map((p): Vec2 => {
      const [x, y] = worldOf(laid, scaling, p)
      return [Math.round(x * 1e4) / 1e4, Math.round(y * 1e4) / 1e4]
    }),
    bulges: bulges.map((b) => -b),
  }))
}
