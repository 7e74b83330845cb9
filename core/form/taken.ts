import type { Edit } from '../edits'
import type { Hole } from '../moves'
import { type Scheme } from '../project'
import { inside, loopArea, type Region, type Vec2 } from '../solid'
import { freeName, namesOf, refuse, tidy, type Id, type Num } from '../values'
import { newMass } from './commands'

/**
 * A new mass whose outline is taken from what is there: the largest piece of a region (world points, m) with the holes in it, standing on a
 * level. Errors: 'outline' where the region is empty.
 */
export function massFromRegion(
  scheme: Scheme,
  mint: () => Id,
  from: { name: string; use: Id; level: Id; height: Num; region: Region },
): Edit {
  const outers = from.region.filter((l) => loopArea(l) > 0).sort((a, b) => loopArea(b) - loopArea(a))
  const [points] = outers
  if (!points)
    return refuse('outline', 'There is no floor to take the outline of.', 'Go to a level that the mass has a floor at.')
  const name = freeName(from.name, namesOf(scheme.masses))
  const mass = newMass(scheme, mint, { ...from, name, shape: { kind: 'polygon', points } })
  const [x, y] = points[0] as Vec2
  const holes = from.region.flatMap((loop, i): Hole[] =>
    loopArea(loop) < 0 && inside(points, loop[0] as Vec2)
      ? [
          {
            id: `h${i + 1}`,
            x: 0,
            y: 0,
            shape: {
              kind: 'polygon',
              corners: loop.map((p, k) => ({ id: `e${k + 1}`, x: tidy(p[0] - x), y: tidy(p[1] - y), bulge: 0 })),
            },
          },
        ]
      : [],
  )
  return {
    edit: 'mass.add',
    scheme: scheme.id,
    thing: { ...mass, recipe: mass.recipe.map((m) => (m.move === 'outline' ? { ...m, holes } : m)) },
  }
}
