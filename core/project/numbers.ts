import { asQuantity, evaluate, fieldUnit, parseFormula, printFormula, QUANTITY_NAMES, Refusal, refuse, sayUnits, type Measure, type Node, type Num, type Numbers, type Quantity } from '../values'
import type { Dial, Project, Scheme } from './schema'

/** The numbers of a scheme, then of the project. */
export function numbersOf(project: Project, scheme: Scheme | null): Numbers {
  const known = new Map<string, number>()
  const path: Dial[] = []
  const dialValue = (dial: Dial): number => {
    const ready = known.get(dial.id)
    if (ready !== undefined) return ready
    const from = path.findIndex((d) => d.id === dial.id)
    if (from >= 0) refuse('formula-circle', `The dials go round in a circle: ${[...path.slice(from), dial].map((d) => d.name).join(' -> ')}.`, 'Give one of them a plain number.')
    path.push(dial)
    const result = value(dial.value, dial.quantity)
    path.pop()
    known.set(dial.id, result)
    return result
  }
  const lookUp = (ref: { id: string } | { name: string }): Measure => {
    const dial = findDial(project, scheme, ref)
    return { value: dialValue(dial), ...DIMENSIONS[dial.quantity], bare: dial.quantity === 'number' }
  }
  const value = (num: Num, quantity: Quantity = 'length'): number => {
    if (typeof num === 'number') return num
    return asQuantity(evaluate(parsed(num.formula), fieldUnit('length', project.unit), lookUp), quantity, project.unit)
  }
  const length = (num: Num): number => {
    const metres = value(num, 'length')
    return Math.abs(metres) <= LONGEST ? metres : refuse('size', `A length of ${metres} m is more than a site can have.`, 'Check the number and its unit; coordinates up to 100,000 km are read.')
  }
  return { value, length, angle: (n) => value(n, 'angle') }
}

/** What a person typed, as a number to store and its value: names become references, units are said, pure arithmetic becomes a number. */
export function readTyped(text: string, quantity: Quantity, project: Project, scheme: Scheme | null): { num: Num; value: number } {
  const numbers = numbersOf(project, scheme)
  const plain = fieldUnit('length', project.unit)
  let refers = false
  const bind = (n: Node): Node => {
    switch (n.node) {
      case 'name': refers = true; return { node: 'ref', id: findDial(project, scheme, n).id }
      case 'ref': refers = true; return n
      case 'number': return n
      case 'unit': case 'negate': return { ...n, of: bind(n.of) }
      case 'call': return { ...n, args: n.args.map(bind) }
      case 'binary': return { ...n, left: bind(n.left), right: bind(n.right) }
    }
  }
  const tree = bind(parseFormula(text))
  const lookUp = (ref: { id: string } | { name: string }): Measure => {
    const dial = findDial(project, scheme, ref)
    return { value: numbers.value({ formula: `{${dial.id}}` }, dial.quantity), ...DIMENSIONS[dial.quantity], bare: dial.quantity === 'number' }
  }
  const value = asQuantity(evaluate(tree, plain, lookUp), quantity, project.unit)
  if (!refers) return { num: value, value }
  return { num: { formula: printFormula(sayUnits(tree, plain, lookUp), (ref) => ('id' in ref ? `{${ref.id}}` : ref.name)) }, value }
}

/** A stored formula as a person reads it, with names for references. */
export function showFormula(formula: string, project: Project, scheme: Scheme | null): string {
  return printFormula(parsed(formula), (ref) => {
    try { return findDial(project, scheme, ref).name } catch (e) { if (e instanceof Refusal) return '?'; throw e }
  })
}

/** The ids that a formula refers to. */
export function refsIn(num: Num): string[] {
  return typeof num === 'number' ? [] : [...num.formula.matchAll(/\{([0-9a-zA-Z-]+)\}/g)].map((m) => m[1] ?? '')
}

/** m */
const LONGEST = 1e8

const DIMENSIONS: Record<Quantity, { length: number; angle: number }> = {
  length: { length: 1, angle: 0 }, area: { length: 2, angle: 0 }, angle: { length: 0, angle: 1 }, number: { length: 0, angle: 0 },
}

const trees = new Map<string, Node>()
function parsed(formula: string): Node {
  let tree = trees.get(formula)
  if (!tree) { if (trees.size > 5000) trees.clear(); trees.set(formula, tree = parseFormula(formula)) }
  return tree
}

function findDial(project: Project, scheme: Scheme | null, ref: { id: string } | { name: string }): Dial {
  if ('id' in ref) {
    return scheme?.dials[ref.id] ?? project.dials[ref.id] ?? refuse('unknown-id', 'A formula refers to a dial that is not there.', 'Type the formula again, or bring the dial back.')
  }
  const byName = (dials: Record<string, Dial>) => Object.values(dials).find((d) => d.name.toLowerCase() === ref.name.toLowerCase())
  return (scheme && byName(scheme.dials)) ?? byName(project.dials) ?? refuse('formula', `"${ref.name}" is not a dial of this project, nor a unit.`, `Make a dial of that name, or type ${QUANTITY_NAMES.length} like 3.15.`)
}
