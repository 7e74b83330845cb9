import Papa from 'papaparse'
import type { Study } from '../study'
import { ledgerSheet, type Sheet } from './sheet'

/** What a table would take for a formula; a plain number below zero is none. */
const FORMULA = /^(?!-?\d+(\.\d+)?$)[=+\-@\t\r]/

/** A CSV file: the mark in front tells a spreadsheet that the text is UTF-8. */
export const csvFile = (text: string): string => `\uFEFF${text}`

/**
 * A table as CSV (RFC 4180): figures with two decimals, heights with three. Texts that a table would take for a formula are guarded, and
 * those with a semicolon are quoted, since many spreadsheets part columns at it.
 */
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
    {
      escapeFormulae: FORMULA,
      newline: '\r\n',
      quotes: (value: unknown) => typeof value === 'string' && value.includes(';'),
    },
  )

/** The ledger as CSV: a row per storey from the top down, a column per use, totals last; in the project's unit. */
export function ledgerCsv(study: Study): string {
  const { volume, footprint, ratio } = study.totals
  const [m, foot] = study.project.unit === 'ft' ? ['ft', 0.3048] : ['m', 1]
  const text = sheetCsv(ledgerSheet(study), [
    [`volume ${m}3`, '', (volume / foot ** 3).toFixed(2)],
    [`footprint ${m}2`, '', (footprint / foot ** 2).toFixed(2)],
    ['floor area ratio', '', ratio === null ? '' : ratio.toFixed(3)],
  ])
  return csvFile(text)
}
