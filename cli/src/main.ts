import { Command, CommanderError } from 'commander'
import { randomUUID } from 'node:crypto'
import { applyEdit, parseEdit } from '@geotome/core/edits'
import { formatNamed, FORMATS, READERS } from '@geotome/core/exchange'
import { addParts, bringInLine, howOf, partsFrom, propose, usualChoices, type Choices } from '@geotome/core/fabric'
import { addBodies } from '@geotome/core/form'
import { inOrder, readTyped, Refusal, refuse, type BuildUp, type Id, type Project } from '@geotome/core/project'
import { openKernel } from '@geotome/core/solid'
import { studyScheme, type Study } from '@geotome/core/study'
import { readAside } from './reader'
import { fabricReport, findingsReport, groundReport, table } from './reports'
import { addAreas } from './areas'
import { addDials } from './dials'
import { addDoing, type Options } from './doing'
import { along, bytesOf, load, note, parseJson, print, save, saveProject } from './files'
import { reading } from './reading'
import { schemeNamed } from './scheme'

/** Runs the command line; the exit code is 0, or 1 after one sentence on bad input. */
export async function main(args: string[]): Promise<number> {
  const program = new Command('geotome')
    .description('Massing studies without a screen: areas, fabric, findings, edits and exports of a project file.')
    .exitOverride()
    .showHelpAfterError(false)
  program.configureOutput({ writeErr: () => undefined })

  reading(program, 'fabric', 'the parts of the building, and what could still be made').action(
    async (file: string, options: Options) => {
      const now = await study(file, options)
      const report = fabricReport(now, propose(now.context))
      print(
        options.json
          ? report
          : table(
              ['part', 'role', 'level', 'area', 'volume', 'bond'],
              report.parts.map((p) => [p.name, p.role, p.level ?? '', p.area.toFixed(2), p.volume.toFixed(3), p.bond]),
            ),
      )
    },
  )
  reading(program, 'findings', 'what the checks found').action(async (file: string, options: Options) => {
    const report = findingsReport(await study(file, options))
    print(options.json ? report : report.map((f) => `${f.kind}: ${f.say}. ${f.remedy}`).join('\n') || 'Nothing found.')
  })
  reading(program, 'ground', 'site, envelope, terrain, and how the masses stand in them').action(
    async (file: string, options: Options) => {
      const report = groundReport(await study(file, options))
      print(
        options.json
          ? report
          : table(
              ['mass', 'over m³', 'limits passed', 'top above mean ground'],
              report.masses.map((m) => [
                m.name,
                m.over?.toFixed(2) ?? '',
                m.passed.join(', '),
                m.aboveGround?.mean.toFixed(3) ?? '',
              ]),
            ),
      )
    },
  )
  const changing = (name: string, description: string) =>
    program
      .command(name)
      .description(description)
      .argument('<file>')
      .requiredOption('-o, --output <file>', 'where the result goes')
      .option('--scheme <name>')
  changing('make', 'makes the building that the faces offer: walls, slabs and roofs')
    .option('--wall <build-up>')
    .option('--slab <build-up>')
    .option('--roof <build-up>')
    .option('--outside', 'walls outside the mass face')
    .option('--overhang <length>', 'of roofs, level', '0')
    .option('--through', 'walls from the base to the top of their face')
    .option('--facets', 'twisted faces as flat facets instead of upright walls')
    .option('--terraces', 'flat tops beside a storey as terraces with a parapet')
    .action(async (file: string, options: Options & MakeOptions & { output: string }) => {
      const { project, context } = await study(file, options)
      const choices: Choices = {
        ...usualChoices(project),
        wall: buildUpNamed(project, 'wall', options.wall),
        slab: buildUpNamed(project, 'slab', options.slab),
        roof: buildUpNamed(project, 'roof', options.roof),
        ...(options.terraces ? {} : { terrace: null, parapet: null }),
        reach: options.through ? 'through' : 'storey',
        bent: options.facets ? 'facets' : 'upright walls',
        wallSide: options.outside ? 'outside' : 'inside',
        overhang: readTyped(options.overhang, 'length', project, context.scheme).num,
      }
      await saveProject(
        options.output,
        applyEdit(
          project,
          addParts(
            context,
            partsFrom(context, randomUUID, propose(context, undefined, howOf(choices)).candidates, choices),
          ),
        ).project,
      )
    })
  changing('align', 'brings drifted parts in line with their faces').action(
    async (file: string, options: Options & { output: string }) => {
      const { project, context, parts } = await study(file, options)
      await saveProject(options.output, applyEdit(project, bringInLine(context, parts)).project)
    },
  )
  changing('import', `adds bodies from a file: ${READERS.map((r) => r.id).join(', ')}`)
    .argument('<body>', 'the file with the bodies')
    .option('--context', 'drawn, not counted')
    .option('--together', 'all of it as one body')
    .option('--use <name>')
    .option('--level <name>', 'the level that they hang on')
    .option('--up <axis>', 'y or z, where an OBJ does not say it')
    .option('--unit <unit>', 'm, mm, cm, ft, in, where an OBJ does not say it')
    .option('--take <kind>', 'forms, parts, spaces, others, context, ground or all, of a file that has several')
    .action(
      async (
        file: string,
        body: string,
        options: Options & {
          output: string
          context?: true
          together?: true
          use?: string
          level?: string
          up?: string
          unit?: string
          take?: string
        },
      ) => {
        const { project, scheme, levels } = await study(file, options)
        const use = options.use
          ? (Object.values(project.uses).find((u) => u.name === options.use) ??
            refuse(
              'unknown-id',
              `There is no use "${options.use}".`,
              `Choose one of ${Object.values(project.uses)
                .map((u) => u.name)
                .join(', ')}.`,
            ))
          : inOrder(project.uses)[0]
        const level = options.level
          ? (levels.find((l) => l.name === options.level) ??
            refuse(
              'unknown-id',
              `There is no level "${options.level}".`,
              `Choose one of ${levels.map((l) => l.name).join(', ')}.`,
            ))
          : (levels.find((l) => Math.abs(l.height) < 1e-6) ?? levels[0])
        const { up, unit, take } = options
        const answers = { ...(up && { up }), ...(unit && { unit }), ...(take && { take }) }
        const {
          bodies: read,
          remarks,
          asks,
        } = await readAside('bodies', body, await bytesOf(body), { together: options.together === true, answers })
        for (const remark of remarks) note(remark)
        for (const ask of asks)
          if (answers[ask.what as keyof typeof answers] === undefined)
            note(`${ask.say}: taken as "${ask.taken}"; say --${ask.what} otherwise.`)
        await saveProject(
          options.output,
          applyEdit(
            project,
            addBodies(scheme, randomUUID, read, {
              use: use?.id ?? '',
              level: level?.id ?? '',
              levelHeight: level?.height ?? 0,
              context: options.context === true,
            }),
          ).project,
        )
      },
    )
  addDoing(program, study)
  addDials(program)
  addAreas(program, study)
  program
    .command('edit')
    .description('applies edits and writes the result')
    .argument('<file>')
    .argument('<edits>', 'a JSON file with an edit or a list of edits')
    .requiredOption('-o, --output <file>', 'where the result goes')
    .action(async (file: string, editsFile: string, options: { output: string }) => {
      let project = await load(file)
      const data = parseJson(await bytesOf(editsFile), editsFile)
      for (const edit of Array.isArray(data) ? data : [data]) project = applyEdit(project, parseEdit(edit)).project
      await saveProject(options.output, project)
    })
  program
    .command('export')
    .description(`writes an open format: ${FORMATS.map((f) => f.id).join(', ')}`)
    .argument('<file>')
    .requiredOption('--to <format>')
    .requiredOption('-o, --output <file>')
    .option('--scheme <name>')
    .action(async (file: string, options: Options & { to: string; output: string }) => {
      const format = formatNamed(options.to)
      // A project file needs no study, so that it can be written of a project that cannot be studied.
      const content = format.writeProject
        ? format.writeProject(await load(file), along)
        : await format.write(await study(file, options), new Date().toISOString(), along)
      await save(options.output, content)
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
    process.stderr.write(
      `${e instanceof Refusal ? e.message : `Something unforeseen went wrong: ${e instanceof Error ? e.message : String(e)}`}\n`,
    )
    return 1
  }
}

interface MakeOptions {
  wall?: string
  slab?: string
  roof?: string
  outside?: boolean
  overhang: string
  through?: boolean
  facets?: boolean
  terraces?: boolean
}

/** A build-up by its name; the first of its kind when none is named. */
function buildUpNamed(project: Project, kind: BuildUp['for'], name: string | undefined): Id {
  const all = inOrder(project.buildUps).filter((b) => b.for === kind)
  const found = name === undefined ? all[0] : all.find((b) => b.name.toLowerCase() === name.toLowerCase())
  return (
    found?.id ??
    refuse(
      'unknown-id',
      `There is no build-up "${name ?? ''}" for a ${kind}.`,
      `Choose one of ${all.map((b) => b.name).join(', ')}.`,
    )
  )
}

async function study(file: string, options: Options): Promise<Study> {
  const project = await load(file)
  await openKernel()
  const scheme = schemeNamed(project, options.scheme)
  return studyScheme(project, scheme.id, undefined, (hash) => along[hash] ?? null)
}
