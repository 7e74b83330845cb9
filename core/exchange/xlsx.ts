import { strToU8, zipSync } from 'fflate'
import type { Sheet } from './sheet'

const escaped = (text: string) =>
  text
    // Characters that no XML may hold.
    // eslint-disable-next-line no-control-regex
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')

/** A column by its letters: 0 is A, 26 is AA. */
function column(n: number): string {
  return n < 26 ? String.fromCharCode(65 + n) : column(Math.floor(n / 26) - 1) + column(n % 26)
}

function cell(value: string | number | null, at: string, bold: boolean): string {
  if (value === null || value === '') return ''
  const style = typeof value === 'number' ? (bold ? 3 : 2) : bold ? 1 : 0
  return typeof value === 'number'
    ? `<c r="${at}" s="${style}"><v>${value}</v></c>`
    : `<c r="${at}" s="${style}" t="inlineStr"><is><t xml:space="preserve">${escaped(value)}</t></is></c>`
}

function sheetXml({ head, rows }: Sheet): string {
  const all = [head, ...rows]
  const body = all
    .map((cells, r) => {
      const bold = r === 0 || (r === all.length - 1 && cells[0] === 'total')
      return `<row r="${r + 1}">${cells.map((c, i) => cell(c, `${column(i)}${r + 1}`, bold)).join('')}</row>`
    })
    .join('')
  const widths = head
    .map((_, i) => {
      const long = Math.max(...all.map((cells) => String(cells[i] ?? '').length))
      return `<col min="${i + 1}" max="${i + 1}" width="${Math.min(60, long + 2)}" customWidth="1"/>`
    })
    .join('')
  return (
    `${HEAD}<worksheet xmlns="${MAIN}"><sheetViews><sheetView workbookViewId="0">` +
    `<pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews>` +
    `<cols>${widths}</cols><sheetData>${body}</sheetData></worksheet>`
  )
}

const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main'
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006'
/** plain, bold, a figure with two digits, the same in bold */
const STYLES =
  `${HEAD}<styleSheet xmlns="${MAIN}"><numFmts count="1"><numFmt numFmtId="164" formatCode="#,##0.00"/></numFmts>` +
  '<fonts count="2"><font><sz val="11"/><name val="Calibri"/></font><font><b/><sz val="11"/><name val="Calibri"/></font></fonts>' +
  '<fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills>' +
  '<borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs>' +
  '<cellXfs count="4"><xf xfId="0"/><xf xfId="0" fontId="1" applyFont="1"/><xf xfId="0" numFmtId="164" applyNumberFormat="1"/>' +
  '<xf xfId="0" fontId="1" applyFont="1" numFmtId="164" applyNumberFormat="1"/></cellXfs></styleSheet>'

/** Tables as one workbook (ISO/IEC 29500, transitional). Texts stay texts: none is taken for a formula. */
export function writeXlsx(sheets: readonly Sheet[]): Uint8Array {
  const name = (sheet: Sheet, i: number) =>
    escaped(sheet.name.replace(/[[\]:*?/\\]/g, ' ').slice(0, 31) || `Sheet ${i + 1}`)
  const file = (text: string): [Uint8Array, { mtime: Date }] => [
    strToU8(text),
    { mtime: new Date(Date.UTC(1990, 0, 1, 12)) },
  ]
  const rel = (id: number, type: string, target: string) =>
    `<Relationship Id="rId${id}" Type="${OFFICE}/${type}" Target="${target}"/>`
  const types = `application/vnd.openxmlformats-officedocument.spreadsheetml`
  return zipSync({
    '[Content_Types].xml': file(
      `${HEAD}<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>` +
        `<Default Extension="xml" ContentType="application/xml"/>` +
        `<Override PartName="/xl/workbook.xml" ContentType="${types}.sheet.main+xml"/>` +
        `<Override PartName="/xl/styles.xml" ContentType="${types}.styles+xml"/>` +
        sheets
          .map((_, i) => `<Override PartName="/xl/worksheets/sheet${i + 1}.xml" ContentType="${types}.worksheet+xml"/>`)
          .join('') +
        '</Types>',
    ),
    '_rels/.rels': file(
      `${HEAD}<Relationships xmlns="${PACKAGE}/relationships">${rel(1, 'officeDocument', 'xl/workbook.xml')}</Relationships>`,
    ),
    'xl/workbook.xml': file(
      `${HEAD}<workbook xmlns="${MAIN}" xmlns:r="${OFFICE}"><sheets>` +
        sheets.map((s, i) => `<sheet name="${name(s, i)}" sheetId="${i + 1}" r:id="rId${i + 1}"/>`).join('') +
        '</sheets></workbook>',
    ),
    'xl/_rels/workbook.xml.rels': file(
      `${HEAD}<Relationships xmlns="${PACKAGE}/relationships">` +
        sheets.map((_, i) => rel(i + 1, 'worksheet', `worksheets/sheet${i + 1}.xml`)).join('') +
        `${rel(sheets.length + 1, 'styles', 'styles.xml')}</Relationships>`,
    ),
    'xl/styles.xml': file(STYLES),
    ...Object.fromEntries(sheets.map((s, i) => [`xl/worksheets/sheet${i + 1}.xml`, file(sheetXml(s))])),
  })
}
