export { StudyCache } from './cache'
export * from './study'
export * from './ledger'
export type { Check, Finding, Floor, Study, Totals } from './types'
