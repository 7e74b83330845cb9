import { batch, type Edit, type SingleEdit } from '../edits'
import {
  freeName,
  inOrder,
  namesOf,
  nextOrder,
  numbersOf,
  refuse,
  ruleRun,
  tidy,
  type Id,
  type Mass,
  type Project,
  type Scheme,
} from '../project'
import { isRaised, planMiddle, stepKind, READY_RULES, type Own, type Rule, type Step } from '../rules'
import type { Grown } from './grown-from'
import { massOf } from './mass-of'

/** The rule of an id. Errors: 'unknown-id'. */
export const ruleOf = (scheme: Scheme, id: Id): Rule =>
  scheme.rules[id] ?? refuse('unknown-id', 'That rule is not there any more.', 'Pick another one.')

/** An edit of a rule. */
export const changeRule = (scheme: Scheme, id: Id, set: Partial<Omit<Rule, 'id'>>): SingleEdit => ({
  edit: 'rule.change',
  scheme: scheme.id,
  id: ruleOf(scheme, id).id,
  set,
})

/** Moves a rule in plan, m: all that it grows goes along. */
export function moveRule(project: Project, scheme: Scheme, id: Id, by: readonly [number, number]): Edit {
  const { place } = ruleOf(scheme, id)
  const numbers = numbersOf(project, scheme)
  const to = (num: Rule['place']['x'], d: number) => (d ? tidy(numbers.length(num) + d) : num)
  return changeRule(scheme, id, { place: { ...place, x: to(place.x, by[0]), y: to(place.y, by[1]) } })
}

/** Where a new rule stands, and what it is for. */
interface Stands {
  use: Id
  level: Id
  at: readonly [number, number]
}

/** A new rule with nothing but a plan; or a ready one, by its name, with dials of its own. Errors: 'unknown-id' for a name that is none. */
export function newRule(project: Project, scheme: Scheme, mint: () => Id, stands: Stands, ready: string | null): Edit {
  const from = READY_RULES.find((r) => r.ready === ready) ?? null
  if (ready !== null && !from)
    return refuse(
      'unknown-id',
      `There is no ready rule "${ready}".`,
      `Choose ${READY_RULES.map((r) => r.ready).join(', ')}.`,
    )
  const taken = [
    ...Object.values(project.dials),
    ...Object.values(scheme.dials),
    ...Object.values(project.measures),
  ].map((d) => d.name)
  const ids = new Map<string, Id>()
  let order = nextOrder(scheme.dials)
  const dials = (from?.dials ?? []).map((d): SingleEdit => {
    const id = mint()
    ids.set(d.name, id)
    const name = freeName(d.name, taken, (wish, n) => `${wish}${n}`)
    taken.push(name)
    return { edit: 'dial.add', scheme: scheme.id, thing: { ...d, id, order: order++, name } }
  })
  const steps = from ? from.steps((name) => ({ formula: `{${ids.get(name) ?? ''}}` }), mint) : [newStep('plan', mint)]
  const called = from ? from.called[0]?.toUpperCase() + from.called.slice(1) : 'Rule'
  const thing: Rule = {
    ...emptyRule(scheme, mint, called),
    use: stands.use,
    base: { level: stands.level, above: 0 },
    place: { x: stands.at[0], y: stands.at[1], turn: 0 },
    steps,
  }
  return batch([...dials, { edit: 'rule.add', scheme: scheme.id, thing }])
}

/** A rule without steps, use or level yet. */
const emptyRule = (scheme: Scheme, mint: () => Id, name: string): Rule => ({
  id: mint(),
  name: freeName(name, namesOf(scheme.rules)),
  order: nextOrder(scheme.rules),
  use: '',
  base: { level: '', above: 0 },
  place: { x: 0, y: 0, turn: 0 },
  steps: [],
  most: 1000,
  out: [],
  own: {},
  frozen: null,
})

/**
 * A rule in place of a drawn mass: its outline is the plan, its moves are the steps behind it. Errors: 'geometry' where it is drawn
 * otherwise.
 */
export function ruleOfMass(project: Project, scheme: Scheme, mint: () => Id, id: Id): Edit {
  const mass = massOf(scheme, id)
  const [drawn, ...moves] = mass.recipe
  if (drawn?.move !== 'outline' || drawn.holes.length > 0 || moves.some((m) => m.move === 'join'))
    return refuse(
      'geometry',
      `"${mass.name}" is not drawn as one outline without holes, and raised.`,
      'Pick a mass that is, or begin with a ready rule.',
    )
  const [x, y] = planMiddle(drawn.shape, numbersOf(project, scheme))
  const base = { of: null, others: false }
  const steps = [
    { id: drawn.id, step: 'plan', on: true, ...base, shape: drawn.shape, x, y, turn: 0 },
    ...moves.map((move) => ({ id: move.id, step: 'move', on: move.on, ...base, move })),
  ] as Step[]
  const thing: Rule = {
    ...emptyRule(scheme, mint, mass.name),
    use: mass.use,
    base: mass.base,
    place: mass.place,
    steps,
  }
  return batch([
    { edit: 'mass.remove', scheme: scheme.id, id },
    { edit: 'rule.add', scheme: scheme.id, thing },
  ])
}

/** A rule of bands round a drawn mass, or of fins on it, with its use. */
export function trimRule(scheme: Scheme, mint: () => Id, id: Id, what: 'bands' | 'fins'): Edit {
  const mass = massOf(scheme, id)
  const thing: Rule = {
    ...emptyRule(scheme, mint, `${what === 'bands' ? 'Bands' : 'Fins'} of ${mass.name}`),
    use: mass.use,
    base: { level: mass.base.level, above: 0 },
    steps: [newStep(what, mint, { mass: id })],
  }
  return { edit: 'rule.add', scheme: scheme.id, thing }
}

/** A step of a kind, as it begins. */
export function newStep(step: Step['step'], mint: () => Id, fields: object = {}): Step {
  const begins = stepKind({ step }).starts()
  return { id: mint(), step, on: true, of: null, others: false, ...begins, ...fields } as unknown as Step
}

/** The rule with one step changed, put in behind another (null: first), or taken out. Errors: 'in-use' where another step reads it. */
export const withStep = (scheme: Scheme, id: Id, step: Id, set: object): SingleEdit =>
  changeRule(scheme, id, {
    steps: ruleOf(scheme, id).steps.map((s) => (s.id === step ? ({ ...s, ...set } as Step) : s)),
  })

export function withStepBehind(scheme: Scheme, id: Id, step: Step, behind: Id | null): Edit {
  const { steps } = ruleOf(scheme, id)
  const at = behind === null ? 0 : steps.findIndex((s) => s.id === behind) + 1
  return changeRule(scheme, id, { steps: [...steps.slice(0, at), step, ...steps.slice(at)] })
}

export function withoutStep(scheme: Scheme, id: Id, step: Id): Edit {
  const { steps } = ruleOf(scheme, id)
  const reads = steps.findIndex((s) => s.id !== step && JSON.stringify(s).includes(step))
  if (reads >= 0)
    return refuse(
      'in-use',
      `Step ${reads + 1} reads what this one gives.`,
      'Let it read another one, or take it out first.',
    )
  return changeRule(scheme, id, { steps: steps.filter((s) => s.id !== step) })
}

/** Leaves one of a rule's bodies out, by its key, or takes it back. */
export function leaveOutOfRule(scheme: Scheme, id: Id, key: string, isOut: boolean): Edit {
  const rest = ruleOf(scheme, id).out.filter((k) => k !== key)
  return changeRule(scheme, id, { out: isOut ? [...rest, key] : rest })
}

/** Gives one of a rule's bodies something of its own; what is undefined in it is the rule's again. */
export function ownOfRule(scheme: Scheme, id: Id, key: string, set: Own): Edit {
  const { own } = ruleOf(scheme, id)
  const next = Object.fromEntries(Object.entries({ ...own[key], ...set }).filter(([, v]) => v !== undefined)) as Own
  const { [key]: _, ...rest } = own
  return changeRule(scheme, id, { own: Object.keys(next).length ? { ...rest, [key]: next } : rest })
}

/**
 * Makes what a rule has grown masses of their own, in one edit: they keep names, ids and so their fabric, and have recipes. The rule and its
 * numbers stay beside, and can grow again.
 */
export function freezeRule(scheme: Scheme, growth: Grown, id: Id): Edit {
  const rule = ruleOf(scheme, id)
  if (rule.frozen) return refuse('edit', `"${rule.name}" is frozen already.`, 'Let it grow again first.')
  const grown = [...growth.from].filter(([, f]) => f.by === 'rule' && f.id === id)
  if (grown.length === 0)
    return refuse('geometry', `"${rule.name}" has grown nothing.`, 'Put a step behind the others that raises them.')
  let order = nextOrder(scheme.masses)
  const masses = grown.map(([mass]) => growth.masses[mass] as Mass)
  const frozen = Object.fromEntries(
    grown.map(([mass, { key }]) => {
      const { name, use, material, faces, recipe } = growth.masses[mass] as Mass
      return [key, { mass, name, use, material: material ?? null, faces: faces ?? {}, moves: recipe.map((m) => m.id) }]
    }),
  )
  return batch([
    ...masses.map((mass): SingleEdit => ({
      edit: 'mass.add',
      scheme: scheme.id,
      thing: { ...structuredClone(mass), order: order++ },
    })),
    changeRule(scheme, id, { frozen }),
  ])
}

/**
 * Lets a frozen rule grow again: its masses go, and what was given to them since (names, uses, materials, moves behind those of the rule) is
 * kept by key. One that was deleted is left out.
 */
export function growAgain(scheme: Scheme, id: Id): Edit {
  const rule = ruleOf(scheme, id)
  if (!rule.frozen) return refuse('edit', `"${rule.name}" grows already.`, 'Freeze it first.')
  const own = { ...rule.own }
  const out = [...rule.out]
  const removed: SingleEdit[] = []
  for (const [key, was] of Object.entries(rule.frozen)) {
    const mass = scheme.masses[was.mass]
    if (!mass) {
      if (!out.includes(key)) out.push(key)
      continue
    }
    removed.push({ edit: 'mass.remove', scheme: scheme.id, id: mass.id })
    const given = givenTo(mass, was, rule.own[key])
    if (Object.keys(given).length) own[key] = given
  }
  return batch([...removed, changeRule(scheme, id, { frozen: null, own, out })])
}

/** What a frozen mass has that its rule had not given to it. */
function givenTo(mass: Mass, was: NonNullable<Rule['frozen']>[string], own: Own | undefined): Own {
  const faces = Object.fromEntries(Object.entries(mass.faces ?? {}).filter(([face, m]) => was.faces[face] !== m))
  const moves = mass.recipe.filter((m) => !was.moves.includes(m.id))
  const ownMoves = [...(own?.moves ?? []), ...moves]
  return {
    ...own,
    ...(mass.name !== was.name ? { name: mass.name } : {}),
    ...(mass.use !== was.use ? { use: mass.use } : {}),
    ...((mass.material ?? null) !== was.material ? { material: mass.material ?? null } : {}),
    ...(Object.keys(faces).length ? { faces: { ...own?.faces, ...faces } } : {}),
    ...(ownMoves.length ? { moves: ownMoves } : {}),
  }
}

/** How many bodies a rule makes as it is. */
export const ruleCount = (project: Project, scheme: Scheme, rule: Rule): number =>
  ruleRun(project, scheme, rule).cells.filter(isRaised).length

/** The rules of a scheme, in their order. */
export const rulesInOrder = (scheme: Scheme): Rule[] => inOrder(scheme.rules)
