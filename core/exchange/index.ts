export * from './formats'
export { ifcGuid } from './ifc/guid'
export { READ_LIMITS, secondsFor } from './limits'
export { readBodies, READERS, type BodiesRead, type ReadBody } from './read'
export {
  readSite,
  surveyOf,
  SITE_EXTENSIONS,
  SITE_READERS,
  type Answers,
  type Ask,
  type Placed,
  type SiteRead,
} from './survey'
export { ledgerSheet, scheduleSheet, type Sheet } from './sheet'
export { csvFile, sheetCsv } from './csv'
export { writeXlsx } from './xlsx'
