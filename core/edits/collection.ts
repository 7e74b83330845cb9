import * as v from 'valibot'
import { IdSchema, refuse, type Project, type Scheme } from '../project'

/** What applying an edit gives: the new project, and the edit that takes it back. */
export interface Applied<E> {
  project: Project
  readonly inverse: E
}

/** A family of edits: its schema, and how one is applied. Pure: no kernel, no clock, no chance. */
export interface Family<E> {
  schema: v.GenericSchema<unknown, E>
  apply(project: Project, edit: E, fresh: Fresh): Project
  /** where that lies which an edit that sets fields sets them of; none: it sets none */
  place?(edit: E): string[]
}

/**
 * The collections that were made within the batch under way: nobody else has them yet, so they are changed in place. Without
 * this a batch of n additions would copy n collections.
 */
export type Fresh = WeakSet<object>

type Thing = { id: string }
type Fields<T> = Partial<Omit<T, 'id'>>

export type CollectionEdit<N extends string, T extends Thing> =
  | { edit: `${N}.add`; thing: T }
  | { edit: `${N}.change`; id: string; set: Fields<T> }
  | { edit: `${N}.remove`; id: string }

export type SchemeEdit<N extends string, T extends Thing> = CollectionEdit<N, T> & { scheme: string }

type CollectionKey =
  'uses' | 'dials' | 'buildUps' | 'materials' | 'neighbours' | 'pictures' | 'measures' | 'traces' | 'schemes'

/** add, change (field by field) and remove for a collection of the project. */
export function projectCollection<N extends string, T extends Thing>(
  name: N,
  schema: v.StrictObjectSchema<v.ObjectEntries, undefined>,
  key: CollectionKey,
): Family<CollectionEdit<N, T>> {
  return {
    schema: v.variant('edit', shapes(name, schema, {})) as unknown as v.GenericSchema<unknown, CollectionEdit<N, T>>,
    apply: (project, edit, fresh) => {
      const things = applyTo<N, T>(name, project[key] as unknown as Record<string, T>, edit, fresh)
      return { ...project, [key]: things }
    },
    place: (edit) => [key, 'thing' in edit ? edit.thing.id : edit.id],
  }
}

/** The same for a collection of a scheme; each edit names the scheme. */
export function schemeCollection<N extends string, T extends Thing>(
  name: N,
  schema: v.StrictObjectSchema<v.ObjectEntries, undefined>,
  key: 'dials' | 'levels' | 'masses' | 'parts' | 'wings' | 'views' | 'mutes',
): Family<SchemeEdit<N, T>> {
  return {
    schema: v.variant('edit', shapes(name, schema, { scheme: IdSchema })) as unknown as v.GenericSchema<
      unknown,
      SchemeEdit<N, T>
    >,
    apply: (project, edit, fresh) => {
      const scheme = schemeOf(project, edit.scheme)
      const things = applyTo<N, T>(name, scheme[key] as unknown as Record<string, T>, edit, fresh)
      return { ...project, schemes: { ...project.schemes, [scheme.id]: { ...scheme, [key]: things } } }
    },
    place: (edit) => ['schemes', edit.scheme, key, 'thing' in edit ? edit.thing.id : edit.id],
  }
}

export function schemeOf(project: Project, id: string): Scheme {
  return (
    project.schemes[id] ??
    refuse('unknown-id', `There is no scheme with the id "${id}".`, 'Reload the project and choose one of its schemes.')
  )
}

function shapes(name: string, schema: v.StrictObjectSchema<v.ObjectEntries, undefined>, scope: v.ObjectEntries) {
  const { id, ...fields } = schema.entries
  return [
    v.strictObject({ edit: v.literal(`${name}.add`), ...scope, thing: schema }),
    v.strictObject({
      edit: v.literal(`${name}.change`),
      ...scope,
      id: id as v.GenericSchema,
      set: v.partial(v.strictObject(fields)),
    }),
    v.strictObject({ edit: v.literal(`${name}.remove`), ...scope, id: id as v.GenericSchema }),
  ] as const
}

function applyTo<N extends string, T extends Thing>(
  name: N,
  before: Record<string, T>,
  edit: CollectionEdit<N, T>,
  fresh: Fresh,
): Record<string, T> {
  const id = 'thing' in edit ? edit.thing.id : edit.id
  const old = Object.hasOwn(before, id) ? before[id] : undefined
  if ('thing' in edit) {
    if (old) refuse('id-taken', `There is a ${name} with the id "${id}" already.`, 'Mint a new id.')
    const things = writable(before, fresh)
    things[id] = edit.thing
    return things
  }
  if (!old)
    return refuse(
      'unknown-id',
      `There is no ${name} with the id "${id}"; it may have been removed meanwhile.`,
      `Choose a ${name} that is there.`,
    )
  const things = writable(before, fresh)
  if ('set' in edit) {
    things[id] = { ...old, ...edit.set }
    return things
  }
  delete things[id]
  return things
}

function writable<T>(things: Record<string, T>, fresh: Fresh): Record<string, T> {
  if (fresh.has(things)) return things
  const copy = { ...things }
  fresh.add(copy)
  return copy
}
