import type { Command } from 'commander'

/** A command that reads a project file and tells something of one of its schemes. */
export const reading = (program: Command, name: string, description: string): Command =>
  program
    .command(name)
    .description(description)
    .argument('<file>', 'a .geotome or .geotome.json file')
    .option('--scheme <name>', 'a scheme by name or id (the first otherwise)')
    .option('--json', 'as JSON')
