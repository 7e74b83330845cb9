import { inOrder, type Project } from '../project'
import { ledgerOf, SCHEDULE_BY, scheduleOf, type ScheduleBy, type Study } from '../study'

/** A table as it is written to CSV and XLSX: a head, and rows of texts and figures; null is an empty cell. */
export interface Sheet {
  name: string
  head: string[]
  rows: (string | number | null)[][]
}

/** How a table gives figures: in feet where the project has feet, in metres otherwise; millimetres are no unit of a table. */
function unitsOf({ unit }: Pick<Project, 'unit'>) {
  const foot = unit === 'ft' ? 0.3048 : 1
  const rounded = (value: number | null) => (value === null ? null : Math.round(value * 100) / 100 + 0)
  return {
    m: unit === 'ft' ? 'ft' : 'm',
    area: (m2: number | null) => rounded(m2 === null ? null : m2 / foot ** 2),
    length: (m: number | null) => rounded(m === null ? null : m / foot),
    height: (m: number) => Math.round((m / foot) * 1000) / 1000,
  }
}

/** The ledger by level and use, from the top down, totals last; in m2 and m, or ft2 and ft, as the project has it. */
export function ledgerSheet(study: Study): Sheet {
  const ledger = ledgerOf(study)
  const uses = inOrder(study.project.uses)
    .map((u) => u.name)
    .filter((name) => ledger.levels.some((l) => name in l.uses))
  const { totals } = ledger
  const { m, area, length, height } = unitsOf(study.project)
  const sum = (use: string) => ledger.levels.reduce((s, l) => s + (l.uses[use] ?? 0), 0)
  return {
    name: 'Ledger',
    head: [
      'level',
      `height ${m}`,
      `area ${m}2, to the mass face`,
      ...uses.map((u) => `${u} ${m}2`),
      `low ${m}2, not counted`,
      `net ${m}2, to the inner face of outer walls`,
      `perimeter ${m}`,
    ],
    rows: [
      ...[...ledger.levels]
        .reverse()
        .map((l) => [
          l.name,
          height(l.height),
          area(l.area),
          ...uses.map((u) => area(l.uses[u] ?? 0)),
          area(l.low),
          area(l.net),
          length(l.perimeter),
        ]),
      ['total', null, area(totals.area), ...uses.map((u) => area(sum(u))), area(totals.low), area(totals.net), null],
    ],
  }
}

/** The ledger, its rows grouped by the keys in `by`; m2, or ft2. */
export function scheduleSheet(study: Study, by: readonly ScheduleBy[] = SCHEDULE_BY): Sheet {
  const rows = scheduleOf(study, by)
  const { m, area } = unitsOf(study.project)
  const sum = (key: 'gross' | 'internal' | 'net') =>
    rows.reduce<number | null>((s, r) => (s === null || r[key] === null ? null : s + r[key]), 0)
  return {
    name: `By ${by.join(', ') || 'nothing'}`,
    head: [...by, `gross ${m}2`, `internal ${m}2`, `net ${m}2`],
    rows: [
      ...rows.map((r) => [...by.map((b) => r[b] ?? ''), area(r.gross), area(r.internal), area(r.net)]),
      [...by.map((_, i) => (i === 0 ? 'total' : null)), area(sum('gross')), area(sum('internal')), area(sum('net'))],
    ],
  }
}
