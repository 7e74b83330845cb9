import { toJsonSchema } from '@valibot/to-json-schema'
import { writeFile } from 'node:fs/promises'
import { EditSchema } from '@geotome/core/edits'
import { ProjectFileSchema } from '@geotome/core/project'

/** Writes the JSON Schemas of the project file and of edits from the schemas that the core checks with; see docs/file-format.md. */
const SCHEMAS = [
  ['project', 'A Geotome project file', ProjectFileSchema],
  ['edits', 'An edit of a Geotome project, or a batch of them', EditSchema],
] as const

export const schemaTexts = (): [string, string][] =>
  SCHEMAS.map(([name, title, schema]) => [
    `docs/${name}.schema.json`,
    `${JSON.stringify({ title, ...toJsonSchema(schema, { errorMode: 'ignore' }) }, null, 1)}\n`,
  ])

if (process.argv[1]?.endsWith('schema.ts'))
  for (const [file, text] of schemaTexts()) await writeFile(new URL(`../${file}`, import.meta.url), text)
