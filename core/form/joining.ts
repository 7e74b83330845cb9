import { type Edit, type SingleEdit, batch } from '../edits'
import { levelHeights } from '../levels'
import { moveIds, renamedMoves, type Move } from '../moves'
import { heightsOf, numbersOf, standingNumbers, type Mass, type Project, type Scheme } from '../project'
import { moveOf, placePoint, shorterTurn, turnOf } from '../solid'
import { freeName, type Id, namesOf, nextOrder, refuse, tidy } from '../values'
import { closedOrRefused } from './mass-of'
import { grown } from './grown'
import { massOf } from './mass-of'

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
    place: { x: tidy(x), y: tidy(y), turn: tidy(shorterTurn(at.turn + numbers.angle(join.place.turn))) },
  }
  const parts = Object.values(scheme.parts).filter((p) => p.host.mass === id && own.has(moveOf(p.host.face)))
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

/**
 * Detaches a mass from another one that a move of it reads: the other's recipe, as it is now, lives on within the move, where it stands
 * now, and faces keep their names.
 */
export function detach(project: Project, scheme: Scheme, id: Id, move: Id): Edit {
  const mass = massOf(scheme, id)
  const combine = mass.recipe.find((m) => m.id === move)
  if (combine?.move !== 'combine')
    return refuse('unknown-id', 'That move reads no mass any more.', 'Look at the recipe in the details.')
  const numbers = numbersOf(project, scheme)
  const standing = standingNumbers(mass, numbers, heightsOf(scheme, numbers), grown(project, scheme, numbers).masses)
  const other =
    standing.other?.(combine.mass) ?? refuse('unknown-id', 'The mass that it reads is gone.', 'Take the move off.')
  const all = [other, ...(combine.copies === 'all' ? (standing.copies?.(combine.mass) ?? []) : [])]
  if (combine.how === 'common' && all.length > 1)
    return refuse(
      'geometry',
      `What "${mass.name}" shares with all of the repeats is no list of moves.`,
      'Let it read that mass alone first, or detach the repeats.',
    )
  const joins = all.map(({ name, recipe, at: { x, y, z, turn } }, i): Move => ({
    id: i === 0 ? move : `${move}-${i + 1}`,
    move: 'join',
    on: combine.on,
    name,
    place: { x, y, turn },
    lift: z,
    how: combine.how,
    recipe: i === 0 ? (recipe as Move[]) : renamedMoves(recipe as Move[], (own) => `${own}-${i + 1}`),
  }))
  return {
    edit: 'mass.change',
    scheme: scheme.id,
    id,
    set: { recipe: mass.recipe.flatMap((m) => (m.id === move ? joins : m)) },
  }
}

/**
 * What a cut throws away, as a mass of its own with the same use and storeys: it has the moves up to the cut, which keeps the other side
 * there. Each can be changed by itself from then on.
 */
export function keepRest(scheme: Scheme, mint: () => Id, id: Id, move: Id): Edit {
  const mass = massOf(scheme, id)
  const at = mass.recipe.findIndex((m) => m.id === move)
  const cut = mass.recipe[at]
  if (cut?.move !== 'cut')
    return refuse('unknown-id', 'That cut is not there any more.', 'Look at the recipe in the details.')
  const keeps = cut.keeps === 'below' ? 'above' : 'below'
  const rest: Mass = {
    ...mass,
    id: mint(),
    name: freeName(`${mass.name}, rest`.slice(0, 110), namesOf(scheme.masses)),
    order: nextOrder(scheme.masses),
    recipe: [...mass.recipe.slice(0, at), { ...cut, keeps }],
  }
  return { edit: 'mass.add', scheme: scheme.id, thing: rest }
}

/**
 * Of a mass that takes all levels but some, and one that takes only some: the levels that the first leaves out and the second does not
 * take.
 */
export const exceptions = (a: Mass, b: Mass): Id[] => {
  const [all, only] = a.takes.kind === 'all-but' ? [a, b] : [b, a]
  return all.takes.levels.filter((l) => !only.takes.levels.includes(l))
}
