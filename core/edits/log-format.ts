import { mendNames, parseProject, refuse, type Project } from '../project'
import { parseEdit, type Edit } from './apply'
import { placeIds } from './log-steps/place-ids'
import type { LogStep } from './log-steps/step'

/** The format in which edits and checkpoints are written to the log today. It rises whenever an edit's meaning does; core/testing/logs has a golden log of each. */
export const LOG_FORMAT = 2

/** STEPS[n] takes what format n + 1 wrote to format n + 2. */
const STEPS: LogStep[] = [placeIds]

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
