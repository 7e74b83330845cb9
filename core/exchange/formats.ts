import { refuse, writeProjectFile, writeProjectText, type AssetBytes } from '../project'
import type { Study } from '../study'
import { ledgerCsv } from './csv'
import { writeGlb } from './glb'
import { writeIfc } from './ifc/write'
import { writeObj, writeObjWithMaterials } from './obj'
import { writeStl } from './stl'

/** An open format that a scheme is written to; `stamp` is an ISO 8601 time. */
export interface Format {
  id: string
  label: string
  extension: string
  type: string
  write(study: Study, stamp: string, assets?: AssetBytes): string | Uint8Array | Promise<string | Uint8Array>
}

/** All formats out; a new one is a file and a line here. */
export const FORMATS: Format[] = [
  {
    id: 'ifc',
    label: 'Building model (IFC4)',
    extension: 'ifc',
    type: 'application/x-step',
    write: (study, stamp) => writeIfc(study, stamp),
  },
  {
    id: 'ifc-forms',
    label: 'Building model with its forms beside it (IFC4)',
    extension: 'ifc',
    type: 'application/x-step',
    write: (study, stamp) => writeIfc(study, stamp, true),
  },
  {
    id: 'glb',
    label: 'Building, and forms without one (GLB)',
    extension: 'glb',
    type: 'model/gltf-binary',
    write: writeGlb,
  },
  { id: 'obj', label: 'Forms (OBJ)', extension: 'obj', type: 'model/obj', write: (study) => writeObj(study) },
  {
    id: 'obj-materials',
    label: 'Forms with materials (OBJ and MTL, zipped)',
    extension: 'zip',
    type: 'application/zip',
    write: writeObjWithMaterials,
  },
  { id: 'stl', label: 'Forms (STL)', extension: 'stl', type: 'model/stl', write: writeStl },
  { id: 'csv', label: 'Ledger (CSV)', extension: 'csv', type: 'text/csv; charset=utf-8', write: ledgerCsv },
  {
    id: 'geotome',
    label: 'Project file (.geotome)',
    extension: 'geotome',
    type: 'application/zip',
    write: (study, _stamp, assets) => writeProjectFile(study.project, assets),
  },
  {
    id: 'json',
    label: 'Project file, plain (.geotome.json)',
    extension: 'geotome.json',
    type: 'application/json',
    write: (study) => writeProjectText(study.project),
  },
]

export const formatNamed = (id: string): Format =>
  FORMATS.find((f) => f.id === id) ??
  refuse('file', `There is no format "${id}".`, `Choose one of ${FORMATS.map((f) => f.id).join(', ')}.`)
