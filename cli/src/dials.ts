import type { Command } from 'commander'
import { applyEdit } from '@geotome/core/edits'
import { readTyped, refuse, showQuantity, type Dial, type Project, type Scheme } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { dialNamed, trialGrid, trialSteps, type Trial, type TrialDial } from '@geotome/core/study'
import type { Options } from './doing'
import { load, print, saveProject } from './files'
import { table } from './reports'
import { schemeNamed } from './scheme'

const several = (value: string, before: string[]) => [...before, value]

/** The commands that turn dials: one sets them, one tries them. */
export function addDials(program: Command): void {
  program
    .command('set')
    .description('sets dials of a scheme, and writes the result')
    .argument('<file>', 'a .geotome or .geotome.json file')
    .requiredOption('--dial <name=value>', 'a dial and its value or formula; may be given more than once', several, [])
    .requiredOption('-o, --output <file>', 'where the result goes')
    .option('--scheme <name>', 'a scheme by name or id (the first otherwise)')
    .action(async (file: string, options: Options & { dial: string[]; output: string }) => {
      let project = await load(file)
      const { id } = schemeNamed(project, options.scheme)
      for (const text of options.dial) {
        const scheme = project.schemes[id] as Scheme
        const [name, value] = parted(text, '=', 'inset=0.8')
        const dial = dialNamed(scheme, name)
        const { num } = readTyped(value, dial.quantity, project, scheme)
        project = applyEdit(project, { edit: 'dial.change', scheme: id, id: dial.id, set: { value: num } }).project
      }
      await saveProject(options.output, project)
    })
  program
    .command('trials')
    .description('the figures of a scheme at many values of one dial, or of two')
    .argument('<file>', 'a .geotome or .geotome.json file')
    .requiredOption('--dial <name=from..to/count>', 'a dial, from where to where, and how many values', several, [])
    .option('--scheme <name>', 'a scheme by name or id (the first otherwise)')
    .option('--json', 'as JSON')
    .action(async (file: string, options: Options & { dial: string[] }) => {
      const project = await load(file)
      await openKernel()
      const scheme = schemeNamed(project, options.scheme)
      const dials = options.dial.map((text) => triedDial(text, project, scheme))
      const trials = run(
        trialSteps(
          project,
          scheme.id,
          dials.map((d) => d.dial.id),
          trialGrid(dials.map((d) => d.tried)),
        ),
      )
      print(options.json ? trials.map((t) => named(t, dials)) : asTable(trials, dials, project))
    })
}

function run(steps: Generator<unknown, Trial[]>): Trial[] {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

interface Tried {
  dial: Dial
  tried: TrialDial
}

/** "inset=0.8..2.4/9". Errors: 'edit' with an example, those of numbers. */
function triedDial(text: string, project: Project, scheme: Scheme): Tried {
  const [name, range] = parted(text, '=', 'inset=0.8..2.4/9')
  const [ends, count] = parted(range, '/', 'inset=0.8..2.4/9')
  const [from, to] = parted(ends, '..', 'inset=0.8..2.4/9')
  const dial = dialNamed(scheme, name)
  const read = (value: string) => readTyped(value, dial.quantity, project, scheme).value
  return { dial, tried: { dial: dial.id, from: read(from), to: read(to), count: Number(count) } }
}

function parted(text: string, at: string, example: string): [string, string] {
  const i = text.indexOf(at)
  return i > 0
    ? [text.slice(0, i).trim(), text.slice(i + at.length).trim()]
    : refuse('edit', `"${text}" cannot be read.`, `Write, for example, ${example}.`)
}

const named = ({ values, figures, say }: Trial, dials: readonly Tried[]) => ({
  dials: Object.fromEntries(dials.map(({ dial }, i) => [dial.name, values[i]])),
  ...(figures ?? { say }),
})

function asTable(trials: readonly Trial[], dials: readonly Tried[], project: Project): string {
  return table(
    [...dials.map((d) => d.dial.name), 'area', 'ratio', 'height', 'overlap', 'surface/volume'],
    trials.map(({ values, figures, say }) => [
      ...dials.map((d, i) => showQuantity(values[i] ?? 0, d.dial.quantity, project)),
      ...(figures
        ? [
            figures.area.toFixed(2),
            figures.ratio?.toFixed(3) ?? '',
            figures.height.toFixed(2),
            figures.overlap.toFixed(2),
            figures.compact?.toFixed(4) ?? '',
          ]
        : [say ?? '', '', '', '', '']),
    ]),
  )
}
