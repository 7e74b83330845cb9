import type { EditRow } from '../db/entities'

export type Step = Pick<EditRow, 'seq' | 'kind' | 'ofSeq' | 'label'>

/** What one author can take back and do again, newest last. */
export interface Steps {
  undo: Step[]
  redo: Step[]
}

/** Read off the log: an edit can be taken back until it was; what was taken back can be done again until the author edits anew. */
export const historyOf = (steps: Step[]): Steps => steps.reduce(withStep, { undo: [], redo: [] })

/** The same with one step more, in place: of an author's ten thousand steps only the new ones are looked at. What others stand in the way of can be passed over. */
export function withStep(steps: Steps, step: Step): Steps {
  const { undo, redo } = steps
  const taken = (list: Step[]) => {
    const at = list.findLastIndex((s) => s.seq === step.ofSeq)
    if (at >= 0) list.splice(at, 1)
  }
  switch (step.kind) {
    case 'edit':
      undo.push(step)
      redo.length = 0
      break
    case 'undo':
      taken(undo)
      redo.push(step)
      break
    case 'pass':
      taken(undo)
      taken(redo)
      break
    case 'redo':
      taken(redo)
      undo.push(step)
      break
  }
  return steps
}
