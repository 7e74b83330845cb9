import Papa from 'papaparse'
import { batch, type Edit, type SingleEdit } from '../edits'
import {
  areaSign,
  briefKey,
  inOrder,
  LIMITED,
  nextOrder,
  quantityOf,
  readTyped,
  Refusal,
  refuse,
  type BriefLine,
  type BriefOf,
  type Id,
  type Limited,
  type Num,
  type Project,
} from '../project'

/** The columns of a brief as it is pasted, in the order that is taken where no head names them. */
const COLUMNS = ['name', 'target', 'tolerance', 'bound', 'size', 'measure'] as const
type Column = (typeof COLUMNS)[number]
const ALSO: Record<string, Column> = {
  use: 'name',
  figure: 'name',
  what: 'name',
  area: 'target',
  value: 'target',
  wanted: 'target',
}

const BOUNDS: Record<string, BriefLine['bound']> = {
  '': 'about',
  about: 'about',
  least: 'least',
  'at least': 'least',
  min: 'least',
  minimum: 'least',
  most: 'most',
  'at most': 'most',
  max: 'most',
  maximum: 'most',
}

/** What is usually wanted of a figure of the whole: no more. */
const usualBound = (of: BriefOf): BriefLine['bound'] =>
  of.kind === 'figure' ? 'most' : of.kind === 'count' ? 'least' : 'about'

/**
 * Lines of a brief as they are pasted from a table or read from CSV: a name, a target, and if wanted a tolerance (%), a bound,
 * the size of one of them (then it is a number of things) and gross or net. The name is a use, "homes net", or area, ratio,
 * coverage, height, volume, footprint; a line that counts things has a use behind its name ("flats, homes"). Lines about what
 * the brief has already change it. Errors: 'edit', with all cells that cannot be read; 'name-taken' for two lines about one thing.
 */
export function readBrief(project: Project, text: string, mint: () => Id): Edit {
  const { data } = Papa.parse<string[]>(text.trim(), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: ['\t', ';', ',', '|'],
  })
  if (data.length === 0)
    return refuse('edit', 'There is nothing to read.', 'Paste a table: a name and a target in each row.')
  const head = headOf(data[0] ?? [])
  const columns = head ?? [...COLUMNS]
  const faults: string[] = []
  const seen = new Map<string, string>()
  const lines: BriefLine[] = []
  data.slice(head ? 1 : 0).forEach((row, i) => {
    const at = (column: Column) =>
      `${String.fromCharCode(65 + Math.max(0, columns.indexOf(column)))}${i + (head ? 2 : 1)}`
    const text = (column: Column) => (row[columns.indexOf(column)] ?? '').trim()
    const fault = (column: Column, say: string) =>
      void faults.push(`${at(column)} "${text(column).slice(0, 30)}" ${say}`)
    const of = ofText(project, text('name'), text('size'), text('measure'), (c, say) => fault(c, say))
    if (!of) return
    const target = numberOf(project, text('target'), of)
    if (target === null) fault('target', `is no ${quantityOf(of) === 'number' ? 'number' : quantityOf(of)}`)
    const tolerance = shareOf(text('tolerance'))
    if (tolerance === null) fault('tolerance', 'is no share; write, for example, 5 %')
    const word = text('bound').toLowerCase()
    const bound = word === '' ? usualBound(of) : BOUNDS[word]
    if (!bound) fault('bound', 'is none of about, at least, at most')
    if (target === null || tolerance === null || !bound) return
    const before = seen.get(briefKey(of))
    if (before !== undefined)
      refuse(
        'name-taken',
        `${before} and ${at('name')} are both about ${text('name')}.`,
        'Keep one of the two rows, or let one count gross and the other net floor.',
      )
    seen.set(briefKey(of), at('name'))
    lines.push({
      id: mint(),
      name: text('name').split(/[,:]/)[0]?.trim() || text('name'),
      order: 0,
      of,
      bound,
      target,
      tolerance,
    })
  })
  if (faults.length)
    refuse(
      'edit',
      `${faults.length === 1 ? 'A cell' : `${faults.length} cells`} cannot be read: ${faults.slice(0, 8).join('; ')}.`,
      'Mend them, and paste again.',
    )
  return briefEdit(project, lines)
}

/** The edit that puts lines into a brief: those about what it has already change that line. */
export function briefEdit(project: Project, lines: readonly BriefLine[]): Edit {
  const known = new Map(inOrder(project.brief).map((l) => [briefKey(l.of), l]))
  const first = nextOrder(project.brief)
  return batch(
    lines.map((line, i): SingleEdit => {
      const before = known.get(briefKey(line.of))
      const { bound, target, tolerance, of } = line
      return before
        ? { edit: 'brief-line.change', id: before.id, set: { bound, target, tolerance, of } }
        : {
            edit: 'brief-line.add',
            thing: { ...line, name: freeLine(project, lines.slice(0, i), line.name), order: first + i },
          }
    }),
  )
}

/** A name that no line has. */
function freeLine(project: Project, before: readonly BriefLine[], wish: string): string {
  const taken = new Set([...Object.values(project.brief), ...before].map((l) => l.name.toLowerCase()))
  let name = wish
  for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${wish}, ${n}`
  return name
}

function headOf(row: string[]): (Column | null)[] | null {
  const words = row.map((c) =>
    c
      .trim()
      .toLowerCase()
      .replace(/\s*[(,].*$/, ''),
  )
  const columns = words.map((w): Column | null => COLUMNS.find((c) => c === w) ?? ALSO[w] ?? null)
  return columns.includes('name') && columns.includes('target') ? columns : null
}

function ofText(
  project: Project,
  name: string,
  size: string,
  measure: string,
  fault: (column: Column, say: string) => void,
): BriefOf | null {
  const [, plain = name, behind] = /^(.*?)[ ,]*\b(net|gross)?$/i.exec(name) ?? []
  const word = (measure || behind || '').toLowerCase()
  if (word !== '' && word !== 'net' && word !== 'gross') {
    fault('measure', 'is neither gross nor net')
    return null
  }
  const how = word === 'net' ? 'net' : 'gross'
  const names = [plain, ...plain.split(/[,:]/)].map((n) => n.trim().toLowerCase())
  const use = inOrder(project.uses).find((u) => names.includes(u.name.toLowerCase()))
  const figure = LIMITED.find((f): f is Limited => names.includes(f) || (f === 'area' && names.includes('total')))
  if (size !== '') {
    const each = use && numberOf(project, size, { kind: 'use', use: use.id, measure: how })
    if (each === null) fault('size', 'is no area')
    if (!use) fault('name', 'names no use of which they are; write, for example, flats, homes')
    return use && each !== null && each !== undefined ? { kind: 'count', use: use.id, size: each, measure: how } : null
  }
  if (use) return { kind: 'use', use: use.id, measure: how }
  if (figure) return { kind: 'figure', figure }
  fault(
    'name',
    `is neither a use (${inOrder(project.uses)
      .map((u) => u.name)
      .join(', ')}) nor one of ${LIMITED.join(', ')}`,
  )
  return null
}

/** A number as it stands in tables: thousands by commas, blanks or points between threes, with its unit or in the project's. */
function numberOf(project: Project, text: string, of: BriefOf): Num | null {
  const quantity = quantityOf(of)
  const tidy = text
    .replace(/[\s\u00a0\u2009]+(?=\d{3}\b)/g, '')
    .replace(/(\d),(?=\d{3}\b)/g, '$1')
    .replace(/\bsq\.? ?(m|ft)\b/i, (_, u: string) => `${u.toLowerCase()}2`)
    .trim()
  if (!/\d/.test(tidy)) return null
  try {
    if (/%$/.test(tidy)) return readTyped(`(${tidy.slice(0, -1)}) / 100`, quantity, project, null).num
    return readTyped(tidy, quantity, project, null).num
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

/** "5", "5 %" as 0.05; nothing is nothing. */
function shareOf(text: string): number | null {
  if (text === '') return 0
  const value = Number(text.replace(/[%\s]/g, '').replace(',', '.'))
  return Number.isFinite(value) && value >= 0 && value <= 100 ? Math.round(value * 1e6) / 1e8 : null
}

/** A line of a brief as one writes it, for lists. */
export const briefUnit = (project: Project, of: BriefOf): string =>
  quantityOf(of) === 'area' ? areaSign(project) : quantityOf(of) === 'length' ? project.unit : ''
