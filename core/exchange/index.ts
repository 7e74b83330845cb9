export * from './formats'
export { ifcGuid } from './ifc/guid'
