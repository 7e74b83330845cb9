import {
  refuse,
  assetsIn,
  sayMended,
  type Project,
  writeProjectText,
  writeProjectFile,
  type AssetBytes,
} from '@geotome/core/project'
import { readAside } from './reader'
import { readFile, writeFile } from 'node:fs/promises'

/** Reads a project, with what it takes along. */
export async function load(file: string): Promise<Project> {
  const { project, assets, mended } = await readAside('project', file, await bytesOf(file))
  along = assets
  const said = sayMended(mended)
  if (said) note(said)
  return project
}
export async function bytesOf(file: string): Promise<Uint8Array> {
  try {
    return new Uint8Array(await readFile(file))
  } catch (e) {
    return refuse(
      'file',
      `${file} cannot be read (${(e as NodeJS.ErrnoException).code ?? 'unknown'}).`,
      'Check the path.',
    )
  }
}
export async function save(file: string, content: string | Uint8Array): Promise<void> {
  try {
    await writeFile(file, content)
  } catch (e) {
    refuse(
      'file',
      `${file} cannot be written (${(e as NodeJS.ErrnoException).code ?? 'unknown'}).`,
      'Check the folder and its rights.',
    )
  }
}

/** A plain file holds no pictures: what stays behind is said. */
export function saveProject(file: string, project: Project): Promise<void> {
  if (!/\.json$/i.test(file)) return save(file, writeProjectFile(project, along))
  const left = assetsIn(project).filter((hash) => along[hash]).length
  if (left)
    note(
      `${left} ${left === 1 ? 'picture or survey is' : 'pictures and surveys are'} not in ${file}: write to a .geotome file to take them along.`,
    )
  return save(file, writeProjectText(project))
}

/** Said beside the result. */
export const note = (text: string) => process.stderr.write(`${text}\n`)
export function parseJson(bytes: Uint8Array, file: string): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch (e) {
    return refuse(
      'edit',
      `${file} is no JSON: ${e instanceof Error ? e.message : ''}.`,
      'Write one edit or a list of edits.',
    )
  }
}

/** The pictures and surveys of the project that is worked on: what is written takes them along. */
export let along: AssetBytes = {}
export const print = (result: unknown) =>
  process.stdout.write(`${typeof result === 'string' ? result : JSON.stringify(result, null, 2)}\n`)
