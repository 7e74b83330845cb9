import * as v from 'valibot'
import { parseWith, ProjectSchema, refuse, SchemeSchema, type Project } from '../project'
import type { Family, Run } from './collection'
import { foundOf, keysOf, sameFound, type Change, type LeafChange, type OrderChange } from './difference'
import { get, indexOf, sayPlace } from './say-place'

/**
 * Changes leaf by leaf, each with what it expects to find: what an edit becomes when it is made on a state that others may have left
 * behind, and what takes an edit back. Refused as a whole where something is not as it is expected ('changed').
 */
export interface PatchEdit {
  edit: 'patch'
  changes: Change[]
}

const PathSchema = v.pipe(
  v.array(v.pipe(v.string(), v.maxLength(400), v.notValue('__proto__'))),
  v.minLength(1),
  v.maxLength(200),
)
const PlainSchema = v.nullable(v.union([v.string(), v.number(), v.boolean()]))
const ChangeSchema = v.union([
  v.strictObject({
    at: PathSchema,
    was: v.nullable(
      v.union([v.strictObject({ is: PlainSchema }), v.strictObject({ sign: v.pipe(v.string(), v.maxLength(40)) })]),
    ),
    to: v.nullable(v.strictObject({ is: v.unknown() })),
  }),
  v.strictObject({ at: PathSchema, order: v.strictObject({ was: v.array(v.string()), to: v.array(v.string()) }) }),
])

export const patchEdits: Family<PatchEdit> = {
  schema: v.strictObject({ edit: v.literal('patch'), changes: v.array(ChangeSchema) }) as v.GenericSchema<
    unknown,
    PatchEdit
  >,
  apply: (project, { changes }, run) => {
    if (changes.some((c) => c.at[0] === 'id'))
      refuse('edit', "A project's id stays what it is.", 'Import it as a project of its own.')
    const fresh = new WeakSet<object>()
    const next = writable(project as unknown as Container, fresh)
    for (const change of changes) {
      const [holder, key] = holderOf(project, next, change, fresh)
      if ('order' in change) reorder(project, holder, key, change)
      else put(project, holder, key, change, run)
    }
    parsed(next, changes)
    return next as unknown as Project
  },
}

type Container = Record<string, unknown> | unknown[]

/** The container itself where it was made for this patch, else a copy. */
function writable<C extends Container>(container: C, fresh: WeakSet<object>): C {
  if (fresh.has(container)) return container
  const copy = (Array.isArray(container) ? [...container] : { ...container }) as C
  fresh.add(copy)
  return copy
}

/** The container of the last step of the way, writable; on the way there it is copied where it is shared. */
function holderOf(
  project: Project,
  root: Container,
  { at }: Change,
  fresh: WeakSet<object>,
): [holder: Container, key: string] {
  let holder = root
  for (const [i, key] of at.slice(0, -1).entries()) {
    const inner = get(holder, key)
    if (typeof inner !== 'object' || inner === null) return changed(project, at.slice(0, i + 1))
    const copy = writable(inner as Container, fresh)
    set(holder, key, copy)
    holder = copy
  }
  return [holder, at.at(-1) ?? '']
}

function set(container: Container, key: string, value: unknown): void {
  if (!Array.isArray(container)) {
    container[key] = value
    return
  }
  const i = indexOf(container, key)
  if (i >= 0) container[i] = value
  else container.push(value)
}

function put(project: Project, holder: Container, key: string, { at, was, to }: LeafChange, run: Run): void {
  if (!run.isLogged && !sameFound(foundOf(get(holder, key)), was)) changed(project, at)
  if (to) set(holder, key, to.is)
  else if (Array.isArray(holder)) holder.splice(indexOf(holder, key), 1)
  else delete holder[key]
}

/** Brings a list into the order that is meant; what others have put in since stays behind what it stood behind. */
function reorder(project: Project, holder: Container, key: string, { at, order }: OrderChange): void {
  const list = get(holder, key)
  const present = Array.isArray(list) ? keysOf(list) : null
  if (!Array.isArray(list) || !present) return changed(project, at)
  const things = new Map(present.map((k, i) => [k, list[i] as unknown]))
  const [was, to] = [new Set(order.was), new Set(order.to)]
  const both = (keys: string[]) => keys.filter((k) => was.has(k) && to.has(k) && things.has(k))
  let now = present.filter((k) => was.has(k) || !to.has(k))
  if (both(order.was).join('\n') !== both(order.to).join('\n')) {
    if (both(now).join('\n') !== both(order.was).join('\n')) changed(project, at)
    const meant = both(order.to)
    now = now.map((k) => (was.has(k) && to.has(k) ? (meant.shift() ?? k) : k))
  }
  order.to.forEach((k, i) => {
    if (was.has(k) || !things.has(k)) return
    const before = order.to.slice(0, i).findLast((p) => now.includes(p))
    now.splice(before === undefined ? 0 : now.indexOf(before) + 1, 0, k)
  })
  set(
    holder,
    key,
    now.map((k) => things.get(k)),
  )
}

/**
 * What was put in, read by the schemas of what it lies in: nothing gets in that they would not let in. What holds it was copied for this
 * patch, and is written to in place.
 */
function parsed(project: Container, changes: Change[]): void {
  const touched = new Map(changes.map(({ at }) => [placeOf(at).join('\n'), placeOf(at)]))
  for (const place of touched.values()) {
    const schema = schemaAt(place)
    const holder = place.slice(0, -1).reduce((h, key) => get(h, key) as Container, project) as Record<string, unknown>
    const key = place.at(-1) as string
    if (Object.hasOwn(holder, key))
      holder[key] = parseWith(schema, holder[key], 'edit', `${sayPlace(asProject(project), place)} cannot be so`)
  }
}

const asProject = (project: Container) => project as unknown as Project

/** The thing, or the field of the project or of a scheme, that a way leads into. */
function placeOf(at: string[]): string[] {
  const inScheme = at[0] === 'schemes' && at.length > 2
  const field = inScheme ? fieldOf(SchemeSchema, at[2]) : fieldOf(ProjectSchema, at[0])
  const depth = (inScheme ? 3 : 1) + ('value' in field ? 1 : 0)
  return at.slice(0, depth)
}

function schemaAt(place: string[]): v.GenericSchema {
  const inScheme = place[0] === 'schemes' && place.length > 2
  const field = inScheme ? fieldOf(SchemeSchema, place[2]) : fieldOf(ProjectSchema, place[0])
  return ('value' in field && place.length === (inScheme ? 4 : 2) ? field.value : field) as v.GenericSchema
}

/** The schema of a field, a record's where it has a default. */
function fieldOf(schema: { entries: Record<string, unknown> }, name = ''): object {
  const found =
    (Object.hasOwn(schema.entries, name) ? (schema.entries[name] as object) : undefined) ??
    refuse('edit', `There is no field "${name}" that could be changed.`, 'See docs/file-format.md.')
  const wrapped = (found as { wrapped?: object }).wrapped
  return wrapped && 'value' in wrapped ? wrapped : found
}

function changed(project: Project, at: string[]): never {
  return refuse(
    'changed',
    `${sayPlace(project, at)} is not as it was then: it has been changed since.`,
    'Look at it, and change it by hand.',
  )
}
