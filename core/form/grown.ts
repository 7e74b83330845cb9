import { onesOf, remarksOn, type One, type Repeat } from '../repeats'
import { fingerprint, inOrder, Memo, Refusal, tidy, type Id, type Mass, type Numbers, type Scheme } from '../project'
import { placePoint, TOLERANCE } from '../solid'
import { planOf, type Move } from '../moves'

/** What a body that is not stored comes from: its repeat, which one of it, and the mass that is repeated. */
export interface GrownFrom {
  repeat: Id
  key: string
  mass: Id
}

/** A scheme with all that grows in it: its masses and those of its repeats, which are like drawn ones to whoever reads them. */
export interface Grown {
  masses: Record<Id, Mass>
  from: ReadonlyMap<Id, GrownFrom>
  /** what repeats have to say of themselves */
  remarks: { repeat: Id; say: string; remedy: string }[]
}

/** What repeats may make in all: more are said, and not made */
const MOST = 5000

/** The id of one of a repeat: the same for the same key and mass, whatever becomes of the others. */
export const grownId = (repeat: Id, key: string, mass: Id): Id => `r-${fingerprint(`${repeat} ${key} ${mass}`)}`

const memo = new Memo()

/**
 * The masses of a scheme with those of its repeats. `storeys`: its storeys from the lowest up, with their heights (m). What stays the same
 * is the same object from time to time, so that whoever keeps by it finds it.
 */
export function grown(scheme: Scheme, numbers: Numbers, storeys: readonly { id: Id; height: number }[]): Grown {
  const repeats = inOrder(scheme.repeats)
  if (repeats.length === 0) return { masses: scheme.masses, from: new Map(), remarks: [] }
  const masses: Record<Id, Mass> = { ...scheme.masses }
  const from = new Map<Id, GrownFrom>()
  const remarks: Grown['remarks'] = []
  for (const repeat of repeats) {
    try {
      growOne(repeat, scheme, numbers, storeys, { masses, from, remarks })
    } catch (e) {
      // One whose numbers cannot be read makes nothing, and says so; all else goes on.
      if (!(e instanceof Refusal)) throw e
      remarks.push({ repeat: repeat.id, say: e.say, remedy: e.remedy })
    }
  }
  return { masses, from, remarks }
}

function growOne(
  repeat: Repeat,
  scheme: Scheme,
  numbers: Numbers,
  storeys: readonly { id: Id; height: number }[],
  to: { masses: Record<Id, Mass>; from: Map<Id, GrownFrom>; remarks: Grown['remarks'] },
): void {
  const out = new Set(repeat.out)
  for (const id of repeat.of) {
    const mass = scheme.masses[id]
    if (!mass) {
      to.remarks.push({
        repeat: repeat.id,
        say: `A mass that "${repeat.name}" repeats is not there any more.`,
        remedy: 'Undo its deletion, or remove the repeat.',
      })
      continue
    }
    const base = storeys.find((s) => s.id === mass.base.level)?.height
    const own = base === undefined ? [] : storeys.filter((s) => s.height >= base - TOLERANCE.height)
    const levels = own.length ? own.map((s) => s.id) : [mass.base.level]
    if (id === repeat.of[0])
      for (const r of remarksOn(repeat, levels, numbers)) to.remarks.push({ repeat: repeat.id, ...r })
    const ones = onesOf(repeat, levels, numbers)
    if (to.from.size + ones.length > MOST) {
      to.remarks.push({
        repeat: repeat.id,
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
      to.from.set(made.id, { repeat: repeat.id, key: one.key, mass: id })
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
  const { step } = one
  const moved = 'by' in step ? 0 : step.turn
  const at =
    'by' in step
      ? [x + step.by[0], y + step.by[1]]
      : placePoint([x - step.about[0], y - step.about[1]], {
          x: step.about[0],
          y: step.about[1],
          z: 0,
          turn: step.turn,
        })
  const level = levels[one.storey] ?? mass.base.level
  const above = repeat.up?.high === 'storey' ? (levels[one.storey + 1] ?? null) : null
  const use = repeat.own[one.key]?.use ?? mass.use
  const place = { x: tidy(at[0] as number), y: tidy(at[1] as number), turn: tidy(turn + moved) }
  const values = [place.x, place.y, place.turn, level, above, use, one.order]
  return memo.keep(mass, `${repeat.id} ${one.key}`, values, () => ({
    ...mass,
    id: grownId(repeat.id, one.key, mass.id),
    name: `${mass.name}, ${one.key.replace(/-[0-9a-f]{8}-.*/, '')}`,
    use,
    order: one.order,
    group: null,
    place,
    base: { level, above: mass.base.above },
    recipe: above === null ? mass.recipe : highAs(mass.recipe, above),
  }))
}

const recipes = new Memo()
/** A recipe raised up to a level. */
const highAs = (recipe: Move[], level: Id): Move[] =>
  recipes.keep(recipe, level, [], () =>
    recipe.map((m) => (m.move === 'raise' ? { ...m, upTo: { level, above: 0 } } : m)),
  )

/** The middle of what masses enclose in plan, and their extent (m): what a new repeat begins with. */
export function beginsOf(
  masses: readonly Mass[],
  numbers: Numbers,
): { middle: [number, number]; wide: number; deep: number } {
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
  return { middle: [(x0 + x1) / 2, (y0 + y1) / 2], wide: x1 - x0, deep: y1 - y0 }
}
