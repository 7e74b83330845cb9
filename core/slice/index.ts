export * from './plate'
export * from './headroom'
export * from './floor'
export * from './upright'
