import type { Edit } from '@geotome/core/edits'
import { Refusal } from '@geotome/core/project'
import type { BenchEvent, BenchWorld, Picking, Task } from './kind'

/** What has come of an event; null where it is none of the task's business. `make` gives whether an edit could be made. */
export function afterEvent<S extends Picking>(
  task: Task<S>,
  before: S,
  event: BenchEvent<S>,
  world: BenchWorld,
  make: (label: string, edit: () => Edit) => boolean,
): { state: S; refused: string | null; close: boolean } | null {
  try {
    const answer = task.answer(before, event, world)
    if (!answer) return null
    const { state, made, refused = null } = answer
    if (!made || !make(made.label, made.edit)) return { state, refused, close: false }
    return made.then === 'close' ? { state, refused, close: true } : { state: made.then, refused, close: false }
  } catch (e) {
    if (!(e instanceof Refusal)) throw e
    return { state: before, refused: e.message, close: false }
  }
}
