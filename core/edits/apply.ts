import * as v from 'valibot'
import {
  checkProject,
  parseWith,
  PROJECT_COLLECTIONS,
  refuse,
  SCHEME_COLLECTIONS,
  SchemeSchema,
  type Project,
} from '../project'
import { projectFamilies, schemeFamilies, type Applied, type Family, type Run, type ThingEdit } from './collection'
import { differences } from './difference'
import { patchEdits, type PatchEdit } from './patch'
import { projectEdits, type ProjectEdit } from './project'
import { wholeEdits, type WholeEdit } from './whole'

/** All families: those of the collections, and a few of their own. The name before the dot tells the family. */
const FAMILIES: Record<string, Family<SingleEdit>> = {
  project: projectEdits,
  ...projectFamilies({ ...PROJECT_COLLECTIONS, schemes: { one: 'scheme', thing: SchemeSchema, apart: 'scheme' } }),
  ...schemeFamilies(SCHEME_COLLECTIONS),
  whole: wholeEdits,
  patch: patchEdits,
} as never

export type SingleEdit = ThingEdit | ProjectEdit | WholeEdit | PatchEdit
/** One gesture of the user; applied whole or not at all. */
export interface BatchEdit {
  edit: 'batch'
  edits: SingleEdit[]
}
export type Edit = SingleEdit | BatchEdit

/**
 * Applies an edit to a project and gives the edit that takes it back: leaf by leaf, so that it leaves alone what others do meanwhile, and
 * is refused where they have done it to the same. The result is checked as a whole (see project/integrity.ts); a Refusal leaves the
 * given project as it was.
 */
export function applyEdit(project: Project, edit: Edit): Applied<PatchEdit> {
  const next = applyChecked(project, edit)
  checkProject(next)
  return {
    project: next,
    get inverse() {
      return { edit: 'patch' as const, changes: differences(next, project) }
    },
  }
}

/** Applies an edit that was checked already when it was made, as one that waits to be sent. Errors: 'changed' where others were quicker. */
export const applyChecked = (project: Project, edit: Edit): Project => applied(project, edit, newRun(false))

/** Applies an edit out of the log to the state that it stands behind there, where it was found to fit. */
export const applyLogged = (project: Project, edit: Edit): Project => applied(project, edit, newRun(true))

const newRun = (isLogged: boolean): Run => ({ fresh: new WeakSet(), isLogged })

const applied = (project: Project, edit: Edit, run: Run): Project =>
  singles(edit).reduce((now, single) => applySingle(now, single, run), project)

/**
 * The edit as it is meant: of whole fields that are set (a recipe, a list of layers) only what differs from what the person saw, each
 * with what it was, so that it can be made on what others have done meanwhile. Null where it changes nothing.
 */
export function asMeant(project: Project, edit: Edit): Edit | null {
  const run = newRun(false)
  let now = project
  const meant: SingleEdit[] = []
  for (const single of singles(edit)) {
    const place = 'set' in single ? familyOf(single.edit).place?.(single) : undefined
    const before = place && valueAt(now, place)
    now = applySingle(now, single, run)
    if (!place) {
      meant.push(single)
      continue
    }
    const changes = differences(before, valueAt(now, place), place)
    const last = meant.at(-1)
    if (last?.edit === 'patch') last.changes.push(...changes)
    else if (changes.length) meant.push({ edit: 'patch', changes })
  }
  return meant.length ? batch(meant) : null
}

const valueAt = (project: Project, place: string[]): unknown =>
  place.reduce<unknown>((value, key) => (value as Record<string, unknown> | undefined)?.[key], project)

/** so many parts can be made in one gesture: of 200 masses on 100 storeys there are 63,000 */
const MOST_IN_BATCH = 200_000

const BatchSchema = v.strictObject({
  edit: v.literal('batch'),
  edits: v.pipe(
    v.array(v.looseObject({ edit: v.string() })),
    v.minLength(1, 'A batch holds at least one edit.'),
    v.maxLength(MOST_IN_BATCH, `A batch holds up to ${MOST_IN_BATCH} edits.`),
  ),
})

/** The schema of any edit, for documents; parseEdit checks by the edit's own tag, so that its sentences are about that edit. */
const SingleSchema = v.variant('edit', Object.values(FAMILIES).map((f) => f.schema) as never) as v.GenericSchema<
  unknown,
  SingleEdit
>
export const EditSchema = v.union([
  SingleSchema,
  v.strictObject({ edit: v.literal('batch'), edits: v.array(SingleSchema) }),
])

/** Outside data as an edit. Errors: 'edit' with the place that is wrong. */
export function parseEdit(data: unknown): Edit {
  const name = parseWith(v.object({ edit: v.string() }), data, 'edit', 'The edit is malformed').edit
  if (name !== 'batch') return parseSingle(data, name)
  const { edits } = parseWith(BatchSchema, data, 'edit', 'The batch is malformed')
  return { edit: 'batch', edits: edits.map((e) => parseSingle(e, e.edit)) }
}

/** Several edits as one gesture. */
export function batch(edits: SingleEdit[]): Edit {
  return edits.length === 1 && edits[0] ? edits[0] : { edit: 'batch', edits }
}

/** The single edits of a gesture. */
export const singles = (edit: Edit): SingleEdit[] => (edit.edit === 'batch' ? edit.edits : [edit])

function applySingle(project: Project, edit: SingleEdit, run: Run): Project {
  return familyOf(edit.edit).apply(project, edit, run)
}

function parseSingle(data: unknown, tag: string): SingleEdit {
  return parseWith(familyOf(tag).schema, data, 'edit', `The edit "${tag}" is malformed`)
}

function familyOf(tag: string): Family<SingleEdit> {
  const name = tag.split('.')[0] ?? ''
  return (
    (Object.hasOwn(FAMILIES, name) ? FAMILIES[name] : undefined) ??
    refuse(
      'edit',
      `"${tag}" is no edit that this Geotome knows.`,
      `Known are ${Object.keys(FAMILIES).join(', ')}, each with .add, .change or .remove, and batch.`,
    )
  )
}
