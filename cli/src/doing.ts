import { toJsonSchema } from '@valibot/to-json-schema'
import type { Command } from 'commander'
import { randomUUID } from 'node:crypto'
import { COMMANDS, runCommand } from '@geotome/core/commands'
import { applyEdit } from '@geotome/core/edits'
import { blankProject, checkProject, refuse } from '@geotome/core/project'
import type { Study } from '@geotome/core/study'
import { bytesOf, parseJson, print, saveProject } from './files'

export interface Options {
  scheme?: string
  json?: boolean
}

/** The commands that begin a project and that do what a person does. */
export function addDoing(program: Command, study: (file: string, options: Options) => Promise<Study>): void {
  program
    .command('new')
    .description('writes a blank project')
    .argument('<name>', 'of the project')
    .requiredOption('-o, --output <file>', 'where it goes')
    .option('--unit <unit>', 'm, mm or ft', 'm')
    .option('--site <area>', 'of the site, m²')
    .action(async (name: string, options: { output: string; unit: string; site?: string }) => {
      const unit =
        (['m', 'mm', 'ft'] as const).find((u) => u === options.unit) ??
        refuse('edit', `"${options.unit}" is no unit of a project.`, 'Choose m, mm or ft.')
      const area = options.site === undefined ? null : Number(options.site)
      const project = blankProject(randomUUID, name, unit, area)
      checkProject(project)
      await saveProject(options.output, project)
    })
  program
    .command('do')
    .description('does what a person does: a command by its name, with its arguments as JSON')
    .argument('[file]')
    .argument('[command]', 'see --list')
    .argument('[args]', 'a JSON file with the arguments, or the arguments themselves')
    .option('-o, --output <file>', 'where the result goes')
    .option('--scheme <name>')
    .option('--list', 'all commands with the schemas of their arguments')
    .action(
      async (
        file: string | undefined,
        name: string | undefined,
        args: string | undefined,
        options: Options & { output?: string; list?: true },
      ) => {
        if (options.list) {
          print(
            COMMANDS.map(({ name, say, args }) => ({ name, say, args: toJsonSchema(args, { errorMode: 'ignore' }) })),
          )
          return
        }
        if (!file || !name || !options.output)
          return refuse(
            'edit',
            'A file, a command and -o with a file for the result are needed.',
            'For example: geotome do a.geotome level.line \'{"line": "2.85 First"}\' -o b.geotome',
          )
        const now = await study(file, options)
        const typed = args ?? '{}'
        const data = /^\s*\{/.test(typed)
          ? parseJson(new TextEncoder().encode(typed), 'What is given as arguments')
          : parseJson(await bytesOf(typed), typed)
        await saveProject(options.output, applyEdit(now.project, runCommand(now, name, data, randomUUID)).project)
      },
    )
}
