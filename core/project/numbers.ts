import { measured, MEASURES, type KeptMeasure } from '../picture'
import { givenIn, type Given } from '../rules'
import {
  asQuantity,
  evaluate,
  fieldUnit,
  parseFormula,
  printFormula,
  Refusal,
  refuse,
  sayUnits,
  thingOf,
  tidy,
  type Measure,
  type Node,
  type Num,
  type Numbers,
  type Quantity,
} from '../values'
import type { Project, Scheme } from './schema'
import type { Dial, Level } from './things'

/**
 * The numbers of a scheme, then of the project. A name in a formula is a dial's, a level's (its height) or a kept measure's; `given`: what
 * the steps of a rule gave to one of its cells. Without it they are worked out once for a project and scheme, which never change.
 */
export function numbersOf(
  project: Project,
  scheme: Scheme | null,
  given: ReadonlyMap<string, Given> | null = null,
): Numbers {
  if (given) return numbersFrom(project, scheme, given)
  let own = known.get(project)
  if (!own) known.set(project, (own = new WeakMap()))
  const of = scheme ?? project
  let numbers = own.get(of)
  if (!numbers) own.set(of, (numbers = numbersFrom(project, scheme, null)))
  return numbers
}
const known = new WeakMap<Project, WeakMap<object, Numbers>>()

function numbersFrom(project: Project, scheme: Scheme | null, given: ReadonlyMap<string, Given> | null): Numbers {
  const known = new Map<string, number>()
  const path: { id: string; name: string }[] = []
  const under = new Set<string>()
  /** the value of a thing that may refer to others, once; a circle is refused with its path */
  const once = (thing: { id: string; name: string }, work: () => number): number => {
    const ready = known.get(thing.id)
    if (ready !== undefined) return ready
    if (under.has(thing.id))
      refuse(
        'formula-circle',
        `The numbers go round in a circle: ${[...path.slice(path.findIndex((t) => t.id === thing.id)), thing].map((t) => t.name).join(' -> ')}.`,
        'Give one of them a plain number.',
      )
    if (path.length > 1000)
      refuse(
        'formula-circle',
        'The numbers refer to each other over more than 1000 steps.',
        'Give one of them a plain number.',
      )
    path.push(thing)
    under.add(thing.id)
    try {
      const result = work()
      known.set(thing.id, result)
      return result
    } finally {
      path.pop()
      under.delete(thing.id)
    }
  }
  const lookUp = (ref: { id: string } | { name: string }): Measure => {
    const own = 'id' in ref ? given?.get(ref.id) : undefined
    if (own) return { value: own.value, ...DIMENSIONS[own.quantity], bare: own.quantity === 'number' }
    const named = findNamed(project, scheme, ref)
    switch (named.is) {
      case 'given':
        return refuse(
          'formula',
          `"${named.thing.name}" is given by a step of a rule, and is known to its steps only.`,
          'Use a dial instead.',
        )
      case 'dial':
        return {
          value: once(named.thing, () => value(named.thing.value, named.thing.quantity)),
          ...DIMENSIONS[named.thing.quantity],
          bare: named.thing.quantity === 'number',
        }
      case 'level':
        return { value: height(named.thing.id), ...DIMENSIONS.length, bare: false }
      case 'measure':
        return {
          value: once(named.thing, () => measured(named.thing, project.pictures, numbers)),
          ...DIMENSIONS[MEASURES[named.thing.kind].quantity],
          bare: false,
        }
    }
  }
  const value = (num: Num, quantity: Quantity = 'length'): number => {
    if (typeof num === 'number') return num
    return asQuantity(evaluate(parsed(num.formula), fieldUnit('length', project.unit), lookUp), quantity, project.unit)
  }
  const length = (num: Num): number => {
    const metres = value(num, 'length')
    return Math.abs(metres) <= LONGEST
      ? metres
      : refuse(
          'size',
          `A length of ${metres} m is more than a site can have.`,
          'Check the number and its unit; coordinates up to 100,000 km are read.',
        )
  }
  const height = (id: string): number => {
    const level =
      scheme?.levels[id] ??
      refuse('unknown-id', 'A level stands on one that is not there.', 'Choose another level for it to stand on.')
    const { tie } = level
    // What it stands on comes first, from the lowest up, so that a tall stack is no deep recursion.
    if (tie.kind === 'stacked' && !known.has(id)) {
      const below: string[] = []
      const seen = new Set([id])
      for (let on: string | undefined = tie.on; on !== undefined && !known.has(on) && !seen.has(on);) {
        below.push(on)
        seen.add(on)
        const t: Level['tie'] | undefined = scheme?.levels[on]?.tie
        on = t?.kind === 'stacked' ? t.on : undefined
      }
      if (below.length > 1) for (const on of below.reverse()) if (!under.has(on)) height(on)
    }
    return once(level, () => tidy(tie.kind === 'fixed' ? length(tie.height) : height(tie.on) + length(tie.above)))
  }
  const numbers: Numbers = {
    value,
    length,
    angle: (n) => value(n, 'angle'),
    height,
    profile: (id) => project.profiles[id] ?? null,
  }
  return numbers
}

/**
 * What a person typed, as a number to store and its value: names become references, units are said, pure arithmetic becomes a number. `rule`: whose
 * steps it is typed in; what they give counts as 1 in the value.
 */
export function readTyped(
  text: string,
  quantity: Quantity,
  project: Project,
  scheme: Scheme | null,
  rule: string | null = null,
): { num: Num; value: number } {
  const given = new Map(
    Object.values(scheme?.rules ?? {})
      .filter((r) => r.id === rule)
      .flatMap((r) => givenIn(r).map((g): [string, Given] => [g.id, { ...g, value: 1 }])),
  )
  const numbers = numbersOf(project, scheme, given)
  const plain = fieldUnit('length', project.unit)
  let refers = false
  const bind = (n: Node): Node => {
    switch (n.node) {
      case 'name':
        refers = true
        return {
          node: 'ref',
          id:
            [...given].find(([, g]) => g.name.toLowerCase() === n.name.toLowerCase())?.[0] ??
            findNamed(project, scheme, n).thing.id,
        }
      case 'ref':
        refers = true
        return n
      case 'number':
        return n
      case 'unit':
      case 'negate':
        return { ...n, of: bind(n.of) }
      case 'call':
        return { ...n, args: n.args.map(bind) }
      case 'binary':
        return { ...n, left: bind(n.left), right: bind(n.right) }
    }
  }
  const tree = bind(parseFormula(withRefs(text, project, scheme)))
  const lookUp = (ref: { id: string } | { name: string }): Measure => {
    const named = findNamed(project, scheme, ref)
    const of: Quantity =
      named.is === 'dial' || named.is === 'given'
        ? named.thing.quantity
        : named.is === 'level'
          ? 'length'
          : MEASURES[named.thing.kind].quantity
    return { value: numbers.value({ formula: `{${named.thing.id}}` }, of), ...DIMENSIONS[of], bare: of === 'number' }
  }
  const value = asQuantity(evaluate(tree, plain, lookUp), quantity, project.unit)
  if (!refers) return { num: value, value }
  return {
    num: { formula: printFormula(sayUnits(tree, plain, lookUp), (ref) => ('id' in ref ? `{${ref.id}}` : ref.name)) },
    value,
  }
}

/** A stored formula as a person reads it, with names for references. */
export function showFormula(formula: string, project: Project, scheme: Scheme | null): string {
  return printFormula(parsed(formula), (ref) => {
    try {
      return findNamed(project, scheme, ref).thing.name
    } catch (e) {
      if (e instanceof Refusal) return '?'
      throw e
    }
  })
}

/** The ids that a formula refers to. */
export function refsIn(num: Num): string[] {
  return typeof num === 'number' ? [] : [...num.formula.matchAll(/\{([0-9a-zA-Z-]+)\}/g)].map((m) => m[1] ?? '')
}

/** m */
const LONGEST = 1e8

const DIMENSIONS: Record<Quantity, { length: number; angle: number }> = {
  length: { length: 1, angle: 0 },
  area: { length: 2, angle: 0 },
  angle: { length: 0, angle: 1 },
  number: { length: 0, angle: 0 },
}

const trees = new Map<string, Node>()
function parsed(formula: string): Node {
  let tree = trees.get(formula)
  if (!tree) {
    if (trees.size > 5000) trees.clear()
    trees.set(formula, (tree = parseFormula(formula)))
  }
  return tree
}

type Named =
  | { is: 'given'; thing: { id: string; name: string; quantity: Quantity } }
  | { is: 'dial'; thing: Dial }
  | { is: 'level'; thing: Level }
  | { is: 'measure'; thing: KeptMeasure }

function findNamed(project: Project, scheme: Scheme | null, ref: { id: string } | { name: string }): Named {
  if ('id' in ref) {
    const dial = thingOf(scheme?.dials, ref.id) ?? thingOf(project.dials, ref.id)
    if (dial) return { is: 'dial', thing: dial }
    const level = thingOf(scheme?.levels, ref.id)
    if (level) return { is: 'level', thing: level }
    const given = Object.values(scheme?.rules ?? {})
      .flatMap(givenIn)
      .find((g) => g.id === ref.id)
    if (given) return { is: 'given', thing: given }
    const measure = thingOf(project.measures, ref.id)
    return measure
      ? { is: 'measure', thing: measure }
      : refuse(
          'unknown-id',
          'A formula refers to a dial, level or measure that is not there.',
          'Type the formula again, or bring it back.',
        )
  }
  const byName = <T extends { name: string }>(things: Record<string, T> | undefined) =>
    Object.values(things ?? {}).find((d) => d.name.toLowerCase() === ref.name.toLowerCase())
  const dial = byName(scheme?.dials) ?? byName(project.dials)
  if (dial) return { is: 'dial', thing: dial }
  const level = byName(scheme?.levels)
  if (level) return { is: 'level', thing: level }
  const measure = byName(project.measures)
  return measure
    ? { is: 'measure', thing: measure }
    : refuse(
        'formula',
        `"${ref.name}" is not a dial, level or measure of this project, nor a unit.`,
        'Make a dial of that name, or type a number.',
      )
}

/** What was typed with the names of more than one word ("Storey 3 + 3.65") as references, the longest names first. */
function withRefs(text: string, project: Project, scheme: Scheme | null): string {
  const long = [...Object.values(scheme?.levels ?? {}), ...Object.values(project.measures)]
    .filter(
      (t) =>
        /\p{L}/u.test(t.name) &&
        !/^\p{L}[\p{L}\p{N}_]*$/u.test(t.name) &&
        text.toLowerCase().includes(t.name.toLowerCase()),
    )
    .sort((a, b) => b.name.length - a.name.length)
  return long.reduce(
    (now, t) =>
      now.replace(
        new RegExp(`(?<![\\p{L}\\p{N}_{-])${t.name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(?![\\p{L}\\p{N}_}])`, 'giu'),
        `{${t.id}}`,
      ),
    text,
  )
}
