import type { Edit } from '../edits'
import { withPlaced, type Hole, type Move } from '../moves'
import { nextOrder, type Project, type Scheme } from '../project'
import { inside, loopArea, TOLERANCE, type Region, type Vec2 } from '../solid'
import { freeName, namesOf, refuse, tidy, type Id, type Num } from '../values'
import { newMass } from './commands'
import type { FaceAt } from './face-at'
import { massOf } from './mass-of'
import { uprightMass } from './pulling'

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

/**
 * A new mass on the outline of another one, set off by so many m (below zero inwards): it stands and is raised as that one is. Errors:
 * 'geometry' where that has no outline.
 */
export function massSetOff(scheme: Scheme, mint: () => Id, id: Id, by: Num): Extract<Edit, { edit: 'mass.add' }> {
  const mass = massOf(scheme, id)
  const own = mass.recipe.filter((m) => m.move === 'outline' || m.move === 'inset' || m.move === 'raise')
  if (!own.some((m) => m.move === 'outline') || !own.some((m) => m.move === 'raise'))
    return refuse('geometry', `"${mass.name}" has no outline that is raised.`, 'Pick a mass that was drawn and raised.')
  const inset: Move = { id: mint(), move: 'inset', on: true, by: typeof by === 'number' ? tidy(-by) : by }
  const recipe = own.map((m) => ({ ...m, id: mint() }))
  return {
    edit: 'mass.add',
    scheme: scheme.id,
    thing: {
      ...mass,
      id: mint(),
      name: freeName(`${mass.name}, set off`, namesOf(scheme.masses)),
      order: nextOrder(scheme.masses),
      faces: {},
      recipe: withPlaced(recipe, inset) ?? recipe,
    },
  }
}

/**
 * A new mass whose outline is a flat face of another: raised from it where it lies level, carried away from it, towards whoever looks at it,
 * where it is upright. Errors: 'outline' where it is bent or leans.
 */
export function massFromFace(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  from: { name: string; use: Id; level: Id; levelHeight: number; face: FaceAt; by: Num },
): Edit {
  const { frame, region, tilt } = from.face
  const points = [...region].sort((a, b) => loopArea(b) - loopArea(a))[0]
  // degrees
  const isAt = (angle: number) => Math.abs(tilt - angle) < TOLERANCE.touch
  const isUpright = isAt(90)
  if (!frame || !points || !(isUpright || isAt(0) || isAt(180)))
    return refuse(
      'outline',
      'The face leans, or is curved: its outline cannot be raised.',
      'Take one that is level or upright, or draw a patch on it.',
    )
  const name = freeName(from.name, namesOf(scheme.masses))
  if (isUpright) {
    // The frame looks at whoever stands before the face; the section is carried towards them.
    const direction = (Math.atan2(frame.u[1], frame.u[0]) * 180) / Math.PI
    return uprightMass(project, scheme, mint, {
      ...from,
      name,
      plane: { at: [frame.origin[0], frame.origin[1]], direction: tidy(direction), foot: tidy(frame.origin[2]) },
      shape: { kind: 'polygon', points },
      becomes: { carried: typeof from.by === 'number' ? tidy(-from.by) : from.by },
    })
  }
  const world = region.map((l) =>
    l.map(([x, y]): Vec2 => [
      frame.origin[0] + frame.u[0] * x + frame.v[0] * y,
      frame.origin[1] + frame.u[1] * x + frame.v[1] * y,
    ]),
  )
  // Seen from below it runs the other way round.
  const up = tilt < 90 ? world : world.map((l) => [...l].reverse())
  const edit = massFromRegion(scheme, mint, { ...from, name, height: from.by, region: up })
  if (edit.edit !== 'mass.add') return edit
  const base = { level: from.level, above: tidy(frame.origin[2] - from.levelHeight) }
  return { ...edit, thing: { ...edit.thing, base } }
}
