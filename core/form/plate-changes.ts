import type { Edit } from '../edits'
import { planOf } from '../moves'
import { nextOrder, numbersOf, refuse, tidy, type Id, type PlateEdit, type Project, type Scheme } from '../project'
import { placePoint, turnOf, type Vec2 } from '../solid'
import { shapeOf, type DrawnShape } from './drawn'
import { massOf } from './mass-of'

/** What is done to a part of a plate that was drawn: it is left out, or has another use. */
export type PartDone = { leaveOut: true } | { use: Id }

/**
 * A part of the plates of a mass that was drawn at world points (m): within an outline, or, of a line with two ends, all that lies left of it. It is
 * kept in the mass's frame, so that it goes along with it. Errors: 'unknown-id'.
 */
export function changePlate(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  id: Id,
  levels: readonly Id[],
  drawn: DrawnShape | { line: [Vec2, Vec2] },
  done: PartDone,
): Edit {
  const mass = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const [x, y] = [numbers.length(mass.place.x), numbers.length(mass.place.y)]
  const { c, s } = turnOf(-numbers.angle(mass.place.turn))
  const local = ([px, py]: Vec2): Vec2 => {
    const [dx, dy] = [px - x, py - y]
    return [tidy(c * dx - s * dy), tidy(s * dx + c * dy)]
  }
  const within =
    'line' in drawn
      ? { kind: 'left-of' as const, a: local(drawn.line[0]), b: local(drawn.line[1]) }
      : { kind: 'outline' as const, points: cornersOf(drawn, project, scheme).map(local) }
  const does: PlateEdit['does'] = 'use' in done ? { kind: 'use', within, use: done.use } : { kind: 'leave-out', within }
  return addChange(scheme, mint, id, levels, does)
}

/** The floor of a mass ends so far (m) within its form, on these levels. */
export const insetPlate = (scheme: Scheme, mint: () => Id, id: Id, levels: readonly Id[], by: number): Edit =>
  addChange(scheme, mint, massOf(scheme, id).id, levels, { kind: 'inset', by })

const addChange = (scheme: Scheme, mint: () => Id, mass: Id, levels: readonly Id[], does: PlateEdit['does']): Edit => ({
  edit: 'plate-edit.add',
  scheme: scheme.id,
  thing: { id: mint(), order: nextOrder(scheme.plateEdits), mass, levels: [...levels], does },
})

/** The corners of what was drawn, in the world; arcs in facets that enclose the same area. */
function cornersOf(drawn: DrawnShape, project: Project, scheme: Scheme): Vec2[] {
  const { origin, shape } = shapeOf(drawn)
  const outline = { id: 'drawn', move: 'outline' as const, on: true, shape, holes: [] }
  const [line] = planOf([outline], numbersOf(project, scheme), 'the part of the plate')
  return (line ?? refuse('outline', 'Nothing is enclosed.', 'Draw an outline.')).points.map((p) =>
    placePoint(p, { x: origin[0], y: origin[1], z: 0, turn: 0 }),
  )
}
