export * from './mass-form'
export * from './commands'
export * from './appearance'
