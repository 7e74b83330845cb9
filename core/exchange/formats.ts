import { STARTERS } from '../groundwork'
import { refuse, writeProjectFile, writeProjectText, type AssetBytes, type Project } from '../project'
import type { Study } from '../study'
import { ledgerCsv } from './csv'
import { ledgerSheet, scheduleSheet } from './sheet'
import { writeXlsx } from './xlsx'
import { writeGlb } from './glb'
import { READERS } from './read'
import { SITE_EXTENSIONS } from './survey'
import { writeIfc } from './ifc/write'
import { writeObj, writeObjWithMaterials } from './obj'
import { writeStl } from './stl'

/** An open format that a scheme is written to; `stamp` is an ISO 8601 time. */
export interface Format {
  id: string
  label: string
  /** what is in it, in a sentence for whoever chooses */
  say: string
  extension: string
  type: string
  write(study: Study, stamp: string, assets?: AssetBytes): Written | Promise<Written>
  /** writes the project alone: it needs no study, so that work can always be saved out */
  writeProject?(project: Project, assets?: AssetBytes): Written
}
type Written = string | Uint8Array

/** Writes a scheme, or the project alone where the format needs no study; `study` is asked for only where it is needed. */
export async function writeFormat(
  format: Format,
  project: Project,
  study: () => Study,
  stamp: string,
  assets: AssetBytes = {},
): Promise<Written> {
  return format.writeProject ? format.writeProject(project, assets) : format.write(study(), stamp, assets)
}

/** All formats out; a new one is a file and a line here. */
export const FORMATS: Format[] = [
  {
    id: 'ifc',
    label: 'Building model, IFC4',
    say: 'Storeys, spaces by use, walls, slabs and roofs with their build-ups, the site and where it lies. A mass without parts goes along as a body.',
    extension: 'ifc',
    type: 'application/x-step',
    write: (study, stamp) => writeIfc(study, stamp),
  },
  {
    id: 'ifc-forms',
    label: 'Building model with its forms, IFC4',
    say: 'The same, and every form beside its parts.',
    extension: 'ifc',
    type: 'application/x-step',
    write: (study, stamp) => writeIfc(study, stamp, true),
  },
  {
    id: 'glb',
    label: 'Building, GLB',
    say: 'Parts and forms with their materials, for viewers and renderers.',
    extension: 'glb',
    type: 'model/gltf-binary',
    write: writeGlb,
  },
  {
    id: 'obj',
    label: 'Forms, OBJ',
    say: 'Every mass with its faces by name, metres, z up, in full precision.',
    extension: 'obj',
    type: 'model/obj',
    write: (study) => writeObj(study),
  },
  {
    id: 'obj-materials',
    label: 'Forms with materials, OBJ in a zip',
    say: 'The same with a file of the materials beside it.',
    extension: 'zip',
    type: 'application/zip',
    write: writeObjWithMaterials,
  },
  {
    id: 'stl',
    label: 'Forms, STL',
    say: 'Closed triangles, for printing a model. Far from zero they are moved near, and the file says by how much.',
    extension: 'stl',
    type: 'model/stl',
    write: writeStl,
  },
  {
    id: 'csv',
    label: 'Ledger, CSV',
    say: 'Level by use, with totals, for a spreadsheet.',
    extension: 'csv',
    type: 'text/csv; charset=utf-8',
    write: ledgerCsv,
  },
  {
    id: 'xlsx',
    label: 'Ledger, XLSX',
    say: 'Level by use, and by level, use and wing with internal and net floor, as a workbook.',
    extension: 'xlsx',
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    write: (study) => writeXlsx([ledgerSheet(study), scheduleSheet(study)]),
  },
  {
    id: 'geotome',
    label: 'Project file',
    say: 'Everything, to open again here or on another machine.',
    extension: 'geotome',
    type: 'application/zip',
    write: (study, _stamp, assets) => writeProjectFile(study.project, assets),
    writeProject: writeProjectFile,
  },
  {
    id: 'json',
    label: 'Project file, plain text',
    say: 'The same as JSON, for the command line.',
    extension: 'geotome.json',
    type: 'application/json',
    write: (study) => writeProjectText(study.project),
    writeProject: (project) => writeProjectText(project),
  },
]

/** The format with that id. Errors: 'file', with the ids that there are. */
export const formatNamed = (id: string): Format =>
  FORMATS.find((f) => f.id === id) ??
  refuse('file', `There is no format "${id}".`, `Choose one of ${FORMATS.map((f) => f.id).join(', ')}.`)

/** What can be written and read, and what a project can start from, as it is told to a page: names, sentences and extensions. */
export const exchangeList = () => ({
  written: FORMATS.map(({ id, label, say, extension }) => ({ id, label, say, extension })),
  bodies: READERS.flatMap((r) => r.extensions),
  sites: SITE_EXTENSIONS,
  starters: STARTERS.map(({ id, label, say }) => ({ id, label, say })),
})
export type ExchangeList = ReturnType<typeof exchangeList>
