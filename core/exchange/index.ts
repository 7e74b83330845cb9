export * from './formats'
export { ifcGuid } from './ifc/guid'
export { readBodies, READERS, type ReadBody } from './read'
