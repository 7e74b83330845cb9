import type { Edit } from '../edits'
import { freeName, namesOf, nextOrder, type Id, type Project, type Scheme } from '../project'

/** A copy of a scheme with the ids of its things, so that the two can be compared. Scheme A is followed by Scheme B, any other by "name, 2". */
export function duplicateScheme(project: Project, scheme: Scheme, id: Id, wish?: string): Edit {
  const names = namesOf(project.schemes)
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'.split('').map((l) => `Scheme ${l}`)
  const taken = new Set(names.map((n) => n.toLowerCase()))
  const letter = /^Scheme [A-Z]$/.test(scheme.name) ? letters.find((l) => !taken.has(l.toLowerCase())) : undefined
  const name = wish ?? letter ?? freeName(`${scheme.name}, 2`, names, (_, n) => `${scheme.name}, ${n + 1}`)
  return { edit: 'scheme.add', thing: { ...scheme, id, name, order: nextOrder(project.schemes) } }
}
