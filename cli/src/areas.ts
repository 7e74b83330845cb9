import type { Command } from 'commander'
import { randomUUID } from 'node:crypto'
import { applyEdit } from '@geotome/core/edits'
import { csvFile, ledgerSheet, scheduleSheet, sheetCsv, writeXlsx } from '@geotome/core/exchange'
import { quantityOf, readTyped, refuse, type Project, type Scheme } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import {
  briefOf,
  differencesOf,
  figureNamed,
  ledgerOf,
  meetSteps,
  moverNamed,
  readScheduleBy,
  scheduleOf,
  showFigure,
  studyScheme,
  type Study,
  type TargetMove,
} from '@geotome/core/study'
import type { Options } from './doing'
import { along, load, note, print, save, saveProject } from './files'
import { table } from './reports'
import { reading } from './reading'
import { schemeNamed } from './scheme'

const round = (value: number | null) => (value === null ? null : Math.round(value * 1e6) / 1e6 + 0)
const two = (value: number | null) => value?.toFixed(2) ?? ''
const several = (value: string, before: string[]) => [...before, value]

interface LedgerOptions extends Options {
  by?: string
  csv?: string | true
  xlsx?: string
}

/** What is printed ends the command. */
const told = (what: unknown): void => void print(what as never)

/** The commands that tell areas, compare schemes, and seek a target. */
export function addAreas(program: Command, study: (file: string, options: Options) => Promise<Study>): void {
  reading(program, 'ledger', 'areas by level and use')
    .option('--by <words>', 'level, use, wing, in any order: gross, internal and net floor by these')
    .option('--csv [file]', 'as CSV, into a file or to the screen')
    .option('--xlsx <file>', 'as a workbook, into a file')
    .action(async (file: string, options: LedgerOptions) => {
      const now = await study(file, options)
      const by = options.by === undefined ? null : readScheduleBy(options.by)
      const sheet = by ? scheduleSheet(now, by) : ledgerSheet(now)
      if (options.xlsx) return save(options.xlsx, writeXlsx([sheet]))
      if (options.csv !== undefined) {
        const text = sheetCsv(sheet)
        return options.csv === true ? told(text) : save(options.csv, csvFile(text))
      }
      if (by && options.json)
        return told({
          scheme: now.scheme.name,
          by,
          rows: scheduleOf(now, by).map((r) => ({
            ...r,
            gross: round(r.gross),
            internal: round(r.internal),
            net: round(r.net),
          })),
        })
      if (options.json) return told(ledgerOf(now))
      if (by)
        return told(
          table(
            sheet.head,
            sheet.rows.map((r) => r.map((c) => (typeof c === 'number' ? c.toFixed(2) : (c ?? '')))),
          ),
        )
      const ledger = ledgerOf(now)
      print(
        table(
          ['level', 'height', 'area', 'low', 'net', 'perimeter'],
          [
            ...[...ledger.levels]
              .reverse()
              .map((l) => [l.name, l.height.toFixed(3), two(l.area), two(l.low), two(l.net), two(l.perimeter)]),
            ['total', '', two(ledger.totals.area), two(ledger.totals.low), two(ledger.totals.net), ''],
          ],
        ),
      )
    })

  reading(program, 'brief', 'the brief against a scheme').action(async (file: string, options: Options) => {
    const now = await study(file, options)
    const lines = briefOf(now)
    print(
      options.json
        ? lines.map(({ line, target, now: value, state, by }) => ({
            name: line.name,
            bound: line.bound,
            target,
            tolerance: line.tolerance,
            now: round(value),
            state,
            by: round(by),
          }))
        : lines.length === 0
          ? 'The project has no brief yet.'
          : table(
              ['line', 'wanted', 'now', 'state'],
              lines.map(({ line, target, now: value, state }) => [
                line.name,
                `${{ about: '', least: 'at least ', most: 'at most ' }[line.bound]}${showFigure(now.project, line.of, target)}`,
                value === null ? 'not known' : showFigure(now.project, line.of, value),
                state,
              ]),
            ),
    )
  })

  program
    .command('compare')
    .description('two schemes: their figures, and what differs in plan level by level')
    .argument('<file>', 'a .geotome or .geotome.json file')
    .argument('<first>', 'a scheme by name or id')
    .argument('<second>', 'another one')
    .option('--json', 'as JSON')
    .action(async (file: string, first: string, second: string, options: Options) => {
      const project = await load(file)
      await openKernel()
      const [a, b] = [first, second].map((name) => schemeNamed(project, name)) as [Scheme, Scheme]
      const [one, two] = (a.id === b.id ? [studied(project, a)] : [a, b].map((s) => studied(project, s))) as [
        Study,
        Study,
      ]
      const levels = differencesOf(one, two ?? one)
      const totals = [one, two].map((s) => ledgerOf(s).totals)
      if (options.json)
        return told({
          schemes: [a.name, b.name],
          totals,
          levels: levels.map((l) => ({
            level: l.name,
            height: round(l.height),
            areas: l.areas.map(round),
            only: l.onlyArea.map(round),
          })),
          only: [0, 1].map((i) => round(levels.reduce((sum, l) => sum + (l.onlyArea[i] ?? 0), 0))),
        })
      print(comparisonTable([a.name, b.name], totals, levels))
    })

  program
    .command('target')
    .description('seeks the value of something that may move at which a figure comes out, and writes the result')
    .argument('<file>', 'a .geotome or .geotome.json file')
    .requiredOption(
      '--figure <name>',
      'a use, "homes net", a line of the brief, area, ratio, coverage, height, volume or footprint',
      several,
      [],
    )
    .requiredOption('--value <number>', 'what is wanted; ">=3000" and "<=2.5" say at least and at most', several, [])
    .requiredOption(
      '--move <what>',
      'dial:bay, storeys:Bar, "number:Bar, width", "face:Bar, east moved out", "height of First above Ground"',
      several,
      [],
    )
    .option('--from <value>', 'where the search begins', several, [])
    .option('--to <value>', 'where it ends', several, [])
    .option('--scheme <name>', 'a scheme by name or id (the first otherwise)')
    .option('--json', 'as JSON')
    .option('-o, --output <file>', 'where the result goes')
    .action(async (file: string, options: TargetOptions) => {
      const project = await load(file)
      await openKernel()
      const scheme = schemeNamed(project, options.scheme)
      if (options.figure.length !== options.value.length || options.figure.length !== options.move.length)
        refuse(
          'edit',
          'Each figure needs its value and what is moved for it.',
          'Give --figure, --value and --move once or twice each.',
        )
      const moves = options.figure.map((name, i) => targetMove(project, scheme, name, i, options))
      const steps = meetSteps(project, scheme.id, moves, randomUUID)
      let step = steps.next()
      while (!step.done) step = steps.next()
      const { met, edit } = step.value
      print(
        options.json
          ? met.map(({ label, before, best, beside, reached, say, tries }) => ({
              move: label,
              before,
              best,
              beside,
              reached,
              say,
              tries,
            }))
          : met.map((m) => m.say).join('\n'),
      )
      if (!options.output) return
      if (!met.every((m) => m.reached)) note('Not all targets are reached; the nearest values are written.')
      await saveProject(options.output, edit ? applyEdit(project, edit).project : project)
    })
}

interface TargetOptions extends Options {
  figure: string[]
  value: string[]
  move: string[]
  from: string[]
  to: string[]
  output?: string
}

function targetMove(project: Project, scheme: Scheme, name: string, i: number, options: TargetOptions): TargetMove {
  const of = figureNamed(project, name)
  const [, sign = '', text = ''] = /^\s*(>=|<=|=)?\s*(.*)$/.exec(options.value[i] ?? '') ?? []
  const mover = moverNamed(project, scheme, options.move[i] ?? '')
  const read = (typed: string | undefined) =>
    typed === undefined ? undefined : readTyped(typed, mover.quantity, project, scheme).value
  const [from, to] = [read(options.from[i]), read(options.to[i])]
  return {
    mover,
    target: {
      of,
      bound: sign === '>=' ? 'least' : sign === '<=' ? 'most' : 'about',
      value: readTyped(text, quantityOf(of), project, scheme).value,
    },
    ...(from === undefined ? {} : { from }),
    ...(to === undefined ? {} : { to }),
  }
}

const studied = (project: Project, scheme: Scheme) =>
  studyScheme(project, scheme.id, undefined, (hash) => along[hash] ?? null)

function comparisonTable(
  names: string[],
  totals: ReturnType<typeof ledgerOf>['totals'][],
  levels: ReturnType<typeof differencesOf>,
): string {
  const figures = (['area', 'volume', 'footprint', 'ratio', 'coverage'] as const).map((key) => {
    const [a, b] = totals.map((t) => t[key])
    return [key, ...[a, b].map((x) => x?.toFixed(key === 'ratio' || key === 'coverage' ? 3 : 2) ?? ''), '', '']
  })
  return table(
    ['', ...names, ...names.map((n) => `only in ${n}`)],
    [...figures, ...[...levels].reverse().map((l) => [l.name, ...l.areas.map(two), ...l.onlyArea.map(two)])],
  )
}
