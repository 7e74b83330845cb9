export * from './formats'
export { ifcGuid } from './ifc/guid'
export { readBodies, READERS, type ReadBody } from './read'
export { readSite, surveyOf, SITE_EXTENSIONS, SITE_READERS, type Placed, type SiteRead } from './survey'
