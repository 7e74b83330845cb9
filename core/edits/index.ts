export * from './apply'
export type { ProjectEdit } from './project'
