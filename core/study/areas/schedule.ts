import { inOrder, refuse, type Id } from '../../project'
import type { Study } from '../types'
import { entriesOf, type LedgerEntry } from './entries'

/** What the ledger is put together by. */
export const SCHEDULE_BY = ['level', 'use', 'wing'] as const
export type ScheduleBy = (typeof SCHEDULE_BY)[number]

/** One row of the ledger: names by what it is put together by, and m2. */
export interface ScheduleRow {
  level?: string
  use?: string
  wing?: string
  gross: number
  internal: number | null
  net: number | null
}

/** The ledger put together by levels, uses and wings, in this order: levels from the top down, uses and wings in theirs. */
export function scheduleOf(study: Study, by: readonly ScheduleBy[]): ScheduleRow[] {
  const { project, scheme, floors } = study
  const names = {
    level: (e: LedgerEntry) => study.levels.find((l) => l.id === e.level)?.name ?? '',
    use: (e: LedgerEntry) => project.uses[e.use]?.name ?? '',
    wing: (e: LedgerEntry) => (e.wing === null ? 'in no wing' : (scheme.wings[e.wing]?.name ?? '')),
  }
  const at = (ids: Id[], id: Id | null) => (id === null ? ids.length : ids.indexOf(id))
  const [levels, uses, wings] = [
    floors.map((f) => f.level.id).reverse(),
    inOrder(project.uses).map((u) => u.id),
    inOrder(scheme.wings).map((w) => w.id),
  ]
  const places = {
    level: (e: LedgerEntry) => at(levels, e.level),
    use: (e: LedgerEntry) => at(uses, e.use),
    wing: (e: LedgerEntry) => at(wings, e.wing),
  }
  const rows = new Map<string, { row: ScheduleRow; place: number[] }>()
  for (const e of entriesOf(study)) {
    const place = by.map((b) => places[b](e))
    const key = place.join()
    const named = Object.fromEntries(by.map((b) => [b, names[b](e)]))
    const known = rows.get(key)?.row ?? { ...named, gross: 0, internal: 0, net: 0 }
    known.gross += e.gross
    known.internal = known.internal === null || e.internal === null ? null : known.internal + e.internal
    known.net = known.net === null || e.net === null ? null : known.net + e.net
    rows.set(key, { row: known, place })
  }
  return [...rows.values()]
    .sort((a, b) => a.place.reduce((sign, p, i) => sign || p - (b.place[i] ?? 0), 0))
    .map(({ row }) => row)
}

/** "level,use" as what a ledger is put together by. Errors: 'edit' with the words that there are. */
export const readScheduleBy = (text: string): ScheduleBy[] => [
  ...new Set(
    text
      .split(',')
      .map((t) => t.trim().toLowerCase())
      .filter(Boolean)
      .map(
        (word) =>
          SCHEDULE_BY.find((b) => b === word) ??
          refuse('edit', `The ledger is not put together by "${word}".`, `Choose of ${SCHEDULE_BY.join(', ')}.`),
      ),
  ),
]
