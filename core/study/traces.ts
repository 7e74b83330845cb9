import { type Comparison, compareLine, worldOf, scalingOf } from '../picture'
import { silhouetteOf } from '../slice'
import { type Region, uniteRegions, type Vec2 } from '../solid'
import { type Id, refuse } from '../values'
import { standingPlan } from './ground'
import { traceLines } from './pictures'
import type { Study } from './types'

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
      : uniteRegions(forms.map(standingPlan))
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
