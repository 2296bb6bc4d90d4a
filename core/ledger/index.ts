export * from './slots'
export * from './types'
export * from './make'
export * from './pieces'
