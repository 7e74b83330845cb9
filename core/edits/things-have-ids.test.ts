import { expect, it } from 'vitest'
import { ProjectSchema } from '../project'

/** What the schemas of Valibot have in common, as far as a walk needs it. */
interface Node {
  type?: string
  entries?: Record<string, Node>
  options?: unknown[]
  item?: Node
  items?: Node[]
  value?: Node
  wrapped?: Node
  pipe?: Node[]
  getter?: (input: unknown) => Node
}

/** The lists of a schema whose items are groups of values, by their places, each with the fields of its items. */
function listsOfThings(schema: Node): Map<string, string[][]> {
  const found = new Map<string, string[][]>()
  const seen = new Set<Node>()
  const walk = (node: Node, place: string) => {
    if (seen.has(node)) return
    seen.add(node)
    if (node.item) {
      const fields = fieldsOf(node.item)
      if (fields.length) found.set(place, fields)
      walk(node.item, `${place}[]`)
    }
    for (const [i, item] of (node.items ?? []).entries()) walk(item, `${place}.${i}`)
    for (const [key, entry] of Object.entries(node.entries ?? {})) walk(entry, `${place}.${key}`)
    for (const option of node.options ?? []) if (typeof option === 'object') walk(option as Node, place)
    if (node.value && typeof node.value === 'object') walk(node.value, `${place}{}`)
    if (node.wrapped) walk(node.wrapped, place)
    for (const part of node.pipe ?? []) walk(part, place)
    if (node.getter) walk(node.getter({ move: 'raise' }), place)
  }
  walk(schema, '')
  return found
}

/** The fields of what an item may be; nothing for plain values and lists of them. */
function fieldsOf(node: Node): string[][] {
  if (node.entries) return [Object.keys(node.entries)]
  if (node.getter) return fieldsOf(node.getter({ move: 'raise' }))
  if (node.wrapped) return fieldsOf(node.wrapped)
  if (node.pipe && node.pipe[0] !== node) return fieldsOf(node.pipe[0] ?? {})
  return (node.options ?? []).flatMap((o) => (typeof o === 'object' ? fieldsOf(o as Node) : []))
}

/** Lists that are one value, made and replaced as a whole: the outlines that a trace found, the faces of a body from a file. */
const ONE_VALUE = ['.traces{}.loops', '.schemes{}.masses{}.recipe[].faces']

it('every thing in a list of a project has an id, so that two persons never mean each other by its place', () => {
  const lists = listsOfThings(ProjectSchema as unknown as Node)
  expect(lists.size).toBeGreaterThan(15)
  const without = [...lists]
    .filter(([, items]) => items.some((fields) => !fields.includes('id')))
    .map(([place]) => place)
  expect(without).toEqual(ONE_VALUE)
  // The walk itself sees a list of things without ids.
  expect(listsOfThings({ entries: { a: { item: { entries: { name: {} } } } } }).get('.a')).toEqual([['name']])
})
