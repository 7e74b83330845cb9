import { batch, type Edit, type SingleEdit } from '../edits'
import { levelHeights } from '../levels'
import {
  moveIds,
  outlinesOf,
  ridgeAlong,
  withCorners,
  withMove,
  withPitch,
  type BodyMove,
  type Move,
  type OutlineShape,
} from '../moves'
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
import { bodyFault, loopArea, placePoint, turnOf, type Vec2 } from '../solid'

/** An outline as it was drawn at world points (m): bulges go by corner, for the side from it to the next, above zero to the right of the way. */
export type DrawnShape =
  | { kind: 'rectangle'; from: Vec2; to: Vec2 }
  | { kind: 'polygon'; points: Vec2[]; bulges?: number[] }
  | { kind: 'circle'; centre: Vec2; radius: Num }

/** The outline's data from the origin that it gives: a rectangle keeps width and depth as its numbers, a circle its radius. */
export function shapeOf(drawn: DrawnShape): { origin: Vec2; shape: OutlineShape } {
  switch (drawn.kind) {
    case 'rectangle':
      return {
        origin: [Math.min(drawn.from[0], drawn.to[0]), Math.min(drawn.from[1], drawn.to[1])],
        shape: {
          kind: 'rectangle',
          width: tidy(Math.abs(drawn.to[0] - drawn.from[0])),
          depth: tidy(Math.abs(drawn.to[1] - drawn.from[1])),
        },
      }
    case 'circle':
      return { origin: drawn.centre, shape: { kind: 'circle', radius: drawn.radius } }
    case 'polygon': {
      const [points, bulges] = [drawn.points, drawn.bulges ?? []]
      const n = points.length
      // With two corners, or all in a line, the arcs tell which way round it was drawn.
      const area =
        loopArea(points) +
        points.reduce((sum, a, i) => {
          const b = points[(i + 1) % n] as Vec2
          const k = bulges[i] ?? 0
          return sum + (k * ((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2)) / 3
        }, 0)
      const clockwise = area < 0
      const order = clockwise ? points.map((_, i) => n - 1 - i) : points.map((_, i) => i)
      const origin = points[0] ?? [0, 0]
      return {
        origin,
        shape: {
          kind: 'polygon',
          corners: order.map((k, i) => ({
            id: `e${i + 1}`,
            x: tidy((points[k] as Vec2)[0] - origin[0]),
            y: tidy((points[k] as Vec2)[1] - origin[1]),
            bulge: tidy(clockwise ? -(bulges[(k + n - 1) % n] ?? 0) : (bulges[k] ?? 0)),
          })),
        },
      }
    }
  }
}

/** A new mass from an outline drawn at world points (m), raised by a height or up to a level. */
export function newMass(
  scheme: Scheme,
  mint: () => Id,
  drawn: { name: string; use: Id; level: Id; height: Num; upTo?: AtLevel | null; shape: DrawnShape },
): Mass {
  const { origin, shape } = shapeOf(drawn.shape)
  return {
    id: mint(),
    name: drawn.name,
    order: nextOrder(scheme.masses),
    use: drawn.use,
    base: { level: drawn.level, above: 0 },
    place: { x: tidy(origin[0]), y: tidy(origin[1]), turn: 0 },
    takes: { kind: 'all-but', levels: [] },
    context: false,
    wing: null,
    material: null,
    faces: {},
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
    id: mint(),
    name: read.name,
    order: nextOrder(scheme.masses),
    use: read.use,
    base: { level: read.level, above: tidy(read.above) },
    place: { x: tidy(read.place[0]), y: tidy(read.place[1]), turn: 0 },
    takes: { kind: 'all-but', levels: [] },
    context: read.context,
    wing: null,
    material: null,
    faces: {},
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

/**
 * Joins the second mass to the first: one body, the first one's use, place and storeys; the second's recipe lives on inside
 * it, and parts that stand on its faces stay with them. The order of picking tells only which name stays.
 */
export function joinMasses(project: Project, scheme: Scheme, mint: () => Id, first: Id, second: Id): Edit {
  const [a, b] = [massOf(scheme, first), massOf(scheme, second)]
  if (first === second) refuse('geometry', 'A mass cannot be joined to itself.', 'Pick two masses.')
  for (const mass of [a, b]) closedOrRefused(mass)
  const numbers = numbersOf(project, scheme)
  const heights = new Map(levelHeights(project, scheme).map((l) => [l.id, l.height]))
  const zOf = (m: Mass) => (heights.get(m.base.level) ?? 0) + numbers.length(m.base.above)
  const turn = numbers.angle(a.place.turn)
  const { c, s } = turnOf(-turn)
  const [dx, dy] = [
    numbers.length(b.place.x) - numbers.length(a.place.x),
    numbers.length(b.place.y) - numbers.length(a.place.y),
  ]
  const join: Move = {
    id: mint(),
    move: 'join',
    on: true,
    name: b.name,
    place: { x: tidy(c * dx - s * dy), y: tidy(s * dx + c * dy), turn: tidy(numbers.angle(b.place.turn) - turn) },
    lift: tidy(zOf(b) - zOf(a)),
    recipe: b.recipe,
  }
  const takes =
    a.takes.kind === 'all-but' && b.takes.kind === 'all-but'
      ? { kind: 'all-but' as const, levels: a.takes.levels.filter((l) => b.takes.levels.includes(l)) }
      : a.takes.kind === 'only' && b.takes.kind === 'only'
        ? { kind: 'only' as const, levels: [...new Set([...a.takes.levels, ...b.takes.levels])] }
        : { kind: 'all-but' as const, levels: exceptions(a, b) }
  const rehosted: SingleEdit[] = Object.values(scheme.parts)
    .filter((p) => p.host.mass === b.id)
    .map((p) => ({ edit: 'part.change', scheme: scheme.id, id: p.id, set: { host: { ...p.host, mass: a.id } } }))
  return batch([
    { edit: 'mass.change', scheme: scheme.id, id: a.id, set: { recipe: [...a.recipe, join], takes } },
    ...rehosted,
    { edit: 'mass.remove', scheme: scheme.id, id: b.id },
  ])
}

/**
 * Takes a joined body off again: it is a mass of its own, where it stood, with the use and the storeys of the mass it leaves;
 * parts on its faces go with it.
 */
export function takeApart(project: Project, scheme: Scheme, mint: () => Id, id: Id, move: Id): Edit {
  const mass = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const join = mass.recipe.find((m) => m.id === move)
  if (join?.move !== 'join')
    return refuse('unknown-id', 'That body is not joined any more.', 'Look at the recipe in the details.')
  const at = {
    x: numbers.length(mass.place.x),
    y: numbers.length(mass.place.y),
    z: 0,
    turn: numbers.angle(mass.place.turn),
  }
  const [x, y] = placePoint([numbers.length(join.place.x), numbers.length(join.place.y)], at)
  const own = new Set(moveIds(join.recipe))
  const apart: Mass = {
    ...mass,
    id: mint(),
    name: join.name,
    order: nextOrder(scheme.masses),
    recipe: join.recipe,
    base: { level: mass.base.level, above: tidy(numbers.length(mass.base.above) + numbers.length(join.lift)) },
    place: { x: tidy(x), y: tidy(y), turn: tidy(normal(at.turn + numbers.angle(join.place.turn))) },
  }
  const parts = Object.values(scheme.parts).filter(
    (p) => p.host.mass === id && own.has(p.host.face.split('/')[0] ?? ''),
  )
  return batch([
    { edit: 'mass.change', scheme: scheme.id, id, set: { recipe: mass.recipe.filter((m) => m.id !== move) } },
    { edit: 'mass.add', scheme: scheme.id, thing: apart },
    ...parts.map((p): SingleEdit => ({
      edit: 'part.change',
      scheme: scheme.id,
      id: p.id,
      set: { host: { ...p.host, mass: apart.id } },
    })),
  ])
}

/** Removes a mass; the parts on it stay, loose, unless they are removed with it. */
export function removeMass(scheme: Scheme, id: Id, withParts: boolean): Edit {
  const parts = Object.values(scheme.parts).filter((p) => p.host.mass === id)
  return batch([
    ...(withParts ? parts.map((p): SingleEdit => ({ edit: 'part.remove', scheme: scheme.id, id: p.id })) : []),
    { edit: 'mass.remove', scheme: scheme.id, id: massOf(scheme, id).id },
  ])
}

/** Moves masses in plan by metres and turns each about its own middle by degrees. */
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
          turn: turn ? tidy(normal(numbers.angle(place.turn) + turn)) : place.turn,
        },
      }
      return { edit: 'mass.change', scheme: scheme.id, id, set }
    }),
  )
}

/** A body from a file that is open cannot be joined to anything. */
function closedOrRefused(mass: Mass): void {
  const body = mass.recipe.find((m) => m.move === 'body')
  if (body?.move !== 'body') return
  const fault = bodyFault(
    { positions: Float64Array.from(body.corners), triangles: Uint32Array.from(body.faces.flatMap((f) => f.triangles)) },
    'edges',
  )
  if (fault)
    refuse(
      'geometry',
      `The body of "${mass.name}" is not closed, and cannot be joined.`,
      'Mend it where it was drawn and import it again, or keep it as context.',
    )
}

export const massOf = (scheme: Scheme, id: Id): Mass =>
  scheme.masses[id] ?? refuse('unknown-id', 'That mass is not there any more.', 'Pick another one.')

const exceptions = (a: Mass, b: Mass): Id[] => {
  const [all, only] = a.takes.kind === 'all-but' ? [a, b] : [b, a]
  return all.takes.levels.filter((l) => !only.takes.levels.includes(l))
}
const normal = (degrees: number) => ((((degrees + 180) % 360) + 360) % 360) - 180

/** Gives a mass a pitch, or changes the one it has; null takes it off. */
export const setPitch = (
  scheme: Scheme,
  mass: Mass,
  mint: () => Id,
  pitch: { angle: Num; direction: Num } | null,
): Edit => changeRecipe(scheme, mass, (recipe) => withPitch(recipe, mint, pitch))

/** The ridge's direction (degrees) along the longer side of a recipe's outline. */
export function ridgeAlongOf(recipe: Move[], numbers: Numbers): number {
  const outline = recipe.find((m) => m.move === 'outline')
  return outline?.move === 'outline' ? ridgeAlong(outlinesOf(outline, numbers)[0]?.points ?? [], 'longer') : 0
}
