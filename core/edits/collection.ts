import * as v from 'valibot'
import {
  IdSchema,
  refuse,
  thingOf,
  type Collection,
  type Project,
  type ProjectCollections,
  type Scheme,
  type SchemeCollections,
} from '../project'

/** What applying an edit gives: the new project, and the edit that takes it back. */
export interface Applied<E> {
  project: Project
  readonly inverse: E
}

/** A family of edits: its schema, and how one is applied. Pure: no kernel, no clock, no chance. */
export interface Family<E> {
  schema: v.GenericSchema<unknown, E>
  apply(project: Project, edit: E, run: Run): Project
  /** where that lies which an edit that sets fields sets them of; none: it sets none */
  place?(edit: E): string[]
}

/** What the edits of one gesture have in common while they are applied. */
export interface Run {
  /**
   * The collections that were made within it: nobody else has them yet, so they are changed in place. Without this a batch of n
   * additions would copy n collections.
   */
  fresh: WeakSet<object>
  /** It stands in the log, where it was found to fit: what its patches expect is not looked for again. */
  isLogged: boolean
}

type Thing = { id: string }
type Fields<T> = Partial<Omit<T, 'id'>>

export type CollectionEdit<N extends string, T extends Thing> =
  | { edit: `${N}.add`; thing: T }
  | { edit: `${N}.change`; id: string; set: Fields<T> }
  | { edit: `${N}.remove`; id: string }

export type SchemeEdit<N extends string, T extends Thing> = CollectionEdit<N, T> & { scheme: string }

/** What is derived from a list of collections, by their keys. */
type Lists = Record<string, Collection>
type EditsOf<C extends Lists> = {
  [K in keyof C]: CollectionEdit<C[K]['one'], v.InferOutput<C[K]['thing']> & Thing>
}[keyof C]
type SchemeEditsOf<C extends Lists> = {
  [K in keyof C]: SchemeEdit<C[K]['one'], v.InferOutput<C[K]['thing']> & Thing>
}[keyof C]
export type ThingEdit =
  EditsOf<ProjectCollections> | SchemeEditsOf<SchemeCollections> | CollectionEdit<'scheme', Scheme>

type AnyEdit = CollectionEdit<string, Thing> & { scheme?: string }

/** Families of edits (add, change field by field, remove) for collections of the project, by the word for one of their things. */
export const projectFamilies = (collections: Lists): Record<string, Family<AnyEdit>> =>
  Object.fromEntries(
    Object.entries(collections).map(([key, { one, thing }]): [string, Family<AnyEdit>] => [
      one,
      {
        schema: v.variant('edit', shapes(one, thing, {})) as unknown as v.GenericSchema<unknown, AnyEdit>,
        apply: (project, edit, run) => ({ ...project, [key]: applyTo(one, thingsOf(project, key), edit, run) }),
        place: (edit) => [key, 'thing' in edit ? edit.thing.id : edit.id],
      },
    ]),
  )

/** The same for collections of a scheme; each edit names the scheme. */
export const schemeFamilies = (collections: Lists): Record<string, Family<AnyEdit>> =>
  Object.fromEntries(
    Object.entries(collections).map(([key, { one, thing }]): [string, Family<AnyEdit>] => [
      one,
      {
        schema: v.variant('edit', shapes(one, thing, { scheme: IdSchema })) as unknown as v.GenericSchema<
          unknown,
          AnyEdit
        >,
        apply: (project, edit, run) => {
          const scheme = schemeOf(project, edit.scheme ?? '')
          const things = applyTo(one, thingsOf(scheme, key), edit, run)
          return { ...project, schemes: { ...project.schemes, [scheme.id]: { ...scheme, [key]: things } } }
        },
        place: (edit) => ['schemes', edit.scheme ?? '', key, 'thing' in edit ? edit.thing.id : edit.id],
      },
    ]),
  )

const thingsOf = (holder: object, key: string): Record<string, Thing> =>
  (holder as Record<string, Record<string, Thing>>)[key] ?? {}

/** The scheme with that id. Errors: 'unknown-id'. */
export function schemeOf(project: Project, id: string): Scheme {
  return (
    thingOf(project.schemes, id) ??
    refuse(
      'unknown-id',
      'The scheme is not there; somebody may have removed it.',
      'Choose one of the schemes that are.',
    )
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
  { fresh }: Run,
): Record<string, T> {
  const id = 'thing' in edit ? edit.thing.id : edit.id
  const old = Object.hasOwn(before, id) ? before[id] : undefined
  if ('thing' in edit) {
    if (old) refuse('id-taken', `There is a ${wordOf(name)} with the same id already.`, 'Give it a new id.')
    const things = writable(before, fresh)
    things[id] = edit.thing
    return things
  }
  if (!old)
    return refuse(
      'unknown-id',
      `The ${wordOf(name)} is not there; somebody may have removed it.`,
      `Choose a ${wordOf(name)} that is there.`,
    )
  const things = writable(before, fresh)
  if ('set' in edit) {
    things[id] = { ...old, ...edit.set }
    return things
  }
  delete things[id]
  return things
}

const wordOf = (one: string) => one.replace(/^project-/, '').replace(/-/g, ' ')

function writable<T>(things: Record<string, T>, fresh: WeakSet<object>): Record<string, T> {
  if (fresh.has(things)) return things
  const copy = { ...things }
  fresh.add(copy)
  return copy
}
