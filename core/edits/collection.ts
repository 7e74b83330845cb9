import * as v from 'valibot'
import { refuse, type Project, type Scheme } from '../project'

/** What applying an edit gives: the new project, and the edit that takes it back. */
export interface Applied<E> { project: Project; inverse: E }

/** A family of edits: its schema, and how one is applied. Pure: no kernel, no clock, no chance. */
export interface Family<E> { schema: v.GenericSchema<unknown, E>; apply(project: Project, edit: E): Applied<E> }

type Thing = { id: string }
type Fields<T> = Partial<Omit<T, 'id'>>

export type CollectionEdit<N extends string, T extends Thing> =
  | { edit: `${N}.add`; thing: T }
  | { edit: `${N}.change`; id: string; set: Fields<T> }
  | { edit: `${N}.remove`; id: string }

export type SchemeEdit<N extends string, T extends Thing> = CollectionEdit<N, T> & { scheme: string }

interface Reach<T> { read(project: Project): Record<string, T>; write(project: Project, things: Record<string, T>): Project }

/** add, change (field by field) and remove for a collection of the project. */
export function projectCollection<N extends string, T extends Thing>(name: N, schema: v.StrictObjectSchema<v.ObjectEntries, undefined>, reach: Reach<T>): Family<CollectionEdit<N, T>> {
  return {
    schema: v.variant('edit', shapes(name, schema, {})) as unknown as v.GenericSchema<unknown, CollectionEdit<N, T>>,
    apply: (project, edit) => {
      const { things, inverse } = applyTo(name, reach.read(project), edit)
      return { project: reach.write(project, things), inverse }
    },
  }
}

/** The same for a collection of a scheme; each edit names the scheme. */
export function schemeCollection<N extends string, T extends Thing>(name: N, schema: v.StrictObjectSchema<v.ObjectEntries, undefined>, key: 'dials' | 'levels' | 'masses' | 'parts'): Family<SchemeEdit<N, T>> {
  return {
    schema: v.variant('edit', shapes(name, schema, { scheme: v.string() })) as unknown as v.GenericSchema<unknown, SchemeEdit<N, T>>,
    apply: (project, edit) => {
      const scheme = schemeOf(project, edit.scheme)
      const { things, inverse } = applyTo<N, T>(name, scheme[key] as unknown as Record<string, T>, edit)
      return {
        project: { ...project, schemes: { ...project.schemes, [scheme.id]: { ...scheme, [key]: things } } },
        inverse: { ...inverse, scheme: edit.scheme } as SchemeEdit<N, T>,
      }
    },
  }
}

export function schemeOf(project: Project, id: string): Scheme {
  return project.schemes[id] ?? refuse('unknown-id', `There is no scheme with the id "${id}".`, 'Reload the project and choose one of its schemes.')
}

function shapes(name: string, schema: v.StrictObjectSchema<v.ObjectEntries, undefined>, scope: v.ObjectEntries) {
  const { id, ...fields } = schema.entries
  return [
    v.strictObject({ edit: v.literal(`${name}.add`), ...scope, thing: schema }),
    v.strictObject({ edit: v.literal(`${name}.change`), ...scope, id: id as v.GenericSchema, set: v.partial(v.strictObject(fields)) }),
    v.strictObject({ edit: v.literal(`${name}.remove`), ...scope, id: id as v.GenericSchema }),
  ] as const
}

function applyTo<N extends string, T extends Thing>(name: N, things: Record<string, T>, edit: CollectionEdit<N, T>): { things: Record<string, T>; inverse: CollectionEdit<N, T> } {
  if ('thing' in edit) {
    if (things[edit.thing.id]) refuse('id-taken', `There is a ${name} with the id "${edit.thing.id}" already.`, 'Mint a new id.')
    return { things: { ...things, [edit.thing.id]: edit.thing }, inverse: { edit: `${name}.remove`, id: edit.thing.id } }
  }
  const old = things[edit.id] ?? refuse('unknown-id', `There is no ${name} with the id "${edit.id}"; it may have been removed meanwhile.`, `Choose a ${name} that is there.`)
  if ('set' in edit) {
    const before = Object.fromEntries(Object.keys(edit.set).map((key) => [key, old[key as keyof T]])) as Fields<T>
    return { things: { ...things, [edit.id]: { ...old, ...edit.set } }, inverse: { edit: `${name}.change`, id: edit.id, set: before } }
  }
  const { [edit.id]: removed, ...rest } = things
  return { things: rest, inverse: { edit: `${name}.add`, thing: removed as T } }
}
