export * from './plate'
export * from './floor'
