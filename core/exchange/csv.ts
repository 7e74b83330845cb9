import Papa from 'papaparse'
import type { Study } from '../study'
import { ledgerSheet, type Sheet } from './sheet'

/** What a table would take for a formula; a plain number below zero is none. */
const FORMULA = /^(?!-?\d+(\.\d+)?$)[=+\-@\t\r]/

/** A table as CSV (RFC 4180): figures with two decimals, heights with three. */
export const sheetCsv = ({ head, rows }: Sheet, more: string[][] = []): string =>
  Papa.unparse(
    {
      fields: head,
      data: [
        ...rows.map((row) =>
          row.map((c, i) =>
            c === null ? '' : typeof c === 'number' ? c.toFixed(head[i]?.startsWith('height') ? 3 : 2) : c,
          ),
        ),
        ...more,
      ],
    },
    { escapeFormulae: FORMULA, newline: '\r\n' },
  )

/** The ledger as CSV: a row per storey from the top down, a column per use, totals last. m2 and m. */
export function ledgerCsv(study: Study): string {
  const { volume, footprint, ratio } = study.totals
  return sheetCsv(ledgerSheet(study), [
    ['volume m3', '', volume.toFixed(2)],
    ['footprint m2', '', footprint.toFixed(2)],
    ['floor area ratio', '', ratio === null ? '' : ratio.toFixed(3)],
  ])
}
