import type { PartRole } from '@geotome/core/fabric'

/** The roles of parts in the order in which they are listed, with what several of them are called. */
const PLURAL: Record<PartRole, string> = {
  wall: 'walls',
  'curved wall': 'curved walls',
  'sloping wall': 'sloping walls',
  'facet wall': 'facet walls',
  'ground slab': 'ground slabs',
  'floor slab': 'floor slabs',
  'soffit slab': 'soffit slabs',
  'flat roof': 'flat roofs',
  'pitched roof': 'roof slopes',
  terrace: 'terraces',
  parapet: 'parapets',
}
export const ROLES = Object.keys(PLURAL) as PartRole[]
export const manyOf = (role: PartRole, count: number): string =>
  `${count.toLocaleString('en')} ${count === 1 ? role : PLURAL[role]}`
