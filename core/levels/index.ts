export * from './heights'
export * from './commands'
