import Papa from 'papaparse'
import { refuse } from '../../project'
import { nothing, sayRows, textOf, type SiteRead, type SurveyReader } from './kind'

const NAMES: Record<'x' | 'y' | 'z' | 'line', RegExp> = { x: /^(x|e|east|easting|rechtswert)$/i, y: /^(y|n|north|northing|hochwert)$/i, z: /^(z|h|height|elevation|level|ele)$/i, line: /^(line|breakline|string|code)$/i }

/** Surveyed points as text: a row each, with or without a head and a number or name before the coordinates; points of one `line` are joined in order. */
export const points: SurveyReader = {
  extensions: ['csv', 'txt', 'xyz', 'pts'],
  read(bytes, name, { leaveOut }) {
    const text = textOf(bytes)
    const { data } = Papa.parse<string[]>(text.trim().replace(/[ \t]+/g, (gap) => (/[,;]/.test(text.slice(0, 400)) ? gap : '\t')), { skipEmptyLines: 'greedy' })
    const rows = data.map((row) => row.map((c) => c.trim()).filter((c, i, all) => c !== '' || i < all.length - 1))
    if (rows.length === 0) refuse('file', `"${name}" has no rows.`, 'Choose a file with a point a row: east, north, height.')
    const head = rows[0] ?? []
    const at = (what: keyof typeof NAMES) => head.findIndex((c) => NAMES[what].test(c.replace(/[ _(].*$/, '')))
    const named = at('x') >= 0 && at('y') >= 0 && at('z') >= 0
    const body = rows.slice(named ? 1 : 0)
    // Without a head: three columns are coordinates, with more the first is a number or a name.
    const from = (row: string[]) => (row.length > 3 ? 1 : 0)
    const read: SiteRead = nothing()
    const wrong: number[] = []
    const lines = new Map<string, [number, number, number][]>()
    body.forEach((row, i) => {
      const xyz = (named ? [row[at('x')], row[at('y')], row[at('z')]] : row.slice(from(row), from(row) + 3)).map(number) as [number, number, number]
      if (xyz.length < 3 || xyz.some((v) => !Number.isFinite(v))) { wrong.push(i + (named ? 2 : 1)); return }
      const line = named && at('line') >= 0 ? row[at('line')] ?? '' : ''
      if (!line) { read.points.push(xyz); return }
      const known = lines.get(line)
      if (known) known.push(xyz); else lines.set(line, [xyz])
    })
    if (wrong.length && !leaveOut) refuse('file', `In "${name}", ${sayRows(wrong)} ${wrong.length === 1 ? 'is' : 'are'} not numbers: "${(body[(wrong[0] ?? 1) - (named ? 2 : 1)] ?? []).join(', ').slice(0, 60)}".`, 'Mend them, or read the file without these rows.')
    if (wrong.length) read.remarks.push(`${wrong.length} rows were left out: ${sayRows(wrong)}.`)
    for (const line of lines.values()) { if (line.length > 1) read.lines.push(line); else read.points.push(...line) }
    if (read.points.length + read.lines.length === 0) refuse('file', `There is no point in "${name}".`, 'Choose a file with a point a row: east, north, height.')
    return read
  },
}

/** 12.5, and 12,5 where a comma is not what parts the columns. */
const number = (text: string | undefined): number => (text === undefined || text === '' ? NaN : Number(/^-?\d+,\d+$/.test(text) ? text.replace(',', '.') : text))
