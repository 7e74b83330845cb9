export * from './apply'
export * from './log-format'
export { differences, type Change } from './difference'
export type { ProjectEdit } from './project'
