import { batch, type Edit, type SingleEdit } from '../edits'
import { kindOfMove, planOf, withMove, withPlaced, type Move } from '../moves'
import { canonical, numbersOf, refuse, tidy, type Id, type Mass, type Num, type Project, type Scheme } from '../project'
import { placePoint, type Vec2 } from '../solid'
import { moveMasses } from './commands'
import { massOf } from './mass-of'

/** What was done last to a mass: a move was put into its recipe, or changed; it was moved in plan (m), and turned (degrees). */
export type Done = { did: 'move'; move: Move; from: Move | null } | { did: 'place'; by: Vec2; turn: number }

/** What an edit has done to the masses of a scheme, where it can be done again; null for all else. */
export function doneBetween(project: Project, before: Scheme, after: Scheme): Done | null {
  const numbers = numbersOf(project, after)
  for (const mass of Object.values(after.masses)) {
    const was = before.masses[mass.id]
    if (!was || was === mass) continue
    const move = mass.recipe.find((m) => {
      const old = was.recipe.find((o) => o.id === m.id)
      return !old || (old !== m && canonical(old) !== canonical(m))
    })
    if (move) return { did: 'move', move, from: was.recipe.find((m) => m.id === move.id) ?? null }
    const [a, b] = [was.place, mass.place]
    const by: Vec2 = [tidy(numbers.length(b.x) - numbers.length(a.x)), tidy(numbers.length(b.y) - numbers.length(a.y))]
    const turn = tidy(numbers.angle(b.turn) - numbers.angle(a.turn))
    // What is turned is turned about its middle, and moves with that.
    if (turn) return { did: 'place', by: [0, 0], turn }
    if (by[0] || by[1]) return { did: 'place', by, turn }
  }
  return null
}

/**
 * Does the last thing again, to the masses of some ids, with its last value: a move that was added is added; of one that was changed its
 * numbers go on by as much where the mass has that move, else it is added as it is. Errors: 'geometry' where it fits nowhere.
 */
export function doAgain(project: Project, scheme: Scheme, mint: () => Id, ids: readonly Id[], done: Done): Edit {
  if (done.did === 'place')
    return batch(
      ids.flatMap((id) => {
        const edit = moveMasses(
          project,
          scheme,
          [id],
          done.by,
          done.turn,
          done.turn ? middleOf(project, scheme, id) : null,
        )
        return edit.edit === 'batch' ? edit.edits : [edit]
      }),
    )
  return batch(
    ids.map((id): SingleEdit => {
      const mass = massOf(scheme, id)
      return { edit: 'mass.change', scheme: scheme.id, id, set: { recipe: again(mass, mint, done.move, done.from) } }
    }),
  )
}

/** The mean of the corners of a mass's plan, as it stands; of what has none its own zero. m */
function middleOf(project: Project, scheme: Scheme, id: Id): Vec2 {
  const mass = massOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const points = planOf(mass.recipe, numbers, mass.name)[0]?.points ?? []
  const n = points.length || 1
  const at = points.reduce<Vec2>((s, p) => [s[0] + p[0] / n, s[1] + p[1] / n], [0, 0])
  const { x, y, turn } = mass.place
  return placePoint(at, { x: numbers.length(x), y: numbers.length(y), z: 0, turn: numbers.angle(turn) })
}

function again(mass: Mass, mint: () => Id, move: Move, from: Move | null): Move[] {
  const own = mass.recipe.find((m) => m.id === move.id)
  if (own && from) return withMove(mass.recipe, own, goneOn(own, from, move))
  // Sides are moved from where the outline has them: the same once more would be where the first is.
  if (own && kindOfMove(own).ofSides) return withMove(mass.recipe, own, goneOn(own, { ...move, by: 0 } as Move, move))
  return (
    withPlaced(mass.recipe, { ...structuredClone(move), id: mint() }) ??
    refuse(
      'geometry',
      `It does not fit into the recipe of "${mass.name}".`,
      'Pick a mass that was made in the same way.',
    )
  )
}

/** A move with what was changed of it changed again: numbers by as much, all else as it is. */
function goneOn(own: Move, from: Move, to: Move): Partial<Move> {
  const [a, b, now] = [from, to, own] as unknown as Record<string, Num>[]
  return Object.fromEntries(
    Object.entries(b ?? {}).flatMap(([key, value]) => {
      const [was, is] = [a?.[key], now?.[key]]
      return typeof value === 'number' && typeof was === 'number' && typeof is === 'number' && value !== was
        ? [[key, tidy(is + value - was)]]
        : []
    }),
  ) as Partial<Move>
}
