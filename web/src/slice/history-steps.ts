import { isToday } from 'date-fns'
import type { LoggedEdit } from '../app/api'

/** What a figure is looked at over: the last edits, one by one, or the edits of today, by the hour. */
export type HistorySpan = 'last' | 'today'

/** Edits after which a figure is computed once. */
export interface HistoryStep {
  edits: LoggedEdit[]
  /** number of its last edit */ seq: number
  /** when that came in, ms */ at: number
  label: string
}

/** The edits that count, oldest first, in at most so many steps: where there are more, several are one step. */
export function historySteps(log: readonly LoggedEdit[], span: HistorySpan, most: number): HistoryStep[] {
  const edits = span === 'today' ? log.filter((e) => isToday(new Date(e.at))) : log.slice(-most)
  const each = Math.max(1, Math.ceil(edits.length / most))
  return Array.from({ length: Math.ceil(edits.length / each) }, (_, i) => {
    const some = edits.slice(i * each, (i + 1) * each)
    const last = some.at(-1) as LoggedEdit
    const says = last.kind === 'edit' ? last.label : `${last.kind}: ${last.label}`
    return {
      edits: some,
      seq: last.seq,
      at: new Date(last.at).getTime(),
      label: some.length > 1 ? `${says}, and ${some.length - 1} before it` : says,
    }
  })
}
