import { evaluate, FUNCTIONS, type Measure, type Node } from './formula'

/** Gives every plain number that is added to a length its unit, so that changing the project's unit changes no meaning. */
export function sayUnits(
  node: Node,
  plainUnit: string,
  lookUp: (ref: { id: string } | { name: string }) => Measure,
): Node {
  const measure = (n: Node) => evaluate(n, plainUnit, lookUp)
  const isLength = (m: Measure) => !m.bare && m.length === 1 && m.angle === 0
  const walk = (n: Node): Node => {
    if (n.node === 'binary') {
      const [left, right] = [walk(n.left), walk(n.right)]
      if (n.op === '*' || n.op === '/') return { ...n, left, right }
      const [a, b] = [measure(left), measure(right)]
      return {
        ...n,
        left: a.bare && isLength(b) ? { node: 'unit', of: left, unit: plainUnit } : left,
        right: b.bare && isLength(a) ? { node: 'unit', of: right, unit: plainUnit } : right,
      }
    }
    if (n.node === 'negate') return { ...n, of: walk(n.of) }
    if (n.node === 'call') {
      const args = n.args.map(walk)
      // What is compared with a length is one.
      return {
        ...n,
        args:
          args.some((a) => isLength(measure(a))) && FUNCTIONS[n.name] === 2
            ? args.map((a): Node => (measure(a).bare ? { node: 'unit', of: a, unit: plainUnit } : a))
            : args,
      }
    }
    return n
  }
  return walk(node)
}
