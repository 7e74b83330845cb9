import { applyEdit, batch, singles, type Edit, type SingleEdit } from '@geotome/core/edits'
import { Refusal, refuse, type Project } from '@geotome/core/project'
import type { Study } from '@geotome/core/study'

/**
 * The remedies of findings one after the other, each made where the ones before it stand; those that do not fit any more are passed
 * over. `again`: the study of a project that goes on from the last one.
 */
export function mended(study: Study, keys: string[], mint: () => string, again: (project: Project) => Study): Edit {
  let now = study
  const edits: SingleEdit[] = []
  const wanted = new Set(keys)
  // Most remedies change their own thing only: they are made as they are found, and a new study tells what is left.
  for (let i = 0; i < keys.length && wanted.size; i++) {
    const found = now.findings.find((f) => wanted.has(f.key) && f.fix)
    if (!found?.fix) break
    wanted.delete(found.key)
    try {
      const edit = found.fix.edit(mint)
      const project = applyEdit(now.project, edit).project
      edits.push(...singles(edit))
      now = again(project)
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
    }
  }
  return edits.length
    ? batch(edits)
    : refuse('stale', 'None of these can be mended any more.', 'Look at each by itself.')
}
