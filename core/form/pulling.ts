import type { Edit } from '../edits'
import { planOf, withMove, withPlaced, type Move, type Span } from '../moves'
import { heightsOf, numbersOf, refuse, tidy, type Id, type Mass, type Num, type Project, type Scheme } from '../project'
import { gapOf, moveOf, parseFaceName, rawName, TOLERANCE, turnOf, type Vec2, type Vec3 } from '../solid'
import { changeRecipe, plainMass } from './commands'
import { shapeOf, type DrawnShape } from './drawn'
import { massOf } from './mass-of'

/** The last move of a recipe; of a soft form the last one that shapes what it is drawn from. */
function lastOf(recipe: readonly Move[]): Move | undefined {
  const soft = recipe.findIndex((m) => m.move === 'soft')
  return recipe[(soft < 0 ? recipe.length : soft) - 1]
}

/** The number with so many m added; a formula is added to as it is typed. */
const plus = (num: Num, by: number): Num => (typeof num === 'number' ? tidy(num + by) : num)

/**
 * Pulls a face of a mass out by so many m (below zero in): the top of what is raised raises it, what a patch ends in goes with it, a side
 * of the outline is pulled, on chosen storeys where some are said; any other face is shifted. The last move of that
 * kind is changed where it
 * is of that very face, else one is added. Errors: 'geometry' where it would not fit.
 */
export function pullFace(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  id: Id,
  face: string,
  by: number,
  levels: readonly Id[] = [],
): Edit {
  const mass = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const { own } = parseFaceName(face)
  const maker = mass.recipe.find((m) => m.id === moveOf(face))
  const span: Span | undefined = levels.length ? { of: 'storeys', levels: [...levels] } : undefined
  const sides = planOf(mass.recipe, numbers, mass.name).flatMap((l) => l.edges)
  if (maker?.move === 'soft')
    return refuse(
      'geometry',
      `That face of "${mass.name}" is made by softening it: an image, a rim, or the inside of its skin.`,
      'Pull the face that it follows.',
    )
  const put = (recipe: Move[]): Move[] => {
    if (!span && maker?.move === 'raise' && own === 'top' && lastOf(recipe)?.id === maker.id) {
      const { upTo } = maker
      if (upTo && typeof upTo.above === 'number')
        return withMove(recipe, maker, { upTo: { ...upTo, above: tidy(upTo.above + by) } })
      if (!upTo && typeof maker.height === 'number') return withMove(recipe, maker, { height: tidy(maker.height + by) })
    }
    if (maker?.move === 'patch' && own === 'front' && typeof maker.by === 'number')
      return withMove(recipe, maker, { by: tidy(maker.by + by) })
    const last = lastOf(recipe)
    if (sides.includes(own) && (maker?.move === 'raise' || maker?.move === 'pull')) {
      const same = (m: Move) =>
        m.move === 'pull' && m.on && m.side === own && JSON.stringify(m.span) === JSON.stringify(span)
      // What a pull has pulled out is pulled farther by it; on other storeys all of the way from the outline is said anew.
      const from = maker.move === 'pull' && maker.side === own && typeof maker.by === 'number' ? maker.by : 0
      if (maker.move === 'pull' && from !== 0 && (!span || same(maker)))
        return withMove(recipe, maker, { by: tidy(from + by) })
      if (last?.move === 'pull' && same(last) && typeof last.by === 'number')
        return withMove(recipe, last, { by: tidy(last.by + by) })
      return (
        withPlaced(recipe, {
          id: mint(),
          move: 'pull',
          on: true,
          side: own,
          by: tidy(from + by),
          from: 0,
          fromLevel: null,
          to: null,
          toLevel: null,
          ...(span ? { span } : {}),
        }) ?? nowhere(mass)
      )
    }
    if (span)
      refuse(
        'geometry',
        `"${mass.name}" is pulled on chosen storeys by its sides only.`,
        'Pick an upright side, or choose no storeys in the spine.',
      )
    if (last?.move === 'shift-face' && last.on && last.face === rawName(face) && typeof last.out === 'number')
      return withMove(recipe, last, { out: plus(last.out, by) })
    const shift: Move = {
      id: mint(),
      move: 'shift-face',
      on: true,
      face: rawName(face),
      out: tidy(by),
      along: 0,
      up: 0,
    }
    return withPlaced(recipe, shift) ?? nowhere(mass)
  }
  return changeRecipe(scheme, mass, put)
}

const nowhere = (mass: Mass): never =>
  refuse(
    'geometry',
    `"${mass.name}" has no place for it in its recipe.`,
    'Take off the moves that make it no body of its own.',
  )

/**
 * Moves an edge (two faces that meet) or a corner (three) of a mass by so many m in the world. The last move of that kind is changed where
 * it is of that very one, else one is added.
 */
export function moveJoint(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  id: Id,
  faces: readonly string[],
  by: Vec3,
): Edit {
  const mass = massOf(scheme, id)
  const [a, b, c = null] = faces.map(rawName)
  if (a === undefined || b === undefined) return refuse('geometry', 'An edge is where two faces meet.', 'Pick an edge.')
  const { c: cos, s } = turnOf(-numbersOf(project, scheme).angle(mass.place.turn))
  const [x, y, z] = [cos * by[0] - s * by[1], s * by[0] + cos * by[1], by[2]]
  return changeRecipe(scheme, mass, (recipe) => {
    const last = lastOf(recipe)
    if (last?.move === 'shift-corner' && last.on && last.a === a && last.b === b && last.c === c)
      return withMove(recipe, last, { x: plus(last.x, x), y: plus(last.y, y), z: plus(last.z, z) })
    const shift: Move = { id: mint(), move: 'shift-corner', on: true, a, b, c, x: tidy(x), y: tidy(y), z: tidy(z) }
    return withPlaced(recipe, shift) ?? nowhere(mass)
  })
}

/** An outline drawn on a face of a mass (m in the face's frame, see `FaceAt`) as a patch that stands out by so many m, or recesses. */
export function patchFace(scheme: Scheme, mint: () => Id, id: Id, face: string, drawn: DrawnShape, by: Num): Edit {
  const mass = massOf(scheme, id)
  const { origin, shape } = shapeOf(drawn)
  const patch: Move = {
    id: mint(),
    move: 'patch',
    on: true,
    face: rawName(face),
    along: tidy(origin[0]),
    up: tidy(origin[1]),
    shape,
    by,
  }
  return changeRecipe(scheme, mass, (recipe) => withPlaced(recipe, patch) ?? nowhere(mass))
}

/** Parts a face of a mass by the line through two points (m in the face's frame, see `FaceAt`). Errors: 'geometry' where they are one. */
export function splitFaceOf(scheme: Scheme, mint: () => Id, id: Id, face: string, [a, b]: readonly Vec2[]): Edit {
  const mass = massOf(scheme, id)
  if (!a || !b || gapOf(a, b) < TOLERANCE.least)
    return refuse('geometry', 'A line has two ends.', 'Click two points, apart from one another.')
  const split: Move = {
    id: mint(),
    move: 'split',
    on: true,
    face: rawName(face),
    along: tidy(a[0]),
    up: tidy(a[1]),
    direction: tidy((Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI),
  }
  return changeRecipe(scheme, mass, (recipe) => withPlaced(recipe, split) ?? nowhere(mass))
}

/** An upright plane: from a point along a direction (degrees) in plan, seen from its right-hand side. m above the datum: its foot. */
export interface UprightPlane {
  at: Vec2
  direction: number
  foot: number
}

/** What becomes of an outline drawn on an upright plane: it is carried away from it by so many m, or turned about the plane's own zero. */
export type DrawnUpright = { carried: Num } | { turned: Num }

/**
 * A new mass from an outline drawn on an upright plane (m along it, m above its foot). Carried, the outline is the section of a straight
 * path away from whoever looks at it, or towards him below zero; turned, the line drawn is the profile, as it was drawn.
 */
export function uprightMass(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  drawn: { name: string; use: Id; level: Id; plane: UprightPlane; shape: DrawnShape; becomes: DrawnUpright },
): Extract<Edit, { edit: 'mass.add' }> {
  const { at, direction, foot } = drawn.plane
  const level = heightsOf(scheme, numbersOf(project, scheme)).get(drawn.level) ?? 0
  return {
    edit: 'mass.add',
    scheme: scheme.id,
    thing: {
      ...plainMass(scheme, mint(), drawn),
      base: { level: drawn.level, above: tidy(foot - level) },
      place: { x: tidy(at[0]), y: tidy(at[1]), turn: tidy(direction) },
      recipe: [
        'carried' in drawn.becomes
          ? carried(drawn.shape, drawn.becomes.carried, mint)
          : turned(drawn.shape, drawn.becomes.turned, mint),
      ],
    },
  }
}

function carried(drawn: DrawnShape, by: Num, mint: () => Id): Move {
  const { origin, shape } = shapeOf(drawn)
  const back = typeof by === 'number' && by < 0
  const ends = [
    { x: 0, y: back ? by : 0 },
    { x: 0, y: back ? 0 : by },
  ]
  return {
    id: mint(),
    move: 'sweep',
    on: true,
    section: shape,
    across: tidy(origin[0]),
    up: tidy(origin[1]),
    path: ends.map((p, i) => ({ id: `p${i + 1}`, ...p, round: 0 })),
    ends: 'open',
  }
}

function turned(drawn: DrawnShape, by: Num, mint: () => Id): Move {
  if (drawn.kind !== 'polygon')
    return refuse(
      'outline',
      'Only a line of corners can be turned about the axis.',
      'Draw it with Polygon, from its foot to its head.',
    )
  const { points, bulges = [] } = drawn
  return {
    id: mint(),
    move: 'revolve',
    on: true,
    points: points.map(([r, z], i) => ({
      id: `p${i + 1}`,
      r: tidy(r),
      z: tidy(z),
      turn: i === points.length - 1 ? 0 : tidy((Math.atan(bulges[i] ?? 0) * 720) / Math.PI),
    })),
    by,
    from: 0,
    thick: null,
    side: 'axis',
  }
}
