import { batch, type Edit } from '../edits'
import { nextOrder, refuse, type Id, type Scheme } from '../project'
import type { Vec2 } from '../solid'

/** A wing without an outline. */
export const addWing = (scheme: Scheme, id: Id, name: string): Edit => ({
  edit: 'wing.add',
  scheme: scheme.id,
  thing: { id, name, order: nextOrder(scheme.wings), outline: null },
})

/** Gives a wing the rectangle about points in plan (m) as its outline. */
export function wingAround(scheme: Scheme, id: Id, points: Vec2[]): Edit {
  if (points.length === 0)
    return refuse('outline', 'No mass belongs to that wing.', 'Pick masses, or give some of them to the wing first.')
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const outline: Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ]
  return { edit: 'wing.change', scheme: scheme.id, id, set: { outline } }
}

/** Removes a wing; the masses that were told to belong to it belong to where they stand. */
export const removeWing = (scheme: Scheme, id: Id): Edit =>
  batch([
    ...Object.values(scheme.masses)
      .filter((m) => m.wing === id)
      .map((m) => ({ edit: 'mass.change' as const, scheme: scheme.id, id: m.id, set: { wing: null } })),
    { edit: 'wing.remove', scheme: scheme.id, id },
  ])
