import { batch, type Edit, type SingleEdit } from '../edits'
import { levelHeights } from '../levels'
import { corners, moveIds, ridgeAlong, withCorners, withPitch, type Move } from '../moves'
import { nextOrder, numbersOf, refuse, tidy, type Id, type Mass, type Num, type Numbers, type Project, type Scheme } from '../project'
import { loopArea, placePoint, turnOf, type Vec2 } from '../solid'

/** A new mass from an outline drawn at world points (m): a rectangle keeps width and depth as its numbers. */
export function newMass(scheme: Scheme, mint: () => Id, drawn: { name: string; use: Id; level: Id; height: Num; shape: { kind: 'rectangle'; from: Vec2; to: Vec2 } | { kind: 'polygon'; points: Vec2[] } }): Mass {
  const { shape } = drawn
  const origin: Vec2 = shape.kind === 'rectangle' ? [Math.min(shape.from[0], shape.to[0]), Math.min(shape.from[1], shape.to[1])] : shape.points[0] ?? [0, 0]
  const outline: Move = {
    id: mint(), move: 'outline', on: true,
    shape: shape.kind === 'rectangle'
      ? { kind: 'rectangle', width: tidy(Math.abs(shape.to[0] - shape.from[0])), depth: tidy(Math.abs(shape.to[1] - shape.from[1])) }
      : { kind: 'polygon', corners: (loopArea(shape.points) < 0 ? [...shape.points].reverse() : shape.points).map(([x, y], i) => ({ id: `e${i + 1}`, x: tidy(x - origin[0]), y: tidy(y - origin[1]) })) },
  }
  return {
    id: mint(), name: drawn.name, order: nextOrder(scheme.masses), use: drawn.use, base: { level: drawn.level, above: 0 },
    place: { x: tidy(origin[0]), y: tidy(origin[1]), turn: 0 }, takes: { kind: 'all-but', levels: [] },
    recipe: [outline, { id: mint(), move: 'raise', on: true, height: drawn.height }],
  }
}

/** An edit of a mass's recipe. */
export const changeRecipe = (scheme: Scheme, mass: Mass, change: (recipe: Move[]) => Move[]): Edit =>
  ({ edit: 'mass.change', scheme: scheme.id, id: mass.id, set: { recipe: change(mass.recipe) } })

/** Sets one corner of a mass's outline to a point in the mass's own frame (m); a rectangle becomes a polygon with the same face names. */
export function moveCorner(project: Project, scheme: Scheme, id: Id, corner: string, to: Vec2): Edit {
  const numbers = numbersOf(project, scheme)
  return changeRecipe(scheme, massOf(scheme, id), (recipe) => withCorners(recipe, numbers, (corners) => {
    if (!corners.some((c) => c.id === corner)) refuse('unknown-id', 'That corner is not there any more.', 'Pick a corner of the mass.')
    return corners.map((c) => (c.id === corner ? { ...c, x: tidy(to[0]), y: tidy(to[1]) } : c))
  }))
}

/**
 * Joins the second mass to the first: one body, the first one's use, place and storeys; the second's recipe lives on inside
 * it, and parts that stand on its faces stay with them. The order of picking tells only which name stays.
 */
export function joinMasses(project: Project, scheme: Scheme, mint: () => Id, first: Id, second: Id): Edit {
  const [a, b] = [massOf(scheme, first), massOf(scheme, second)]
  if (first === second) refuse('geometry', 'A mass cannot be joined to itself.', 'Pick two masses.')
  const numbers = numbersOf(project, scheme)
  const heights = new Map(levelHeights(project, scheme).map((l) => [l.id, l.height]))
  const zOf = (m: Mass) => (heights.get(m.base.level) ?? 0) + numbers.length(m.base.above)
  const turn = numbers.angle(a.place.turn)
  const { c, s } = turnOf(-turn)
  const [dx, dy] = [numbers.length(b.place.x) - numbers.length(a.place.x), numbers.length(b.place.y) - numbers.length(a.place.y)]
  const join: Move = {
    id: mint(), move: 'join', on: true, name: b.name,
    place: { x: tidy(c * dx - s * dy), y: tidy(s * dx + c * dy), turn: tidy(numbers.angle(b.place.turn) - turn) },
    lift: tidy(zOf(b) - zOf(a)), recipe: b.recipe,
  }
  const takes = a.takes.kind === 'all-but' && b.takes.kind === 'all-but'
    ? { kind: 'all-but' as const, levels: a.takes.levels.filter((l) => b.takes.levels.includes(l)) }
    : a.takes.kind === 'only' && b.takes.kind === 'only'
      ? { kind: 'only' as const, levels: [...new Set([...a.takes.levels, ...b.takes.levels])] }
      : { kind: 'all-but' as const, levels: exceptions(a, b) }
  const rehosted: SingleEdit[] = Object.values(scheme.parts).filter((p) => p.host.mass === b.id)
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
  if (join?.move !== 'join') return refuse('unknown-id', 'That body is not joined any more.', 'Look at the recipe in the details.')
  const at = { x: numbers.length(mass.place.x), y: numbers.length(mass.place.y), z: 0, turn: numbers.angle(mass.place.turn) }
  const [x, y] = placePoint([numbers.length(join.place.x), numbers.length(join.place.y)], at)
  const own = new Set(moveIds(join.recipe))
  const apart: Mass = {
    ...mass, id: mint(), name: join.name, order: nextOrder(scheme.masses), recipe: join.recipe,
    base: { level: mass.base.level, above: tidy(numbers.length(mass.base.above) + numbers.length(join.lift)) },
    place: { x: tidy(x), y: tidy(y), turn: tidy(normal(at.turn + numbers.angle(join.place.turn))) },
  }
  const parts = Object.values(scheme.parts).filter((p) => p.host.mass === id && own.has(p.host.face.split('/')[0] ?? ''))
  return batch([
    { edit: 'mass.change', scheme: scheme.id, id, set: { recipe: mass.recipe.filter((m) => m.id !== move) } },
    { edit: 'mass.add', scheme: scheme.id, thing: apart },
    ...parts.map((p): SingleEdit => ({ edit: 'part.change', scheme: scheme.id, id: p.id, set: { host: { ...p.host, mass: apart.id } } })),
  ])
}

/** Removes a mass; the parts on it stay, loose, unless they are removed with it. */
export function removeMass(scheme: Scheme, id: Id, withParts: boolean): Edit {
  const parts = Object.values(scheme.parts).filter((p) => p.host.mass === id)
  return batch([...(withParts ? parts.map((p): SingleEdit => ({ edit: 'part.remove', scheme: scheme.id, id: p.id })) : []), { edit: 'mass.remove', scheme: scheme.id, id: massOf(scheme, id).id }])
}

/** Moves masses in plan by metres and turns each about its own middle by degrees. */
export function moveMasses(project: Project, scheme: Scheme, ids: Id[], by: Vec2, turn = 0, middle: Vec2 | null = null): Edit {
  const numbers = numbersOf(project, scheme)
  return batch(ids.map((id): SingleEdit => {
    const { place } = massOf(scheme, id)
    const at: Vec2 = [numbers.length(place.x), numbers.length(place.y)]
    const [x, y] = turn && middle ? placePoint([at[0] - middle[0], at[1] - middle[1]], { x: middle[0], y: middle[1], z: 0, turn }) : at
    const set = { place: { x: by[0] || turn ? tidy(x + by[0]) : place.x, y: by[1] || turn ? tidy(y + by[1]) : place.y, turn: turn ? tidy(normal(numbers.angle(place.turn) + turn)) : place.turn } }
    return { edit: 'mass.change', scheme: scheme.id, id, set }
  }))
}

export const massOf = (scheme: Scheme, id: Id): Mass => scheme.masses[id] ?? refuse('unknown-id', 'That mass is not there any more.', 'Pick another one.')

const exceptions = (a: Mass, b: Mass): Id[] => {
  const [all, only] = a.takes.kind === 'all-but' ? [a, b] : [b, a]
  return all.takes.levels.filter((l) => !only.takes.levels.includes(l))
}
const normal = (degrees: number) => ((degrees + 180) % 360 + 360) % 360 - 180

/** Gives a mass a pitch, or changes the one it has; null takes it off. */
export const setPitch = (scheme: Scheme, mass: Mass, mint: () => Id, pitch: { angle: Num; direction: Num } | null): Edit =>
  changeRecipe(scheme, mass, (recipe) => withPitch(recipe, mint, pitch))

/** The ridge's direction (degrees) along the longer side of a recipe's outline. */
export function ridgeAlongOf(recipe: Move[], numbers: Numbers): number {
  const outline = recipe.find((m) => m.move === 'outline')
  return outline ? ridgeAlong(corners(outline.shape, numbers), 'longer') : 0
}
