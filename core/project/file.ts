import { strFromU8, strToU8, Unzip, UnzipInflate, unzipSync, zipSync } from 'fflate'
import * as v from 'valibot'
import { Refusal, refuse } from '../values'
import { isSmall, needBounds } from './bounds'
import { checkProject } from './integrity'
import { mendNames } from './mend-names'
import { withAllPlaceIds } from './place-ids'
import { faultOf, sayNoJson, sayPlace } from './say-fault'
import { ProjectSchema, type Project } from './schema'

/** The version of the file format that this core writes; see docs/file-format.md. */
export const FILE_VERSION = 5
const ENTRY = 'project.json'
const ASSETS = 'assets/'
/** of a file, and of all that it holds once it is unpacked; of the project's text alone */
const MOST_BYTES = 150 * 1024 * 1024
const MOST_TEXT = 32 * 1024 * 1024

/** The project file as data, whatever is in it: what a reader of this version checks. */
export const ProjectFileSchema = v.object({
  format: v.literal('geotome'),
  version: v.literal(FILE_VERSION),
  project: ProjectSchema,
})

/** The project as canonical text: keys sorted, so that equal projects are equal to the byte. */
export function writeProjectText(project: Project): string {
  return canonical({ format: 'geotome', version: FILE_VERSION, project })
}

/** Pictures and surveys by the hash of their content. */
export type AssetBytes = Record<string, Uint8Array>

/** The hashes of all pictures and surveys that a project shows. */
export function assetsIn(project: Project): string[] {
  const terrain = project.terrain?.kind === 'survey' ? [project.terrain.asset] : []
  return [...new Set([...Object.values(project.pictures).map((p) => p.asset), ...terrain])].sort()
}

/** The project as a .geotome file: a zip with project.json, and its pictures and surveys by the hash of their content. */
export function writeProjectFile(project: Project, assets: AssetBytes = {}): Uint8Array {
  const mtime = new Date('2000-01-01T00:00:00')
  // Pictures are packed already.
  const stored = Object.fromEntries(
    assetsIn(project).flatMap((hash) => {
      const bytes = assets[hash]
      return bytes
        ? [[`${ASSETS}${hash}`, [bytes, { level: 0, mtime }] as [Uint8Array, { level: 0; mtime: Date }]]]
        : []
    }),
  )
  return zipSync({ [ENTRY]: [strToU8(writeProjectText(project)), { level: 6, mtime }], ...stored })
}

/** Reads .geotome (zip) or .geotome.json. Errors: 'file' (what is wrong and where), 'newer-file'. */
export const readProjectFile = (bytes: Uint8Array): Project => readProjectPackage(bytes).project

/** What a project file holds: the project, its pictures and surveys, and the names that the reader mended. */
export interface ProjectPackage {
  project: Project
  /** by the names in the file; whoever stores them checks that these are the hashes of their content */
  assets: AssetBytes
  /** names that had characters that cannot be shown, as they are now */
  mended: string[]
}

/** The same with all that came along. */
export function readProjectPackage(bytes: Uint8Array): ProjectPackage {
  if (bytes.length === 0) refuse('file', 'The file is empty.', 'Choose a .geotome or .geotome.json file.')
  if (bytes.length > MOST_BYTES)
    refuse(
      'file',
      'The file is larger than 150 MB.',
      'Choose a project file; pictures and scans are not project files.',
    )
  const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b
  if (!zipped) return { ...readMended(strFromU8(bytes)), assets: {} }
  const entries = unpacked(bytes)
  const { [ENTRY]: entry, ...others } = entries
  const read = entry
    ? readMended(strFromU8(entry))
    : refuse('file', 'The zip holds no project.json.', 'Choose a file that Geotome exported.')
  return {
    ...read,
    assets: Object.fromEntries(Object.entries(others).map(([name, content]) => [name.slice(ASSETS.length), content])),
  }
}

/** bytes of a zip unpacked at a time, which bounds the size of the result */
const PIECE = 16 * 1024

/** What of a zip belongs to a project, by name. Counted before it is unpacked, and while it is: what a zip says of its sizes may be wrong. Errors: 'file'. */
function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  const pieces = new Map<string, Uint8Array[]>()
  countSaid(bytes)
  let total = 0
  const unzip = new Unzip((file) => {
    if (!isOurs(file.name)) return
    const into: Uint8Array[] = []
    let size = 0
    file.ondata = (fault, piece) => {
      if (fault) throw fault
      size += piece.length
      total += piece.length
      needRoom(file.name, size, total)
      into.push(piece)
    }
    pieces.set(file.name, into)
    file.start()
  })
  unzip.register(UnzipInflate)
  try {
    for (let at = 0; at < bytes.length; at += PIECE)
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length)
  } catch (e) {
    if (e instanceof Refusal) throw e
    refuse('file', 'The file is a damaged zip.', 'Export the project once more.')
  }
  return Object.fromEntries([...pieces].map(([name, parts]) => [name, joined(parts)]))
}

const isOurs = (name: string) => name === ENTRY || name.startsWith(ASSETS)

/** What the zip says of the sizes in it, before anything is unpacked: most that are too large say so. */
function countSaid(bytes: Uint8Array): void {
  let total = 0
  try {
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (isOurs(name)) needRoom(name, originalSize, (total += originalSize))
        return false
      },
    })
  } catch (e) {
    if (e instanceof Refusal) throw e
    refuse('file', 'The file is a damaged zip.', 'Export the project once more.')
  }
}

function needRoom(name: string, size: number, total: number): void {
  const most = name === ENTRY ? MOST_TEXT : MOST_BYTES
  if (size > most || total > MOST_BYTES)
    refuse(
      'file',
      `Unpacked, the file would have over ${Math.round((size > most ? most : MOST_BYTES) / 1024 / 1024)} MB.`,
      'Choose a project file that Geotome exported.',
    )
}

function joined(parts: Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0))
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
  }
  return whole
}

/** Reads project text of this version or an older one, and checks that it holds together as after an edit. Errors: 'file', 'newer-file', and those of integrity.ts. */
export const readProjectText = (text: string): Project => readMended(text).project

/** The same, with the names that had characters that cannot be shown, as they are now. */
function readMended(text: string): { project: Project; mended: string[] } {
  if (text.length > MOST_TEXT)
    refuse(
      'file',
      `The project's text has over ${MOST_TEXT / 1024 / 1024} MB.`,
      'Choose a project file that Geotome exported.',
    )
  needBounds(text)
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (e) {
    return refuse(
      'file',
      `The file is not a project file: ${sayNoJson(text, e)}.`,
      'Choose a .geotome or .geotome.json file.',
    )
  }
  const head = v.safeParse(
    v.object({
      format: v.literal('geotome'),
      version: v.pipe(v.number(), v.integer(), v.minValue(1)),
      project: v.unknown(),
    }),
    data,
  )
  if (!head.success)
    return refuse(
      'file',
      'The file is no Geotome project: it does not say that it is one, or of which version.',
      'Choose a file that Geotome exported.',
    )
  if (head.output.version > FILE_VERSION)
    refuse(
      'newer-file',
      `The file has version ${head.output.version}; this Geotome reads up to version ${FILE_VERSION}.`,
      'Update Geotome, or export the project from it in an older version.',
    )
  const migrated = MIGRATIONS.slice(head.output.version - 1).reduce((older, step) => step(older), head.output.project)
  const { data: shown, mended } = mendNames(migrated)
  const project = parseProject(shown)
  checkProject(project)
  return { project, mended }
}

/** Checks plain data against the project's schema. Errors: 'file' with the path of the first fault. */
export function parseProject(data: unknown): Project {
  return parseWith(ProjectSchema, data, 'file', 'The project cannot be read', true)
}

/** Parses outside data with a schema; the refusal names the place and what is wrong there. */
export function parseWith<T>(
  schema: v.GenericSchema<unknown, T>,
  data: unknown,
  code: 'file' | 'edit',
  what: string,
  isProject = false,
): T {
  const first =
    safely(() => v.safeParse(schema, data, { abortEarly: true })) ??
    refuse(code, `${what}: it nests too deeply.`, 'Take it apart, and try again.')
  if (first.success) return first.output
  // All faults are looked for where there cannot be many: a million of them would take seconds, and one is enough to refuse it.
  const result = isSmall(data) ? v.safeParse(schema, data) : first
  if (result.success) return result.output
  const place = (path: unknown[]) => (isProject ? sayPlace(path, data) : path.join('.'))
  const missing = result.issues.map(faultOf).flatMap((f) => (f.isMissing ? [place(f.path)] : []))
  if (missing.length > 1) {
    const more = missing.length > MOST_NAMED ? ` and ${missing.length - MOST_NAMED} more` : ''
    throw new Refusal(
      code,
      `${what}: ${missing.slice(0, MOST_NAMED).join(isProject ? '; ' : ', ')}${more} are missing.`,
      isProject ? EXPORT_ONCE_MORE : 'Give all of them.',
    )
  }
  const { path, says } = faultOf(result.issues[0])
  const where = place(path)
  if (isProject) throw new Refusal(code, `${what}: ${where ? `${where} ${says}` : `it ${says}`}.`, EXPORT_ONCE_MORE)
  throw new Refusal(code, `${what}${where ? ` at ${where}: it ${says}` : `: it ${says}`}.`, 'Correct it and try again.')
}

const EXPORT_ONCE_MORE = 'Correct it in the file, or export the project once more.'

/** so many missing places are named in a sentence */
const MOST_NAMED = 8

/** JSON with sorted keys and no spaces. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`
  if (value !== null && typeof value === 'object') {
    const entries = Object.entries(value)
      .filter(([, x]) => x !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
    return `{${entries.map(([k, x]) => `${JSON.stringify(k)}:${canonical(x)}`).join(',')}}`
  }
  return JSON.stringify(value)
}

/** MIGRATIONS[n] takes the data of version n + 1 to version n + 2. */
const MIGRATIONS: ((older: unknown) => unknown)[] = [
  // What version 2 added has a value that says it is not there: the schema fills it in.
  (older) => older,
  // So it is with version 3, and with version 4 (the heights of what was let go).
  (older) => older,
  (older) => older,
  // Layers and own facts got ids with version 5.
  withAllPlaceIds,
]

/** null where the stack does not suffice, which takes data that nests thousands of times. */
function safely<T>(work: () => T): T | null {
  try {
    return work()
  } catch (e) {
    if (e instanceof RangeError) return null
    throw e
  }
}
