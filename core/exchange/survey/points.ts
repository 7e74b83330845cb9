import Papa from 'papaparse'
import { refuse } from '../../project'
import { METRES, nothing, sayRows, textOf, type Answers, type SiteRead, type SurveyReader } from './kind'

const NAMES: Record<'x' | 'y' | 'z' | 'line', RegExp> = {
  x: /^(x|e|east|easting|rechtswert|lon|long|longitude)$/i,
  y: /^(y|n|north|northing|hochwert|lat|latitude)$/i,
  z: /^(z|h|height|elevation|level|ele|höhe|hoehe)$/i,
  line: /^(line|breakline|string|code)$/i,
}

/** Values that stand for a height which was not measured. */
const NO_DATA = /^(nan|nodata|no data|null|none|n\/a|\*|-9999(\.0*)?|-99999(\.0*)?|-32768|-3\.4028\d*e\+?38)$/i

const DEGREES = /^(lat|lon|long|latitude|longitude)$/i

/**
 * Surveyed points as text: a row each, with or without a head and a number or name before the coordinates; points of one `line` are joined in
 * order. What follows the coordinates (intensity, colours) is left. Rows without heights, and rows that come back to the first one, are a
 * closed outline. Where the head does not say whether east or north comes first, it is asked.
 */
export const points: SurveyReader = {
  extensions: ['csv', 'txt', 'xyz', 'pts'],
  read(bytes, name, { leaveOut, answers }) {
    const rows = rowsOf(textOf(bytes))
    if (rows.length === 0)
      refuse('file', `"${name}" has no rows.`, 'Choose a file with a point a row: east, north, height.')
    const head = rows[0]?.row ?? []
    const at = (what: keyof typeof NAMES) => head.findIndex((c) => NAMES[what].test(wordOf(c)))
    const isNamed = at('x') >= 0 && at('y') >= 0
    const body = rows.slice(isNamed || head.every((c) => !Number.isFinite(number(c))) ? 1 : 0)
    const read: SiteRead = nothing()
    const columns = isNamed ? [at('x'), at('y'), at('z')] : unnamed(read, body, answers)
    const factors = columns.map((c) => (isNamed && c >= 0 ? unitIn(head[c] ?? '') : 1))
    if (isNamed && DEGREES.test(wordOf(head[at('x')] ?? '')) && DEGREES.test(wordOf(head[at('y')] ?? '')))
      read.system = 'EPSG:4326'
    const hasHeights = (columns[2] ?? -1) >= 0
    const wrong: number[] = []
    const ring: [number, number, number][] = []
    let unmeasured = 0
    const lines = new Map<string, [number, number, number][]>()
    for (const { at: line, row } of body) {
      const cells = columns.map((c) => (c < 0 ? '0' : row[c]))
      if (NO_DATA.test(cells[2] ?? '')) {
        unmeasured++
        continue
      }
      const xyz = cells.map((c, k) => number(c) * (factors[k] ?? 1)) as [number, number, number]
      if (xyz.length < 3 || xyz.some((v) => !Number.isFinite(v))) {
        wrong.push(line)
        continue
      }
      ring.push(xyz)
      const of = isNamed && at('line') >= 0 ? (row[at('line')] ?? '') : ''
      if (!hasHeights) continue
      const known = lines.get(of)
      if (!of) read.points.push(xyz)
      else if (known) known.push(xyz)
      else lines.set(of, [xyz])
    }
    if (wrong.length && !leaveOut)
      refuse(
        'file',
        `In "${name}", ${sayRows(wrong)} ${wrong.length === 1 ? 'is' : 'are'} not numbers: "${(body.find((r) => r.at === wrong[0])?.row ?? []).join(', ').slice(0, 60)}".`,
        'Mend them, or read the file without these rows.',
      )
    if (wrong.length) read.remarks.push(`${wrong.length} rows were left out: ${sayRows(wrong)}.`)
    if (unmeasured)
      read.remarks.push(
        `${unmeasured} ${unmeasured === 1 ? 'point' : 'points'} without a measured height were left out.`,
      )
    for (const line of lines.values()) {
      if (line.length > 1) read.lines.push(line)
      else read.points.push(...line)
    }
    addOutline(read, ring, hasHeights)
    if (read.points.length + read.lines.length + read.outlines.length === 0)
      refuse('file', `There is no point in "${name}".`, 'Choose a file with a point a row: east, north, height.')
    return read
  },
}

/** The rows of a table, numbered as in the file; empty ones are left out. */
function rowsOf(text: string): { at: number; row: string[] }[] {
  const isParted = /[,;]/.test(text.slice(0, 400))
  const plain = text
    .replace(/\s+$/, '')
    .replace(/^[ \t]+/gm, '')
    // Other signs for minus, and spaces that group digits.
    .replace(/[\u2212\u2012\u2013](?=[\d.,])/g, '-')
    .replace(/(?<=\d)[\u00a0\u202f\u2009](?=\d{3})/g, '')
    .replace(/[ \t]+/g, (gap) => (isParted ? gap : '\t'))
  const tidied = /;/.test(plain.slice(0, 400)) ? plain.replace(/(?<=\d) (?=\d{3}(\D|$))/g, '') : plain
  return Papa.parse<string[]>(tidied)
    .data.map((row, i) => ({
      at: i + 1,
      row: row.map((c) => c.trim()).filter((c, k, all) => c !== '' || k < all.length - 1),
    }))
    .filter(({ row }) => row.some((c) => c !== ''))
}

/** What a column's head says, without its unit. */
const wordOf = (head: string) => head.replace(/[ _([].*$/, '')

/** The columns of east, north and height (-1 where there is none) of a table whose head does not name them; their order is asked. */
function unnamed(read: SiteRead, body: { row: string[] }[], answers: Answers): number[] {
  const rows = body.map((r) => r.row)
  const from = firstCoordinate(rows)
  const hasHeights = rows.some((r) => r.length - from >= 3)
  const order = answers.order === 'north' ? 'north' : 'east'
  read.asks.push({
    what: 'order',
    say: 'The file does not say which coordinate comes first',
    options: [
      { value: 'east', label: 'east, then north' },
      { value: 'north', label: 'north, then east' },
    ],
    taken: order,
  })
  const [x, y] = order === 'east' ? [from, from + 1] : [from + 1, from]
  return [x, y, hasHeights ? from + 2 : -1]
}

/** Points without heights, or points that come back to the first of them, as a closed outline. */
function addOutline(read: SiteRead, ring: [number, number, number][], hasHeights: boolean): void {
  const [first, last] = [ring[0], ring.at(-1)]
  const isClosed = ring.length > 3 && first?.[0] === last?.[0] && first?.[1] === last?.[1]
  const corners = isClosed ? ring.slice(0, -1) : ring
  if ((hasHeights && !isClosed) || corners.length < 3 || corners.length > 2000) return
  read.outlines.push({ name: null, points: corners.map(([x, y]) => [x, y]), height: null, base: null })
}

/** Metres to the unit that a column's head names: "height (ft)", "z_usft", "E [mm]". */
function unitIn(head: string): number {
  const said = head.toLowerCase().replace(/^[a-z]+/, '')
  if (/us\s*[-_]?\s*(survey)?\s*[-_]?f(t|oot|eet)/.test(said)) return METRES['US survey ft'] ?? 1
  if (/(^|[^a-z])(ft|foot|feet)([^a-z]|$)/.test(said)) return METRES.ft ?? 1
  if (/(^|[^a-z])mm([^a-z]|$)/.test(said)) return METRES.mm ?? 1
  return /(^|[^a-z])cm([^a-z]|$)/.test(said) ? (METRES.cm ?? 1) : 1
}

/**
 * Without a head: where the coordinates begin. Three columns are coordinates; with more, the first is a number or a name of its point where it is
 * no number, or counts on in whole numbers; otherwise what follows the height is intensity or colour.
 */
function firstCoordinate(rows: string[][]): 0 | 1 {
  const some = rows.slice(0, 200)
  if (some.every((r) => r.length <= 3)) return 0
  const first = some.map((r) => r[0] ?? '')
  if (first.some((c) => !Number.isFinite(number(c))))
    return some.some((r) => r.slice(0, 3).every((c) => Number.isFinite(number(c)))) &&
      first.filter((c) => !Number.isFinite(number(c))).length < some.length / 2
      ? 0
      : 1
  const counts =
    first.every((c) => /^\d+$/.test(c)) &&
    first.every((c, i) => i === 0 || Number(c) > Number(first[i - 1])) &&
    new Set(first).size === first.length
  const step = first.length > 1 ? Number(first[1]) - Number(first[0]) : 1
  return counts && (first.length === 1 || step <= 10) ? 1 : 0
}

/** 12.5, and 12,5 where a comma does not part the columns; 1.234,56 and 1,234.56 by the sign that comes last. */
function number(text: string | undefined): number {
  if (text === undefined || text === '') return NaN
  if (/^-?\d{1,3}(\.\d{3})+,\d+$/.test(text)) return Number(text.replace(/\./g, '').replace(',', '.'))
  if (/^-?\d{1,3}(,\d{3})+\.\d+$/.test(text)) return Number(text.replace(/,/g, ''))
  return Number(/^-?\d+,\d+$/.test(text) ? text.replace(',', '.') : text)
}
