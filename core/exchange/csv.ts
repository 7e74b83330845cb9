import Papa from 'papaparse'
import { inOrder } from '../project'
import { ledgerOf, type Study } from '../study'

/** What a table would take for a formula; a plain number below zero is none. */
const FORMULA = /^(?!-?\d+(\.\d+)?$)[=+\-@\t\r]/

/** The ledger as CSV (RFC 4180): a row per storey from the top down, a column per use, totals last. m2 and m, two decimals. */
export function ledgerCsv(study: Study): string {
  const ledger = ledgerOf(study)
  const uses = inOrder(study.project.uses)
    .map((u) => u.name)
    .filter((name) => ledger.levels.some((l) => name in l.uses))
  const figure = (value: number | null) => (value === null ? '' : value.toFixed(2))
  const rows = [...ledger.levels]
    .reverse()
    .map((l) => [
      l.name,
      l.height.toFixed(3),
      figure(l.area),
      ...uses.map((u) => figure(l.uses[u] ?? 0)),
      figure(l.low),
      figure(l.net),
      figure(l.perimeter),
    ])
  const { totals } = ledger
  const sum = (use: string) => ledger.levels.reduce((s, l) => s + (l.uses[use] ?? 0), 0)
  return Papa.unparse(
    {
      fields: [
        'level',
        'height m',
        'area m2, to the mass face',
        ...uses.map((u) => `${u} m2`),
        'low m2, not counted',
        'net m2, to the inner face of outer walls',
        'perimeter m',
      ],
      data: [
        ...rows,
        [
          'total',
          '',
          figure(totals.area),
          ...uses.map((u) => figure(sum(u))),
          figure(totals.low),
          figure(totals.net),
          '',
        ],
        ['volume m3', '', figure(totals.volume)],
        ['footprint m2', '', figure(totals.footprint)],
        ['floor area ratio', '', totals.ratio === null ? '' : totals.ratio.toFixed(3)],
      ],
    },
    { escapeFormulae: FORMULA, newline: '\r\n' },
  )
}
