import type { Move } from '../moves'
import { batch, singles, type Edit, type SingleEdit } from '../edits'
import { wayKind, type OwnOfRepeat, type Repeat, type Way } from '../repeats'
import {
  freeName,
  inOrder,
  namesOf,
  nextOrder,
  numbersOf,
  refuse,
  type Id,
  type Mass,
  type Project,
  type Scheme,
} from '../project'
import { moveMasses } from './commands'
import { beginsOf } from './grown'
import type { Grown } from './grown-from'
import { massOf } from './mass-of'

/** A new repeat of masses, in a way (by its name), or up the storeys where they stand. */
export function newRepeat(
  project: Project,
  scheme: Scheme,
  mint: () => Id,
  of: readonly Id[],
  way: Way['way'],
  up = false,
): Extract<Edit, { edit: 'repeat.add' }> {
  const masses = of.map((id) => massOf(scheme, id))
  const [first] = masses
  if (!first) return refuse('unknown-id', 'There is nothing to repeat.', 'Pick a mass first.')
  const kind = wayKind({ way })
  const begins = kind.starts(
    beginsOf(
      masses,
      numbersOf(project, scheme),
      inOrder(scheme.masses).flatMap((m) => (of.includes(m.id) ? [] : [m.id])),
    ),
  )
  return {
    edit: 'repeat.add',
    scheme: scheme.id,
    thing: {
      id: mint(),
      name: freeName(`${first.name}, repeated`, namesOf(scheme.repeats)),
      order: nextOrder(scheme.repeats),
      of: [...of],
      way: { way, ...begins } as Way,
      up: up ? { storeys: null, high: 'drawn', shift: 0 } : null,
      every: 1,
      which: 'all',
      mirrored: false,
      out: [],
      own: {},
    },
  }
}

/** An edit of a repeat. */
export const changeRepeat = (scheme: Scheme, id: Id, set: Partial<Omit<Repeat, 'id'>>): Edit => ({
  edit: 'repeat.change',
  scheme: scheme.id,
  id: repeatOf(scheme, id).id,
  set,
})

/** The repeat of an id. Errors: 'unknown-id'. */
export const repeatOf = (scheme: Scheme, id: Id): Repeat =>
  scheme.repeats[id] ?? refuse('unknown-id', 'That repeat is not there any more.', 'Pick another one.')

/**
 * One of a repeat (by its key) dragged by so much in plan, m: along a line and in a grid they come to stand so far
 * apart; any other repeat is
 * moved as a whole, with what it repeats.
 */
export function dragRepeat(project: Project, scheme: Scheme, id: Id, key: string, by: readonly [number, number]): Edit {
  const repeat = repeatOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const kind = wayKind(repeat.way)
  const way: [number, number] = [by[0], by[1]]
  const dragged = kind.dragged?.(repeat.way, key, way, numbers) ?? null
  if (dragged && Object.keys(dragged).length)
    return changeRepeat(scheme, id, { way: { ...repeat.way, ...dragged } as Way })
  const masses = moveMasses(project, scheme, [...repeat.of], way)
  const moved = kind.moved?.(repeat.way, way, numbers)
  return moved
    ? batch([...singles(masses), ...singles(changeRepeat(scheme, id, { way: { ...repeat.way, ...moved } as Way }))])
    : masses
}

/** Leaves one of a repeat out, or takes it back. */
export function leaveOut(scheme: Scheme, id: Id, key: string, isOut: boolean): Edit {
  const { out } = repeatOf(scheme, id)
  return changeRepeat(scheme, id, {
    out: isOut ? [...out.filter((k) => k !== key), key] : out.filter((k) => k !== key),
  })
}

/** Gives one of a repeat a use of its own, or, with null, that of the original again. */
export const ownUse = (scheme: Scheme, id: Id, key: string, use: Id | null): Edit => withOwn(scheme, id, key, { use })

/** Gives one of a repeat a height of its own (m that it is raised), or, with null, that of the others again. */
export const ownHeight = (scheme: Scheme, id: Id, key: string, high: number | null): Edit =>
  withOwn(scheme, id, key, { high: high ?? undefined })

/** Gives one of a repeat moves of its own, behind those of the original. */
export const ownMoves = (scheme: Scheme, id: Id, key: string, moves: Move[]): Edit =>
  withOwn(scheme, id, key, { moves: moves.length ? moves : undefined })

/** What one of a repeat has of its own, changed; with nothing left it is like the others. */
function withOwn(scheme: Scheme, id: Id, key: string, set: Partial<OwnOfRepeat>): Edit {
  const { [key]: had, ...rest } = repeatOf(scheme, id).own
  const { use, high, moves } = { use: null, ...had, ...set }
  const own = { use, ...(high === undefined ? {} : { high }), ...(moves === undefined ? {} : { moves }) }
  const isLikeOthers = use === null && high === undefined && moves === undefined
  return changeRepeat(scheme, id, { own: isLikeOthers ? rest : { ...rest, [key]: own } })
}

/**
 * Makes one of a repeat (by its key), or with null all of them, masses of their own: they stand where they stood, with
 * a recipe each, and are linked no
 * longer. With all of them the repeat goes.
 */
export function detachRepeated(scheme: Scheme, grown: Grown, mint: () => Id, id: Id, key: string | null): Edit {
  const repeat = repeatOf(scheme, id)
  const wanted = [...grown.from].filter(([, f]) => f.by === 'repeat' && f.id === id && (key === null || f.key === key))
  if (wanted.length === 0)
    return refuse('unknown-id', 'That one of the repeat is not there any more.', 'Pick another one.')
  const taken = namesOf(scheme.masses)
  let order = nextOrder(scheme.masses)
  const masses = wanted.map(([grownId]): SingleEdit => {
    const mass = grown.masses[grownId] as Mass
    const name = freeName(mass.name, taken)
    taken.push(name)
    return {
      edit: 'mass.add',
      scheme: scheme.id,
      thing: { ...structuredClone(mass), id: mint(), name, order: order++ },
    }
  })
  const rest: Edit =
    key === null ? { edit: 'repeat.remove', scheme: scheme.id, id } : leaveOut(scheme, repeat.id, key, true)
  return batch([...masses, rest as SingleEdit])
}
