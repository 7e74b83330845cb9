import { tokenize } from './formula-text'
import { refuse } from './refusal'
import { QUANTITY_NAMES, type Quantity, type Unit } from './schemas'
import { UNITS, fieldUnit, tidy } from './units'

/**
 * Formulas: + - * / and brackets, numbers with or without units, the names of dials, and a few functions.
 * Nothing is ever handed to the language's own evaluator; depth and length are bounded.
 */
export type Node =
  | { node: 'number'; value: number }
  | { node: 'unit'; of: Node; unit: string }
  | { node: 'name'; name: string }
  | { node: 'ref'; id: string }
  | { node: 'negate'; of: Node }
  | { node: 'binary'; op: '+' | '-' | '*' | '/'; left: Node; right: Node }
  | { node: 'call'; name: keyof typeof FUNCTIONS; args: Node[] }

export const FUNCTIONS = { min: 2, max: 2, sqrt: 1, sin: 1, cos: 1, tan: 1 } as const
const DEPTH = 40
const RADIANS = Math.PI / 180

/** A value with its dimension; bare when it carries no unit yet, and so may still take the field's. */
export interface Measure {
  value: number
  length: number
  angle: number
  bare: boolean
}

/** Text to syntax tree. Errors: 'formula' with the place and what was expected. */
export function parseFormula(text: string): Node {
  const tokens = tokenize(text)
  let at = 0
  let depth = 0
  const peek = () => tokens[at]
  const take = (text?: string) => {
    const token = tokens[at]
    if (!token || (text !== undefined && token.text !== text))
      return refuse(
        'formula',
        `"${text ?? 'a value'}" is missing ${token ? `before "${token.text}"` : 'at the end'}.`,
        'Complete the formula: a sign stands between two numbers or names.',
      )
    at++
    return token
  }
  const sum = (): Node => {
    if (++depth > DEPTH) refuse('formula', 'The formula nests too deeply.', 'Split it over several dials.')
    let left = product()
    while (peek()?.text === '+' || peek()?.text === '-')
      left = { node: 'binary', op: take().text as '+' | '-', left, right: product() }
    depth--
    return left
  }
  const product = (): Node => {
    let left = unary()
    while (peek()?.text === '*' || peek()?.text === '/')
      left = { node: 'binary', op: take().text as '*' | '/', left, right: unary() }
    return left
  }
  const unary = (): Node => {
    let minus = false
    while (peek()?.text === '-' || peek()?.text === '+') {
      if (take().text === '-') minus = !minus
    }
    const of = measured()
    return minus ? { node: 'negate', of } : of
  }
  const measured = (): Node => {
    const of = primary()
    const next = peek()
    const takesUnit = of.node === 'number' || of.node === 'binary' || of.node === 'negate'
    if (!takesUnit || next?.kind !== 'word' || !UNITS[next.text]) return of
    const unit = take().text
    const second = peek()
    if (second?.kind === 'word' && UNITS[second.text])
      refuse('formula', `"${second.text}" stands behind a value that has a unit already.`, 'Leave one unit out.')
    return { node: 'unit', of, unit }
  }
  const primary = (): Node => {
    const token = take()
    if (token.kind === 'number') return { node: 'number', value: Number(token.text) }
    if (token.kind === 'inches') return { node: 'unit', of: { node: 'number', value: Number(token.text) }, unit: 'in' }
    if (token.kind === 'ref') return { node: 'ref', id: token.text }
    if (token.kind === 'word') {
      if (peek()?.text === '(' && Object.hasOwn(FUNCTIONS, token.text)) {
        const name = token.text as keyof typeof FUNCTIONS
        take('(')
        const args = [sum()]
        while (peek()?.text === ',' || peek()?.text === ';') {
          take()
          args.push(sum())
        }
        take(')')
        if (args.length !== FUNCTIONS[name])
          refuse(
            'formula',
            `"${name}" takes ${FUNCTIONS[name] === 1 ? 'one value' : 'two values'}.`,
            `Write ${name}(a${FUNCTIONS[name] === 2 ? ', b' : ''}).`,
          )
        return { node: 'call', name, args }
      }
      if (UNITS[token.text])
        refuse(
          'formula',
          `"${token.text}" is a unit and needs a number before it.`,
          `Write, for example, 300 ${token.text}.`,
        )
      return { node: 'name', name: token.text }
    }
    if (token.text === '(') {
      const inner = sum()
      take(')')
      return inner
    }
    return refuse('formula', `"${token.text}" cannot stand there.`, "Write a number, a dial's name or a bracket.")
  }
  const tree = sum()
  const rest = peek()
  if (rest)
    refuse(
      'formula',
      `"${rest.text}" cannot stand after a complete value.`,
      rest.kind === 'word'
        ? 'Is it a unit? m, mm, cm, ft, in, m2, ft2 and deg are known.'
        : 'Put +, -, * or / between two values.',
    )
  return tree
}

/** The value of a tree. `lookUp` gives the measure of a reference; a plain number beside a length takes the plain unit. */
export function evaluate(
  node: Node,
  plainUnit: string,
  lookUp: (ref: { id: string } | { name: string }) => Measure,
): Measure {
  const walk = (n: Node): Measure => {
    switch (n.node) {
      case 'number':
        return { value: n.value, length: 0, angle: 0, bare: true }
      case 'name':
        return lookUp({ name: n.name })
      case 'ref':
        return lookUp({ id: n.id })
      case 'negate': {
        const m = walk(n.of)
        return { ...m, value: -m.value }
      }
      case 'unit': {
        const m = walk(n.of)
        const unit = UNITS[n.unit]
        if (!unit || !m.bare)
          return refuse('formula', `"${n.unit}" stands behind a value that has a unit already.`, 'Leave the unit out.')
        return { value: m.value * unit.factor, length: unit.length, angle: unit.angle, bare: false }
      }
      case 'call':
        return call(n.name, n.args.map(walk), plainUnit)
      case 'binary':
        return combine(n.op, walk(n.left), walk(n.right))
    }
  }
  const combine = (op: string, a: Measure, b: Measure): Measure => {
    if (op === '*')
      return { value: a.value * b.value, length: a.length + b.length, angle: a.angle + b.angle, bare: a.bare && b.bare }
    if (op === '/') {
      if (b.value === 0) refuse('formula', 'The formula divides by zero.', 'Change the divisor.')
      return { value: a.value / b.value, length: a.length - b.length, angle: a.angle - b.angle, bare: a.bare && b.bare }
    }
    if (a.bare !== b.bare) {
      if (a.bare) a = asUnit(a, b, plainUnit)
      else b = asUnit(b, a, plainUnit)
    }
    if (a.length !== b.length || a.angle !== b.angle)
      refuse('formula', `The formula adds ${nameOf(a)} to ${nameOf(b)}.`, 'Add only like to like.')
    return { ...a, value: op === '+' ? a.value + b.value : a.value - b.value }
  }
  const result = walk(node)
  if (!Number.isFinite(result.value))
    refuse('formula', 'The formula gives no finite number.', 'Check its divisors and roots.')
  return { ...result, value: tidy(result.value) }
}

/** A field's value from what its formula measures. Errors: 'formula' when the dimension is another. */
export function asQuantity(m: Measure, quantity: Quantity, unit: Unit): number {
  const want = { length: quantity === 'length' ? 1 : quantity === 'area' ? 2 : 0, angle: quantity === 'angle' ? 1 : 0 }
  if (m.bare) return tidy(m.value * (UNITS[fieldUnit(quantity, unit)]?.factor ?? 1))
  if (m.length !== want.length || m.angle !== want.angle)
    refuse(
      'formula',
      `The formula gives ${nameOf(m)}, the field wants ${QUANTITY_NAMES[quantity]}.`,
      'Change the units, or multiply by a plain number.',
    )
  return m.value
}

/** The tree as text again; `show` writes a reference, and bare sums beside lengths get the plain unit said. */
export function printFormula(node: Node, show: (ref: { id: string } | { name: string }) => string): string {
  switch (node.node) {
    case 'number':
      return String(node.value)
    case 'name':
      return show({ name: node.name })
    case 'ref':
      return show({ id: node.id })
    case 'negate':
      return `-${wrap(node.of, show)}`
    case 'unit':
      return `${wrap(node.of, show)} ${node.unit}`
    case 'call':
      return `${node.name}(${node.args.map((a) => printFormula(a, show)).join(', ')})`
    case 'binary':
      return `${wrapIf(node.left, node.op, false, show)} ${node.op} ${wrapIf(node.right, node.op, true, show)}`
  }
}

const nameOf = (m: Measure): string =>
  m.angle === 1 && m.length === 0
    ? 'an angle'
    : m.length === 1
      ? 'a length'
      : m.length === 2
        ? 'an area'
        : m.length === 0
          ? 'a plain number'
          : 'a value of another kind'

const asUnit = (bare: Measure, like: Measure, plainUnit: string): Measure => ({
  value: bare.value * (like.length === 1 ? (UNITS[plainUnit]?.factor ?? 1) : 1),
  length: like.length,
  angle: like.angle,
  bare: false,
})

const wrap = (n: Node, show: Parameters<typeof printFormula>[1]) =>
  n.node === 'binary' || n.node === 'negate' ? `(${printFormula(n, show)})` : printFormula(n, show)
const wrapIf = (n: Node, op: string, right: boolean, show: Parameters<typeof printFormula>[1]) => {
  const loose =
    n.node === 'binary' &&
    ((op !== '+' && (n.op === '+' || n.op === '-' || right)) || (op === '-' && right && (n.op === '+' || n.op === '-')))
  return loose || n.node === 'negate' ? `(${printFormula(n, show)})` : printFormula(n, show)
}

function call(name: keyof typeof FUNCTIONS, args: Measure[], plainUnit: string): Measure {
  let [a, b] = args as [Measure, Measure]
  switch (name) {
    case 'min':
    case 'max':
      if (a.bare !== b.bare) {
        if (a.bare) a = asUnit(a, b, plainUnit)
        else b = asUnit(b, a, plainUnit)
      }
      if (a.length !== b.length || a.angle !== b.angle)
        refuse('formula', `"${name}" compares ${nameOf(a)} with ${nameOf(b)}.`, 'Give both the same unit.')
      return { ...a, value: Math[name](a.value, b.value) }
    case 'sqrt':
      return { ...a, value: Math.sqrt(a.value), length: a.length / 2 }
    case 'sin':
    case 'cos':
    case 'tan':
      return { value: Math[name](a.value * RADIANS), length: 0, angle: 0, bare: true }
  }
}
