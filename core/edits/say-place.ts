import { isDict, PROJECT_COLLECTIONS, SCHEME_COLLECTIONS, type Project } from '../project'
import { keysOf } from './difference'

type Container = Record<string, unknown> | unknown[]

/** The value of a field, or the thing of that id in a list. */
export const get = (container: Container, key: string): unknown =>
  Array.isArray(container)
    ? container[indexOf(container, key)]
    : Object.hasOwn(container, key)
      ? container[key]
      : undefined

/** The place in a list of the thing of that id; in a list of anything else, the place that is said. -1: it is not there. */
export function indexOf(list: unknown[], key: string): number {
  const keys = keysOf(list)
  return keys ? keys.indexOf(key) : /^\d+$/.test(key) ? Number(key) : -1
}

/** What one of a collection is called, and what fields are called whose names in the file are no words. */
const WORDS: Record<string, string> = {
  ...Object.fromEntries(
    Object.entries({ ...PROJECT_COLLECTIONS, ...SCHEME_COLLECTIONS }).map(([key, { one }]) => [
      key,
      one.replace(/^project-/, '').replace(/-/g, ' '),
    ]),
  ),
  schemes: 'scheme',
  plateEdits: 'change of a plate',
  mutes: 'finding that was left',
  brief: 'line of the brief',
  layers: 'layer',
  custom: 'field of your own',
  recipe: 'move',
  corners: 'corner',
  buildUp: 'build-up',
  takes: 'storeys',
  tie: 'height',
}

/** A place in a project by the names of its things: 'The height of the raise of "Bar"'; never by ids. */
export function sayPlace(project: Project, at: string[]): string {
  let here: unknown = project
  let [name, words]: [string, string[]] = [project.name, []]
  for (const key of at) {
    here = typeof here === 'object' && here !== null ? get(here as Container, key) : undefined
    if (isDict(here) && typeof here.name === 'string' && here.name) [name, words] = [here.name, []]
    else if (isDict(here) && typeof here.move === 'string') words = [here.move.replace(/-/g, ' ')]
    else if (/^[a-z][a-zA-Z]*$/.test(key)) words.push(WORDS[key] ?? key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`))
  }
  const what = words.slice(-2).reverse().join(' of the ')
  return what ? `The ${what} of "${name}"` : `"${name}"`
}
