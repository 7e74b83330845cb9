export * from './plate'
export * from './headroom'
export * from './floor'
