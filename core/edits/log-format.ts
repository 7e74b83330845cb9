import { mendNames, parseProject, refuse, type Project } from '../project'
import { parseEdit, type Edit } from './apply'

/** The format in which edits and checkpoints are written to the log today. */
export const LOG_FORMAT = 1

/** A format's step to the next: of an edit, and of a project. STEPS[n] takes what format n + 1 wrote to format n + 2. */
const STEPS: { edit(older: unknown): unknown; project(older: unknown): unknown }[] = []

/** An edit out of the log, as it is written today, with names that can be shown. Errors: 'newer-file', 'edit'. */
export const editOfLog = (format: number, data: unknown): Edit =>
  parseEdit(mendNames(stepsFrom(format).reduce((now, step) => step.edit(now), data)).data)

/** A project out of a checkpoint of the log, as it is written today, with names that can be shown. Errors: 'newer-file', 'file'. */
export const projectOfLog = (format: number, data: unknown): Project =>
  parseProject(mendNames(stepsFrom(format).reduce((now, step) => step.project(now), data)).data)

function stepsFrom(format: number): typeof STEPS {
  if (!(Number.isInteger(format) && format >= 1 && format <= LOG_FORMAT))
    refuse(
      'newer-file',
      `The log has an entry of format ${format}; this Geotome knows formats 1 to ${LOG_FORMAT}.`,
      'Start a newer Geotome on this data.',
    )
  return STEPS.slice(format - 1)
}
