import { batch, type Edit, type SingleEdit } from '../edits'
import { nextOrder, numbersOf, type Mass, type Project, type Scheme } from '../project'
import { kindOfMove, planOf } from '../moves'
import { boxOf, placePoint, shorterTurn, type Rect, type Vec2 } from '../solid'
import { freeName, namesOf, refuse, tidy, type Id } from '../values'
import type { MassForm } from './mass-form'
import { massOf } from './mass-of'

/** Which sides of several masses come into one line, or their middles. */
export type AlignBy = 'west' | 'east' | 'south' | 'north' | 'middle, west to east' | 'middle, south to north'
export const ALIGN_BY: readonly AlignBy[] = [
  'west',
  'east',
  'south',
  'north',
  'middle, west to east',
  'middle, south to north',
]

/** The extent of a mass in plan, as it stands, m. */
export interface Extent extends Rect {
  id: Id
}

/** The extent of a mass as it stands: of its corners, not of its box. */
export function extentOf(form: MassForm): Extent {
  let extent = extents.get(form)
  if (!extent) {
    const { positions: p } = form.body.solid
    const placed = new Float64Array(p.length)
    for (let i = 0; i < p.length; i += 3) placed.set(placePoint([p[i] as number, p[i + 1] as number], form.at), i)
    const { x0, y0, x1, y1 } = boxOf(placed)
    extents.set(form, (extent = { id: form.id, x0, y0, x1, y1 }))
  }
  return extent
}
const extents = new WeakMap<MassForm, Extent>()

const moved = (project: Project, scheme: Scheme, id: Id, by: Vec2): SingleEdit => {
  const { place } = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  return {
    edit: 'mass.change',
    scheme: scheme.id,
    id,
    set: { place: { ...place, x: tidy(numbers.length(place.x) + by[0]), y: tidy(numbers.length(place.y) + by[1]) } },
  }
}

/** Moves masses so that a side of each, or its middle, lies in line with that of the first. Errors: 'geometry' for fewer than two. */
export function alignMasses(project: Project, scheme: Scheme, all: Extent[], by: AlignBy): Edit {
  if (all.length < 2) refuse('geometry', 'One mass alone is in line with itself.', 'Pick two or more.')
  const axis = by === 'south' || by === 'north' || by === 'middle, south to north' ? 1 : 0
  const at = (e: Extent): number => {
    const [low, high] = axis === 0 ? [e.x0, e.x1] : [e.y0, e.y1]
    return by === 'west' || by === 'south' ? low : by === 'east' || by === 'north' ? high : (low + high) / 2
  }
  const [first, ...rest] = all as [Extent, ...Extent[]]
  return batch(
    rest.map((e) => moved(project, scheme, e.id, axis === 0 ? [at(first) - at(e), 0] : [0, at(first) - at(e)])),
  )
}

/**
 * Moves masses along an axis so that the gaps between them are equal; the two outermost stay. Errors: 'geometry' for fewer than three.
 */
export function spreadMasses(
  project: Project,
  scheme: Scheme,
  all: Extent[],
  along: 'west to east' | 'south to north',
): Edit {
  if (all.length < 3) refuse('geometry', 'Two masses have one gap between them.', 'Pick three or more.')
  const isEast = along === 'west to east'
  const ends = (e: Extent): [number, number] => (isEast ? [e.x0, e.x1] : [e.y0, e.y1])
  const inTurn = [...all].sort((a, b) => ends(a)[0] - ends(b)[0])
  const [first, last] = [inTurn[0], inTurn.at(-1)] as [Extent, Extent]
  const inner = inTurn.slice(1, -1)
  const wide = inner.reduce((sum, e) => sum + ends(e)[1] - ends(e)[0], 0)
  const gap = (ends(last)[0] - ends(first)[1] - wide) / (inTurn.length - 1)
  let at = ends(first)[1]
  return batch(
    inner.map((e) => {
      const by = at + gap - ends(e)[0]
      at += gap + ends(e)[1] - ends(e)[0]
      return moved(project, scheme, e.id, isEast ? [by, 0] : [0, by])
    }),
  )
}

/**
 * Copies of masses: in place, set off by metres, or standing on other levels. Parts are not copied.
 */
export function copyMasses(
  scheme: Scheme,
  mint: () => Id,
  ids: Id[],
  to: { by: Vec2; levels?: Id[] },
  project: Project,
): Edit {
  const numbers = numbersOf(project, scheme)
  const taken = namesOf(scheme.masses)
  let order = nextOrder(scheme.masses)
  // Copies of a group are a group of their own, on each level.
  const groups = new Map<string, string>()
  const groupOf = (name: string, level: Id): string => {
    const key = `${level} ${name}`
    const own = groups.get(key) ?? freeName(name, [...groupsOf(scheme), ...groups.values()])
    groups.set(key, own)
    return own
  }
  return batch(
    ids.flatMap((id) => {
      const mass = massOf(scheme, id)
      return (to.levels ?? [mass.base.level]).map((level): SingleEdit => {
        const name = freeName(mass.name, taken)
        taken.push(name)
        const thing: Mass = {
          ...structuredClone(mass),
          ...(mass.group ? { group: groupOf(mass.group, level) } : {}),
          id: mint(),
          name,
          order: order++,
          base: { level, above: mass.base.above },
          place: {
            ...mass.place,
            x: tidy(numbers.length(mass.place.x) + to.by[0]),
            y: tidy(numbers.length(mass.place.y) + to.by[1]),
          },
        }
        return { edit: 'mass.add', scheme: scheme.id, thing }
      })
    }),
  )
}

/**
 * Mirrors masses that are drawn in plan in a line of the site: through a point (m), running to a direction (degrees). Each outline gets a
 * mirror, and its place is that of its mirror image. Errors: 'geometry' for a mass that has no outline.
 */
export function mirrorMasses(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  ids: Id[],
  line: { at: Vec2; direction: number },
): Edit {
  const numbers = numbersOf(project, scheme)
  return batch(
    ids.map((id): SingleEdit => {
      const mass = massOf(scheme, id)
      const at = mass.recipe.findIndex((m) => m.move === 'outline')
      const beyond = mass.recipe.find((m) => kindOfMove(m).placed)
      if (at < 0 || beyond)
        refuse(
          'geometry',
          `"${mass.name}" cannot be mirrored: ${at < 0 ? 'it has no outline' : 'a move of it is placed in its own frame, and would stay there'}.`,
          'Mirror its outline in the details, and move it.',
        )
      const middle = middleOf(mass, project, scheme)
      const turn = numbers.angle(mass.place.turn)
      // Mirrored in a line through its own middle that runs to the same direction, then set to the mirror image of that middle.
      const there = mirroredPoint(middle, line)
      const recipe = [
        ...mass.recipe.slice(0, at + 1),
        { id: mint(), move: 'mirror' as const, on: true, direction: tidy(shorterTurn(line.direction - turn)) },
        ...mass.recipe.slice(at + 1),
      ]
      return {
        edit: 'mass.change',
        scheme: scheme.id,
        id,
        set: {
          recipe,
          place: {
            ...mass.place,
            x: tidy(numbers.length(mass.place.x) + there[0] - middle[0]),
            y: tidy(numbers.length(mass.place.y) + there[1] - middle[1]),
          },
        },
      }
    }),
  )
}

/** The middle of the extent of a mass's outline where the mass stands, m. */
function middleOf(mass: Mass, project: Project, scheme: Scheme): Vec2 {
  const numbers = numbersOf(project, scheme)
  const end = mass.recipe.findIndex((m) => m.move === 'outline')
  const lines = planOf(mass.recipe.slice(0, end + 1), numbers, mass.name)
  const { x0, x1, y0, y1 } = boxOf(lines.flatMap((l) => l.points.flatMap(([x, y]) => [x, y, 0])))
  const [x, y] = [numbers.length(mass.place.x), numbers.length(mass.place.y)]
  return placePoint([(x0 + x1) / 2, (y0 + y1) / 2], { x, y, z: 0, turn: numbers.angle(mass.place.turn) })
}

function mirroredPoint([x, y]: Vec2, { at, direction }: { at: Vec2; direction: number }): Vec2 {
  const a = (2 * direction * Math.PI) / 180
  const [dx, dy] = [x - at[0], y - at[1]]
  return [at[0] + Math.cos(a) * dx + Math.sin(a) * dy, at[1] + Math.sin(a) * dx - Math.cos(a) * dy]
}

/** The names of the groups of a scheme, each once. */
export const groupsOf = (scheme: Scheme): string[] => [
  ...new Set(Object.values(scheme.masses).flatMap((m) => m.group ?? [])),
]

/** The masses of some ids, and all that are in a group with one of them. */
export function withGroups(scheme: Scheme, ids: readonly Id[]): Id[] {
  const groups = new Set(ids.flatMap((id) => scheme.masses[id]?.group ?? []))
  const more = Object.values(scheme.masses).flatMap((m) => (m.group && groups.has(m.group) ? [m.id] : []))
  return [...new Set([...ids, ...more])]
}

/** Puts masses into a group of their own, or, with null, out of any. */
export const groupMasses = (scheme: Scheme, ids: readonly Id[], name: string | null): Edit =>
  batch(
    ids.map((id): SingleEdit => ({
      edit: 'mass.change',
      scheme: scheme.id,
      id: massOf(scheme, id).id,
      set: { group: name === null ? null : freeName(name, groupsOf(scheme)) },
    })),
  )
