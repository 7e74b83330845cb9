import type { EditRow } from '../db/entities'

export type Step = Pick<EditRow, 'seq' | 'kind' | 'ofSeq' | 'label'>

/**
 * What one author can take back and do again, newest last, read off the log: an edit can be taken back until it was; what was
 * taken back can be done again until the author edits anew. What others stand in the way of can be
 * passed over.
 */
export function historyOf(steps: Step[]): { undo: Step[]; redo: Step[] } {
  const undo: Step[] = []
  let redo: Step[] = []
  for (const step of steps) {
    switch (step.kind) {
      case 'edit':
        undo.push(step)
        redo = []
        break
      case 'undo': {
        const at = undo.findLastIndex((s) => s.seq === step.ofSeq)
        if (at >= 0) undo.splice(at, 1)
        redo.push(step)
        break
      }
      case 'pass':
        for (const list of [undo, redo]) {
          const at = list.findLastIndex((s) => s.seq === step.ofSeq)
          if (at >= 0) list.splice(at, 1)
        }
        break
      case 'redo': {
        const at = redo.findLastIndex((s) => s.seq === step.ofSeq)
        if (at >= 0) redo.splice(at, 1)
        undo.push(step)
        break
      }
    }
  }
  return { undo, redo }
}
