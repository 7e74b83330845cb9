import { batch, type Edit, type SingleEdit } from '../edits'
import { planOf, ridgeAlong, withCorners, withMove, withPitch, type BodyMove, type Move } from '../moves'
import {
  nextOrder,
  numbersOf,
  refuse,
  tidy,
  type AtLevel,
  type Id,
  type Mass,
  type Num,
  type Numbers,
  type Project,
  type Scheme,
} from '../project'
import { placePoint, shorterTurn, type Vec2 } from '../solid'
import { shapeOf, turnedShape, type DrawnShape } from './drawn'
import { massOf } from './mass-of'

/** A mass without a recipe yet, behind all others, at the project's zero on a level. */
export const plainMass = (scheme: Scheme, id: Id, of: { name: string; use: Id; level: Id }): Mass => ({
  id,
  name: of.name,
  order: nextOrder(scheme.masses),
  use: of.use,
  base: { level: of.level, above: 0 },
  place: { x: 0, y: 0, turn: 0 },
  takes: { kind: 'all-but', levels: [] },
  context: false,
  wing: null,
  material: null,
  faces: {},
  recipe: [],
})

/** A new mass from an outline drawn at world points (m), raised by a height or up to a level. */
export function newMass(
  scheme: Scheme,
  mint: () => Id,
  drawn: { name: string; use: Id; level: Id; height: Num; upTo?: AtLevel | null; shape: DrawnShape },
): Mass {
  const { origin, shape, turn } = turnedShape(drawn.shape)
  return {
    ...plainMass(scheme, mint(), drawn),
    place: { x: tidy(origin[0]), y: tidy(origin[1]), turn: tidy(turn) },
    recipe: [
      { id: mint(), move: 'outline', on: true, shape, holes: [] },
      { id: mint(), move: 'raise', on: true, height: drawn.height, upTo: drawn.upTo ?? null },
    ],
  }
}

/** A hole drawn at world points (m) in the outline of a mass that has one. */
export function addHole(project: Project, scheme: Scheme, id: Id, drawn: DrawnShape): Edit {
  const mass = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const outline = mass.recipe.find((m) => m.move === 'outline')
  if (outline?.move !== 'outline')
    return refuse('geometry', `"${mass.name}" has no outline to cut a hole in.`, 'Pick a mass that was drawn.')
  const turn = numbers.angle(mass.place.turn)
  const at = { x: numbers.length(mass.place.x), y: numbers.length(mass.place.y) }
  const local = ([x, y]: Vec2): Vec2 => placePoint([x - at.x, y - at.y], { x: 0, y: 0, z: 0, turn: -turn })
  // A turned mass takes a rectangle as its four corners.
  const own: DrawnShape =
    drawn.kind === 'circle'
      ? { ...drawn, centre: local(drawn.centre) }
      : drawn.kind === 'polygon'
        ? { ...drawn, points: drawn.points.map(local) }
        : turn % 90 === 0
          ? { kind: 'rectangle', from: local(drawn.from), to: local(drawn.to) }
          : {
              kind: 'polygon',
              points: (
                [drawn.from, [drawn.to[0], drawn.from[1]], drawn.to, [drawn.from[0], drawn.to[1]]] as Vec2[]
              ).map(local),
            }
  const { origin, shape } = shapeOf(own)
  let n = outline.holes.length + 1
  while (outline.holes.some((h) => h.id === `h${n}`)) n++
  return changeRecipe(scheme, mass, (recipe) =>
    withMove(recipe, outline, {
      holes: [...outline.holes, { id: `h${n}`, x: tidy(origin[0]), y: tidy(origin[1]), shape }],
    }),
  )
}

/** A mass from a body that was read from a file, standing at a place (m); as context it is drawn and not counted. */
export function bodyMass(
  scheme: Scheme,
  mint: () => Id,
  read: {
    name: string
    use: Id
    level: Id
    place: Vec2
    above: number
    context: boolean
    body: Pick<BodyMove, 'file' | 'corners' | 'faces'>
  },
): Mass {
  return {
    ...plainMass(scheme, mint(), read),
    base: { level: read.level, above: tidy(read.above) },
    place: { x: tidy(read.place[0]), y: tidy(read.place[1]), turn: 0 },
    context: read.context,
    recipe: [{ id: mint(), move: 'body', on: true, ...read.body }],
  }
}

/** Bodies from a file as masses that hang on a level (its height in m), where the file has them. */
export function addBodies(
  scheme: Scheme,
  mint: () => Id,
  read: { name: string; place: Vec2; above: number; body: Pick<BodyMove, 'file' | 'corners' | 'faces'> }[],
  as: { use: Id; level: Id; levelHeight: number; context: boolean },
): Edit {
  const first = nextOrder(scheme.masses)
  return batch(
    read.map((r, i): SingleEdit => ({
      edit: 'mass.add',
      scheme: scheme.id,
      thing: {
        ...bodyMass(scheme, mint, {
          ...as,
          name: r.name,
          place: r.place,
          above: r.above - as.levelHeight,
          body: r.body,
        }),
        order: first + i,
      },
    })),
  )
}

/** An edit of a mass's recipe. */
export const changeRecipe = (scheme: Scheme, mass: Mass, change: (recipe: Move[]) => Move[]): Edit => ({
  edit: 'mass.change',
  scheme: scheme.id,
  id: mass.id,
  set: { recipe: change(mass.recipe) },
})

/** Sets one corner of a mass's outline to a point in the mass's own frame (m); a rectangle becomes a polygon with the same face names. */
export function moveCorner(project: Project, scheme: Scheme, id: Id, corner: string, to: Vec2): Edit {
  const numbers = numbersOf(project, scheme)
  return changeRecipe(scheme, massOf(scheme, id), (recipe) =>
    withCorners(recipe, numbers, (corners) => {
      if (!corners.some((c) => c.id === corner))
        refuse('unknown-id', 'That corner is not there any more.', 'Pick a corner of the mass.')
      return corners.map((c) => (c.id === corner ? { ...c, x: tidy(to[0]), y: tidy(to[1]) } : c))
    }),
  )
}

/** Removes a mass; the parts on it stay, loose, unless they are removed with it. */
export function removeMass(scheme: Scheme, id: Id, withParts: boolean): Edit {
  const parts = Object.values(scheme.parts).filter((p) => p.host.mass === id)
  return batch([
    ...(withParts ? parts.map((p): SingleEdit => ({ edit: 'part.remove', scheme: scheme.id, id: p.id })) : []),
    ...Object.values(scheme.plateEdits)
      .filter((e) => e.mass === id)
      .map((e): SingleEdit => ({ edit: 'plate-edit.remove', scheme: scheme.id, id: e.id })),
    { edit: 'mass.remove', scheme: scheme.id, id: massOf(scheme, id).id },
  ])
}

/** Moves masses in plan by metres and turns them by degrees, all about one point, or each about the zero of its place. */
export function moveMasses(
  project: Project,
  scheme: Scheme,
  ids: Id[],
  by: Vec2,
  turn = 0,
  middle: Vec2 | null = null,
): Edit {
  const numbers = numbersOf(project, scheme)
  return batch(
    ids.map((id): SingleEdit => {
      const { place } = massOf(scheme, id)
      const at: Vec2 = [numbers.length(place.x), numbers.length(place.y)]
      const [x, y] =
        turn && middle
          ? placePoint([at[0] - middle[0], at[1] - middle[1]], { x: middle[0], y: middle[1], z: 0, turn })
          : at
      const set = {
        place: {
          x: by[0] || turn ? tidy(x + by[0]) : place.x,
          y: by[1] || turn ? tidy(y + by[1]) : place.y,
          turn: turn ? tidy(shorterTurn(numbers.angle(place.turn) + turn)) : place.turn,
        },
      }
      return { edit: 'mass.change', scheme: scheme.id, id, set }
    }),
  )
}

/** Gives a mass a pitch, or changes the one it has; null takes it off. */
export const setPitch = (
  scheme: Scheme,
  mass: Mass,
  mint: () => Id,
  pitch: { angle: Num; direction: Num } | null,
): Edit => changeRecipe(scheme, mass, (recipe) => withPitch(recipe, mint, pitch))

/** The ridge's direction (degrees) along the longer side of a recipe's outline. */
export function ridgeAlongOf(recipe: Move[], numbers: Numbers): number {
  const [outer] = planOf(recipe, numbers)
  return outer ? ridgeAlong(outer.points, 'longer') : 0
}
