export * from './mass-form'
export * from './commands'
