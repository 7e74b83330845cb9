import { levelHeights } from '../levels'
import { onesOf, remarksOn, stepped, type One, type Begins, type PlanAt, type Repeat } from '../repeats'
import {
  fingerprint,
  inOrder,
  Memo,
  noteCopies,
  numbersOf,
  reasonOf,
  refuse,
  type Id,
  type Mass,
  type Numbers,
  type Project,
  type Scheme,
} from '../project'
import { placePoint, planOfOutlines, TOLERANCE } from '../solid'
import { kindOfMove, planOf, type Move } from '../moves'
import type { Grown, GrownFrom } from './grown-from'
import { growRule } from './ruled'

/** What repeats may make in all: more are said, and not made */
const MOST = 5000

/** The id of one of a repeat: the same for the same key and mass, whatever becomes of the others. */
export const grownId = (repeat: Id, key: string, mass: Id): Id => `r-${fingerprint(`${repeat} ${key} ${mass}`)}`

const memo = new Memo()

/**
 * The masses of a scheme with those of its rules and repeats. What stays the same is the same object from time to time, so that whoever
 * keeps by it finds it.
 */
export function grown(project: Project, scheme: Scheme, numbers = numbersOf(project, scheme)): Grown {
  const [rules, repeats] = [inOrder(scheme.rules), inOrder(scheme.repeats)]
  if (repeats.length + rules.length === 0) return { masses: scheme.masses, from: new Map(), remarks: [] }
  const to = { masses: { ...scheme.masses }, from: new Map<Id, GrownFrom>(), remarks: [] as Grown['remarks'] }
  // One whose numbers cannot be read makes nothing, and says so; all else goes on.
  const saying = (by: GrownFrom['by'], id: Id, grow: () => void) => {
    try {
      grow()
    } catch (e) {
      to.remarks.push({ by, id, ...reasonOf(e) })
    }
  }
  for (const rule of rules) saying('rule', rule.id, () => growRule(project, scheme, rule, numbers, to))
  const storeys = levelHeights(project, scheme, numbers).filter((l) => l.kind === 'storey')
  const planAt = planOfMass(to.masses, numbers)
  for (const repeat of repeats) saying('repeat', repeat.id, () => growOne(repeat, numbers, storeys, planAt, to))
  const copies = new Map<Id, Id[]>()
  for (const [id, { by, mass }] of to.from)
    if (by === 'repeat' && mass !== null) copies.set(mass, [...(copies.get(mass) ?? []), id])
  noteCopies(to.masses, copies)
  return to
}

function growOne(
  repeat: Repeat,
  numbers: Numbers,
  storeys: readonly { id: Id; height: number }[],
  planAt: PlanAt,
  to: { masses: Record<Id, Mass>; from: Map<Id, GrownFrom>; remarks: Grown['remarks'] },
): void {
  const out = new Set(repeat.out)
  for (const id of repeat.of) {
    const mass = to.masses[id]
    if (!mass) {
      to.remarks.push({
        by: 'repeat',
        id: repeat.id,
        say: `A mass that "${repeat.name}" repeats is not there any more.`,
        remedy: 'Undo its deletion, or remove the repeat.',
      })
      continue
    }
    const base = storeys.find((s) => s.id === mass.base.level)?.height
    const own = base === undefined ? [] : storeys.filter((s) => s.height >= base - TOLERANCE.height)
    const levels = own.length ? own.map((s) => s.id) : [mass.base.level]
    if (id === repeat.of[0])
      for (const r of remarksOn(repeat, levels, numbers, planAt)) to.remarks.push({ by: 'repeat', id: repeat.id, ...r })
    const ones = onesOf(repeat, levels, numbers, planAt)
    if (to.from.size + ones.length > MOST) {
      to.remarks.push({
        by: 'repeat',
        id: repeat.id,
        say: `"${repeat.name}" would make ${ones.length} bodies, with ${to.from.size} there already: that is more than ${MOST}.`,
        remedy: 'Take a smaller number.',
      })
      return
    }
    for (const [i, one] of ones.entries()) {
      if (out.has(one.key)) continue
      // Behind the original, before whatever comes next.
      const order = mass.order + (i + 1) / (2 * MOST)
      const made = grownMass(repeat, mass, { ...one, order }, levels, numbers)
      to.masses[made.id] = made
      to.from.set(made.id, { by: 'repeat', id: repeat.id, key: one.key, mass: id })
    }
  }
}

/** One of a repeat as a mass. Its recipe is that of the original, the very object, unless it is as high as its storey. */
function grownMass(
  repeat: Repeat,
  mass: Mass,
  one: One & { order: number },
  levels: readonly Id[],
  numbers: Numbers,
): Mass {
  const [x, y, turn] = [numbers.length(mass.place.x), numbers.length(mass.place.y), numbers.angle(mass.place.turn)]
  const place = stepped({ x, y, turn }, one.step)
  const level = levels[one.storey] ?? mass.base.level
  const above = repeat.up?.high === 'storey' ? (levels[one.storey + 1] ?? null) : null
  const [own, last] = [repeat.own[one.key], one.last ? repeat.own.last : undefined]
  const use = own?.use ?? last?.use ?? mass.use
  const high = own?.high ?? last?.high ?? null
  const usual = above === null ? mass.recipe : highAs(mass.recipe, above)
  const moves = own?.moves ?? last?.moves ?? NO_MOVES
  const recipe = withOwnMoves(high === null ? usual : raisedAs(mass.recipe, high), moves)
  const values = [place.x, place.y, place.turn, level, above, use, high, moves, one.order, one.mirrored]
  return memo.keep(mass, `${repeat.id} ${one.key}`, values, () => ({
    ...mass,
    id: grownId(repeat.id, one.key, mass.id),
    name: `${mass.name}, ${one.key.replace(/-[0-9a-f]{8}-.*/, '')}`,
    use,
    order: one.order,
    group: null,
    place,
    base: { level, above: mass.base.above },
    recipe: one.mirrored ? mirroredIn(recipe, mass.name) : recipe,
  }))
}

/** The plan of a mass where it stands, by its outline: no kernel is needed. */
const planOfMass =
  (masses: Readonly<Record<Id, Mass>>, numbers: Numbers): PlanAt =>
  (id) => {
    const mass = masses[id]
    const lines = mass ? planOf(mass.recipe, numbers, mass.name) : []
    if (!mass || lines.length === 0) return null
    const { x, y, turn } = mass.place
    const at = { x: numbers.length(x), y: numbers.length(y), z: 0, turn: numbers.angle(turn) }
    return planOfOutlines(lines).map((line) => line.map((c) => ({ ...c, at: placePoint(c.at, at) })))
  }

/** A recipe whose outline is mirrored through its own middle. Errors: 'geometry' where a move has sides of its own. */
function mirroredIn(recipe: Move[], name: string): Move[] {
  return recipes.keep(recipe, 'mirrored', [], () => {
    const at = recipe.findIndex((m) => m.move === 'outline')
    const sided = recipe.find((m) => kindOfMove(m).placed)
    if (at < 0 || sided)
      refuse(
        'geometry',
        `"${name}" cannot be mirrored every other time: ${at < 0 ? 'it has no outline' : 'a move of it is placed in its own frame, and would stay there'}.`,
        'Let the repeat mirror none.',
      )
    const mirror: Move = { id: 'mirrored', move: 'mirror', on: true, direction: 90 }
    return [...recipe.slice(0, at + 1), mirror, ...recipe.slice(at + 1)]
  })
}

const recipes = new Memo()
const NO_MOVES: Move[] = []
/** A recipe with the moves that one has of its own behind it. */
const withOwnMoves = (recipe: Move[], moves: Move[]): Move[] =>
  moves.length === 0 ? recipe : recipes.keep(moves, 'own', [recipe], () => [...recipe, ...moves])
/** A recipe raised by so much, m; what is not raised stays as it is. */
const raisedAs = (recipe: Move[], high: number): Move[] =>
  recipes.keep(recipe, `raised ${high}`, [], () =>
    recipe.map((m) => (m.move === 'raise' ? { ...m, height: high, upTo: null } : m)),
  )
/** A recipe raised up to a level. */
const highAs = (recipe: Move[], level: Id): Move[] =>
  recipes.keep(recipe, level, [], () =>
    recipe.map((m) => (m.move === 'raise' ? { ...m, upTo: { level, above: 0 } } : m)),
  )

/** The middle of what masses enclose in plan, and their extent (m): what a new repeat begins with. */
export function beginsOf(masses: readonly Mass[], numbers: Numbers, others: readonly Id[] = []): Begins {
  const points = masses.flatMap((mass) => {
    const at = {
      x: numbers.length(mass.place.x),
      y: numbers.length(mass.place.y),
      z: 0,
      turn: numbers.angle(mass.place.turn),
    }
    const plan = planOf(mass.recipe, numbers, mass.name).flatMap((l) => l.points)
    return (plan.length ? plan : [[0, 0] as [number, number]]).map((p) => placePoint(p, at))
  })
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  return { middle: [(x0 + x1) / 2, (y0 + y1) / 2], wide: x1 - x0, deep: y1 - y0, others }
}
