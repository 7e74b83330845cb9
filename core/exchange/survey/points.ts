import Papa from 'papaparse'
import { refuse } from '../../project'
import { METRES, nothing, sayRows, textOf, type SiteRead, type SurveyReader } from './kind'

const NAMES: Record<'x' | 'y' | 'z' | 'line', RegExp> = {
  x: /^(x|e|east|easting|rechtswert)$/i,
  y: /^(y|n|north|northing|hochwert)$/i,
  z: /^(z|h|height|elevation|level|ele)$/i,
  line: /^(line|breakline|string|code)$/i,
}

/** Values that stand for a height which was not measured. */
const NO_DATA = /^(nan|nodata|no data|null|none|n\/a|\*|-9999(\.0*)?|-99999(\.0*)?|-32768|-3\.4028\d*e\+?38)$/i

/**
 * Surveyed points as text: a row each, with or without a head and a number or name before the coordinates; points of one `line` are joined in
 * order. What follows the coordinates (intensity, colours) is left.
 */
export const points: SurveyReader = {
  extensions: ['csv', 'txt', 'xyz', 'pts'],
  read(bytes, name, { leaveOut }) {
    const text = textOf(bytes)
    const { data } = Papa.parse<string[]>(
      text
        .replace(/\s+$/, '')
        .replace(/^[ \t]+/gm, '')
        .replace(/[ \t]+/g, (gap) => (/[,;]/.test(text.slice(0, 400)) ? gap : '\t')),
    )
    // Rows keep the numbers that they have in the file, empty ones too.
    const rows = data
      .map((row, i) => ({
        at: i + 1,
        row: row.map((c) => c.trim()).filter((c, k, all) => c !== '' || k < all.length - 1),
      }))
      .filter(({ row }) => row.some((c) => c !== ''))
    if (rows.length === 0)
      refuse('file', `"${name}" has no rows.`, 'Choose a file with a point a row: east, north, height.')
    const head = rows[0]?.row ?? []
    const at = (what: keyof typeof NAMES) => head.findIndex((c) => NAMES[what].test(c.replace(/[ _([].*$/, '')))
    const named = at('x') >= 0 && at('y') >= 0 && at('z') >= 0
    const factor = (what: 'x' | 'y' | 'z') => (named ? unitIn(head[at(what)] ?? '') : 1)
    const factors = [factor('x'), factor('y'), factor('z')]
    const body = rows.slice(named ? 1 : 0)
    const from = named ? 0 : firstCoordinate(body.map((r) => r.row))
    const read: SiteRead = nothing()
    const wrong: number[] = []
    let unmeasured = 0
    const lines = new Map<string, [number, number, number][]>()
    for (const { at: line, row } of body) {
      const cells = named ? [row[at('x')], row[at('y')], row[at('z')]] : row.slice(from, from + 3)
      if (NO_DATA.test(cells[2] ?? '')) {
        unmeasured++
        continue
      }
      const xyz = cells.map((c, k) => number(c) * (factors[k] ?? 1)) as [number, number, number]
      if (xyz.length < 3 || xyz.some((v) => !Number.isFinite(v))) {
        wrong.push(line)
        continue
      }
      const of = named && at('line') >= 0 ? (row[at('line')] ?? '') : ''
      if (!of) {
        read.points.push(xyz)
        continue
      }
      const known = lines.get(of)
      if (known) known.push(xyz)
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
    if (read.points.length + read.lines.length === 0)
      refuse('file', `There is no point in "${name}".`, 'Choose a file with a point a row: east, north, height.')
    return read
  },
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

/** 12.5, and 12,5 where a comma is not what parts the columns. */
const number = (text: string | undefined): number =>
  text === undefined || text === '' ? NaN : Number(/^-?\d+,\d+$/.test(text) ? text.replace(',', '.') : text)
