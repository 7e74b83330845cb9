import { refuse, writeProjectFile, writeProjectText } from '../project'
import type { Study } from '../study'
import { ledgerCsv } from './csv'
import { writeIfc } from './ifc/write'

/** An open format that a scheme is written to; `stamp` is an ISO 8601 time. */
export interface Format { id: string; label: string; extension: string; type: string; write(study: Study, stamp: string): string | Uint8Array }

/** All formats out; a new one is a file and a line here. */
export const FORMATS: Format[] = [
  { id: 'ifc', label: 'Building model (IFC4)', extension: 'ifc', type: 'application/x-step', write: writeIfc },
  { id: 'csv', label: 'Ledger (CSV)', extension: 'csv', type: 'text/csv; charset=utf-8', write: ledgerCsv },
  { id: 'geotome', label: 'Project file (.geotome)', extension: 'geotome', type: 'application/zip', write: (study) => writeProjectFile(study.project) },
  { id: 'json', label: 'Project file, plain (.geotome.json)', extension: 'geotome.json', type: 'application/json', write: (study) => writeProjectText(study.project) },
]

export const formatNamed = (id: string): Format => FORMATS.find((f) => f.id === id) ?? refuse('file', `There is no format "${id}".`, `Choose one of ${FORMATS.map((f) => f.id).join(', ')}.`)
