import { Command, CommanderError } from 'commander'
import { readFile, writeFile } from 'node:fs/promises'
import { applyEdit, parseEdit } from '@geotome/core/edits'
import { formatNamed, FORMATS } from '@geotome/core/exchange'
import { propose } from '@geotome/core/fabric'
import { inOrder, readProjectFile, Refusal, refuse, writeProjectFile, writeProjectText, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { firstScheme, ledgerOf, studyScheme, type Study } from '@geotome/core/study'
import { fabricReport, findingsReport, table } from './reports'

/** Runs the command line; the exit code is 0, or 1 after one sentence on bad input. */
export async function main(args: string[]): Promise<number> {
  const program = new Command('geotome').description('Massing studies without a screen: areas, fabric, findings, edits and exports of a project file.').exitOverride().showHelpAfterError(false)
  program.configureOutput({ writeErr: () => undefined })
  const reading = (name: string, description: string) => program.command(name).description(description).argument('<file>', 'a .geotome or .geotome.json file').option('--scheme <name>', 'a scheme by name or id (the first otherwise)').option('--json', 'as JSON')

  reading('ledger', 'areas by level and use').action(async (file: string, options: Options) => {
    const ledger = ledgerOf(await study(file, options))
    print(options.json ? ledger : table(['level', 'height', 'area', 'low', 'net', 'perimeter'], [...[...ledger.levels].reverse().map((l) => [l.name, l.height.toFixed(3), l.area.toFixed(2), l.low.toFixed(2), l.net?.toFixed(2) ?? '', l.perimeter.toFixed(2)]), ['total', '', ledger.totals.area.toFixed(2), ledger.totals.low.toFixed(2), ledger.totals.net?.toFixed(2) ?? '', '']]))
  })
  reading('fabric', 'the parts of the building, and what could still be made').action(async (file: string, options: Options) => {
    const now = await study(file, options)
    const report = fabricReport(now, propose(now.context))
    print(options.json ? report : table(['part', 'role', 'level', 'area', 'volume', 'bond'], report.parts.map((p) => [p.name, p.role, p.level ?? '', p.area.toFixed(2), p.volume.toFixed(3), p.bond])))
  })
  reading('findings', 'what the checks found').action(async (file: string, options: Options) => {
    const report = findingsReport(await study(file, options))
    print(options.json ? report : report.map((f) => `${f.kind}: ${f.say}. ${f.remedy}`).join('\n') || 'Nothing found.')
  })
  program.command('edit').description('applies edits and writes the result').argument('<file>').argument('<edits>', 'a JSON file with an edit or a list of edits').requiredOption('-o, --output <file>', 'where the result goes')
    .action(async (file: string, editsFile: string, options: { output: string }) => {
      let project = await load(file)
      const data = parseJson(await bytesOf(editsFile), editsFile)
      for (const edit of Array.isArray(data) ? data : [data]) project = applyEdit(project, parseEdit(edit)).project
      await save(options.output, /\.json$/i.test(options.output) ? writeProjectText(project) : writeProjectFile(project))
    })
  program.command('export').description(`writes an open format: ${FORMATS.map((f) => f.id).join(', ')}`).argument('<file>').requiredOption('--to <format>').requiredOption('-o, --output <file>').option('--scheme <name>')
    .action(async (file: string, options: Options & { to: string; output: string }) => {
      const format = formatNamed(options.to)
      await save(options.output, format.write(await study(file, options), new Date().toISOString()))
    })

  try {
    await program.parseAsync(args, { from: 'user' })
    return 0
  } catch (e) {
    if (e instanceof CommanderError) {
      if (e.exitCode === 0) return 0
      process.stderr.write(`${e.message.replace(/^error: /, '')}. See geotome --help.\n`)
      return 1
    }
    process.stderr.write(`${e instanceof Refusal ? e.message : `Something unforeseen went wrong: ${e instanceof Error ? e.message : String(e)}`}\n`)
    return 1
  }
}

interface Options { scheme?: string; json?: boolean }

async function study(file: string, options: Options): Promise<Study> {
  const project = await load(file)
  await openKernel()
  const wanted = options.scheme?.toLowerCase()
  const scheme = wanted === undefined ? firstScheme(project)
    : inOrder(project.schemes).find((s) => s.id === options.scheme || s.name.toLowerCase() === wanted)
      ?? refuse('unknown-id', `There is no scheme "${options.scheme}".`, `Choose one of ${inOrder(project.schemes).map((s) => s.name).join(', ')}.`)
  return studyScheme(project, scheme.id)
}

/** Reads a project and checks that it holds together: an edit that changes nothing is the same check as any other. */
async function load(file: string): Promise<Project> {
  const project = readProjectFile(await bytesOf(file))
  return applyEdit(project, { edit: 'project.change', set: {} }).project
}

async function bytesOf(file: string): Promise<Uint8Array> {
  try {
    return new Uint8Array(await readFile(file))
  } catch (e) {
    return refuse('file', `${file} cannot be read (${(e as NodeJS.ErrnoException).code ?? 'unknown'}).`, 'Check the path.')
  }
}

async function save(file: string, content: string | Uint8Array): Promise<void> {
  try {
    await writeFile(file, content)
  } catch (e) {
    refuse('file', `${file} cannot be written (${(e as NodeJS.ErrnoException).code ?? 'unknown'}).`, 'Check the folder and its rights.')
  }
}

function parseJson(bytes: Uint8Array, file: string): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch (e) {
    return refuse('edit', `${file} is no JSON: ${e instanceof Error ? e.message : ''}.`, 'Write one edit or a list of edits.')
  }
}

const print = (result: unknown) => process.stdout.write(`${typeof result === 'string' ? result : JSON.stringify(result, null, 2)}\n`)
