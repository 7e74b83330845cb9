import { inOrder } from '../project'
import { ledgerOf, SCHEDULE_BY, scheduleOf, type ScheduleBy, type Study } from '../study'

/** A table as it is written to CSV and XLSX: a head, and rows of texts and figures; null is an empty cell. */
export interface Sheet {
  name: string
  head: string[]
  rows: (string | number | null)[][]
}

const rounded = (value: number | null) => (value === null ? null : Math.round(value * 100) / 100 + 0)

/** The ledger by level and use, from the top down, totals last; m2 and m. */
export function ledgerSheet(study: Study): Sheet {
  const ledger = ledgerOf(study)
  const uses = inOrder(study.project.uses)
    .map((u) => u.name)
    .filter((name) => ledger.levels.some((l) => name in l.uses))
  const { totals } = ledger
  const sum = (use: string) => ledger.levels.reduce((s, l) => s + (l.uses[use] ?? 0), 0)
  return {
    name: 'Ledger',
    head: [
      'level',
      'height m',
      'area m2, to the mass face',
      ...uses.map((u) => `${u} m2`),
      'low m2, not counted',
      'net m2, to the inner face of outer walls',
      'perimeter m',
    ],
    rows: [
      ...[...ledger.levels]
        .reverse()
        .map((l) => [
          l.name,
          Math.round(l.height * 1000) / 1000,
          rounded(l.area),
          ...uses.map((u) => rounded(l.uses[u] ?? 0)),
          rounded(l.low),
          rounded(l.net),
          rounded(l.perimeter),
        ]),
      [
        'total',
        null,
        rounded(totals.area),
        ...uses.map((u) => rounded(sum(u))),
        rounded(totals.low),
        rounded(totals.net),
        null,
      ],
    ],
  }
}

/** The ledger put together by what is asked for; m2. */
export function scheduleSheet(study: Study, by: readonly ScheduleBy[] = SCHEDULE_BY): Sheet {
  const rows = scheduleOf(study, by)
  const sum = (key: 'gross' | 'internal' | 'net') =>
    rows.reduce<number | null>((s, r) => (s === null || r[key] === null ? null : s + r[key]), 0)
  return {
    name: `By ${by.join(', ') || 'nothing'}`,
    head: [...by, 'gross m2', 'internal m2', 'net m2'],
    rows: [
      ...rows.map((r) => [...by.map((b) => r[b] ?? ''), rounded(r.gross), rounded(r.internal), rounded(r.net)]),
      [
        ...by.map((_, i) => (i === 0 ? 'total' : null)),
        rounded(sum('gross')),
        rounded(sum('internal')),
        rounded(sum('net')),
      ],
    ],
  }
}
